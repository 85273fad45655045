package decide

import (
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"fmt"
	"math"

	"github.com/google/uuid"

	"musculus/internal/core/arm"
	"musculus/internal/core/day"
	"musculus/internal/core/entry"
	"musculus/internal/core/floor"
	"musculus/internal/core/log"
	"musculus/internal/core/movement"
	"musculus/internal/core/plan"
	"musculus/internal/core/priority"
	"musculus/internal/core/series"
	"musculus/internal/core/week"
)

// shownWeeks are how many weeks a trend begins with.
const shownWeeks = 16

// Reading is what a client's log says on a day: what is proposed, what is watched, her courses
// and weeks. It is kept with the hash of what it came from.
type Reading struct {
	For       day.Day     `json:"for"`
	Hash      string      `json:"hash"`
	Whole     *Proposal   `json:"whole,omitempty"`
	Courses   []Course    `json:"courses"`
	Weeks     []WeekLine  `json:"weeks"` // the latest last
	Decisions []Came      `json:"decisions"`
	Joints    []JointSays `json:"joints"`
	Done      int         `json:"done"` // sessions of the last four weeks
	Planned   int         `json:"planned"`
}

// Course is one series.
type Course struct {
	Key      string            `json:"key"`
	Name     string            `json:"name"`
	Short    string            `json:"short"`
	Group    string            `json:"group"`
	Movement string            `json:"movement"`
	Turned   movement.Settings `json:"turned,omitempty"`
	NextOn   day.Day           `json:"next_on,omitempty"`
	Planned  bool              `json:"planned"`
	Proposal *Proposal         `json:"proposal,omitempty"`
	Watching string            `json:"watching"`
	State    series.State      `json:"state"`
	Words    string            `json:"words"`
	Slope    float64           `json:"slope"`
	Noise    float64           `json:"noise"`
	Window   int               `json:"window"`
	WholeKg  float64           `json:"whole_kg"` // where the line is on its last day, as the load is read; 0: none yet
	Band     []BandAt          `json:"band"`     // the line of the window and what sessions scatter around it
	Points   []Point           `json:"points"`
	Arms     *series.ArmsApart `json:"arms,omitempty"`
	ArmsSay  string            `json:"arms_say"`
	Led      string            `json:"led"` // where its tolerance plan stands, "" for none
	LedID    uuid.UUID         `json:"led_id"`
}

// BandAt is the line of a course on a day, as the load is read, and what sessions scatter by.
type BandAt struct {
	On   day.Day `json:"on"`
	Kg   float64 `json:"kg"`
	Low  float64 `json:"low"`
	High float64 `json:"high"`
}

// bandSteps are how many stretches of the line's band are drawn.
const bandSteps = 4

// bandOfLook is the line of a look over its window.
func bandOfLook(l *series.Look, sessions []series.Session, read func(float64) float64) []BandAt {
	compared := series.ComparedOf(sessions)
	n := len(compared)
	if !(l.Level > 0) || l.Window < 2 || l.Window > n {
		return []BandAt{}
	}
	out := []BandAt{}
	from, to := compared[n-l.Window].On, compared[n-1].On
	spread := math.Exp(2 * l.Noise)
	for k := range bandSteps + 1 {
		on := from + day.Day(math.Round(float64(int(to-from)*k)/bandSteps))
		hand := l.Level * math.Exp(l.Slope*float64(on-to)/7)
		out = append(out, BandAt{on, read(hand), read(hand / spread), read(hand * spread)})
	}
	return out
}

// Point is a session of a course.
type Point struct {
	On      day.Day `json:"on"`
	WholeKg float64 `json:"whole_kg"` // what could be lifted once, as the load is read; 0: it tells none
	LoadKg  float64 `json:"load_kg"`  // most sets' load, as it is read
	Reps    []int   `json:"reps"`
	Hollow  string  `json:"hollow"`
}

// WeekLine is one week: what each head was planned and got, effective sets.
type WeekLine struct {
	Monday   day.Day                        `json:"monday"`
	Planned  [arm.HeadCount]float64         `json:"planned"`
	Done     [arm.HeadCount]float64         `json:"done"`
	Target   [arm.HeadCount]priority.Target `json:"target"`
	Sessions int                            `json:"sessions"`
	Came     int                            `json:"came"`
	Lighter  bool                           `json:"lighter"`
}

// Came is a decision and what came of it.
type Came struct {
	ID      uuid.UUID `json:"id"`
	On      day.Day   `json:"on"`
	Series  string    `json:"series"`
	Name    string    `json:"name"`
	Kind    Kind      `json:"kind"`
	Says    string    `json:"says"`
	NotNow  bool      `json:"not_now"`
	Undone  bool      `json:"undone"`
	Outcome string    `json:"outcome"`
}

// ReadingOf reads facts.
func ReadingOf(f *Facts) *Reading {
	c, all := Gather(f)
	out := &Reading{For: f.Today, Courses: []Course{}, Decisions: []Came{}, Done: c.Done, Planned: c.Planned}
	out.Hash = hashOf(c, all)
	out.Whole = Whole(c, all)
	by := map[string]*Series{}
	for _, s := range all {
		by[s.Key] = s
		out.Courses = append(out.Courses, courseOf(f, c, out.Whole, s))
	}
	out.Weeks, out.Joints = weeksOf(f), jointsOf(f)
	for i := len(f.Taken) - 1; i >= 0; i-- {
		t := &f.Taken[i]
		x := Came{ID: t.ID, On: t.On, Series: t.Series, Name: t.Name, Kind: t.Kind, Says: t.Says, NotNow: t.NotNow, Undone: t.Undone}
		of := by[t.Series]
		if t.Kind == Change && t.Steps.ToID != "" {
			of = nil
			if m := f.Movements.Get(t.Steps.ToID); m != nil {
				if s, err := m.SetUp(t.Steps.Turned); err == nil {
					of = by[s.Key()]
				}
			}
			if of == nil && !t.NotNow && !t.Undone {
				x.Outcome = "Not done yet."
			}
		}
		if of != nil {
			x.Outcome = OutcomeOf(t, of)
		}
		out.Decisions = append(out.Decisions, x)
	}
	return out
}

// Asks are what is proposed, the client as a whole first; what stays as it is asks for nothing.
func (r *Reading) Asks() []Proposal {
	out := []Proposal{}
	if r.Whole != nil {
		out = append(out, *r.Whole)
	}
	for i := range r.Courses {
		if p := r.Courses[i].Proposal; p != nil && p.Kind != Hold {
			out = append(out, *p)
		}
	}
	return out
}

// Words tell a reading in few words.
func (r *Reading) Words() string {
	n := len(r.Asks())
	switch {
	case n > 0:
		return fmt.Sprintf("%d to decide", n)
	case len(r.Courses) == 0:
		return "when sets have been logged"
	}
	return "nothing to decide"
}

// hashOf is of everything that decisions come from.
func hashOf(c *Client, all []*Series) string {
	b, err := json.Marshal(struct {
		C *Client
		S []*Series
	}{c, all})
	if err != nil {
		return err.Error() // a number that is none: never equal to a hash
	}
	sum := sha256.Sum256(b)
	return hex.EncodeToString(sum[:])
}

func courseOf(f *Facts, c *Client, whole *Proposal, s *Series) Course {
	out := Course{Key: s.Key, Name: s.SetUp.Title(), Short: s.SetUp.Short(), Group: plan.GroupOf(s.SetUp),
		Movement: s.SetUp.Movement.ID, Turned: s.SetUp.Turned(), NextOn: s.NextOn,
		Planned: s.Next != nil, Proposal: For(c, whole, s), Watching: Watching(c, s), State: series.Unknown, Points: []Point{}}
	if l := s.look(); l != nil {
		out.State, out.Words, out.Slope, out.Noise, out.Window = l.State, CourseWords(l), l.Slope, l.Noise, l.Window
	}
	rack := f.T.Floor().Rack(s.SetUp)
	read := func(hand float64) float64 {
		if !(hand > 0) {
			return 0
		}
		return math.Round(100*rack.Carry.Whole(hand, rack.Rigging)) / 100
	}
	if l := s.look(); l != nil {
		out.WholeKg, out.Band = read(l.Level), bandOfLook(l, s.Sessions, read)
	}
	for i := range s.Sessions {
		x := &s.Sessions[i]
		p := Point{On: x.On, WholeKg: read(x.E1RM), LoadKg: read(x.HandKg), Reps: []int{}, Hollow: x.Hollow}
		for _, set := range x.Sets {
			p.Reps = append(p.Reps, set.Reps)
		}
		out.Points = append(out.Points, p)
	}
	if s.Led != nil {
		out.Led, out.LedID = s.Led.Words(), s.Led.ID
	}
	var own []entry.Entry
	for i := range f.Entries {
		if e := &f.Entries[i]; e.SetUp.Movement != nil && e.SetUp.Key() == s.Key {
			own = append(own, *e)
		}
	}
	if a, ok := series.ApartOf(own); ok {
		out.Arms, out.ArmsSay = &a, armsWords(&a)
	}
	return out
}

// armsWords tell how far the arms are apart.
func armsWords(a *series.ArmsApart) string {
	if !a.Beyond() {
		return fmt.Sprintf("The arms are alike within what %d pairs of sets can tell (±%.1f reps).", a.Pairs, 2*a.Error)
	}
	ahead, by := "right", a.Reps
	if by < 0 {
		ahead, by = "left", -by
	}
	return fmt.Sprintf("The %s is %.1f reps ahead, beyond what %d pairs of sets scatter (±%.1f).", ahead, by, a.Pairs, 2*a.Error)
}

// weeksOf counts the last weeks, planned and done.
func weeksOf(f *Facts) (out []WeekLine) {
	monday := f.Today.Monday()
	entries := map[uuid.UUID][]entry.Entry{}
	for i := range f.Entries {
		e := &f.Entries[i]
		if e.SetUp.Movement != nil && e.TwiceOf == nil {
			entries[e.SessionID] = append(entries[e.SessionID], *e)
		}
	}
	lighter := map[uuid.UUID]bool{}
	for _, t := range f.Taken {
		for _, id := range t.Wrote {
			lighter[id] = lighter[id] || t.Kind == LighterWeek && !t.NotNow && !t.Undone
		}
	}
	if f.Block != nil {
		for i := range f.Block.Made {
			m := &f.Block.Made[i]
			lighter[m.Now.ID] = lighter[m.Now.ID] || f.Block.IsLighter(m.Turn) && m.IsLight()
		}
	}
	for k := shownWeeks - 1; k >= 0; k-- {
		from := monday - day.Day(7*k)
		line := WeekLine{Monday: from}
		var w week.Week
		var sum floor.Sum
		for i := range f.Sessions {
			x := &f.Sessions[i]
			if x.On < from || x.On >= from+7 {
				continue
			}
			w.Sessions = append(w.Sessions, *x)
			line.Sessions++
			line.Lighter = line.Lighter || lighter[x.ID]
			if len(entries[x.ID]) > 0 {
				line.Came++
			}
			ran := floor.Ran{Session: &x.Session, Over: x.On < f.Today, Entries: log.Counting(entries[x.ID]), Events: f.Events[x.ID]}
			sum.CameOf(f.T, &ran)
		}
		ledger := w.Count(f.T)
		for h := range ledger.Heads {
			line.Planned[h] = ledger.Heads[h].Direct.Mid
			line.Done[h] = sum.Done[h]
			line.Target[h] = ledger.Heads[h].Target
		}
		if line.Sessions > 0 || len(out) > 0 {
			out = append(out, line)
		}
	}
	return out
}
