package view

import (
	"fmt"
	"math"

	"github.com/google/uuid"

	"musculus/internal/core/arm"
	"musculus/internal/core/day"
	"musculus/internal/core/decide"
	"musculus/internal/core/movement"
	"musculus/internal/figure"
)

// Trend is what a client's log says.
type Trend struct {
	Weeks     []TrendWeek   `json:"weeks"` // the latest last
	Whole     *ProposalView `json:"whole,omitempty"`
	Courses   []CourseShown `json:"courses"`
	Decisions []DecidedView `json:"decisions"` // the latest first
	Attended  string        `json:"attended"`
	Heads     []HeadWeeks   `json:"heads"`
	Joints    []JointLine   `json:"joints"`
	Sites     []WordView    `json:"sites"` // the joints there are
}

// HeadWeeks is one head over the weeks of the strip, effective sets.
type HeadWeeks struct {
	ID      string    `json:"id"`
	Code    string    `json:"code"`
	Name    string    `json:"name"`
	Low     float64   `json:"low"` // its target now
	High    float64   `json:"high"`
	Planned []float64 `json:"planned"`
	Done    []float64 `json:"done"`
}

// JointLine is what was told of a joint.
type JointLine struct {
	Joint string `json:"joint"`
	Says  string `json:"says"`
}

// TrendWeek is one week of the strip: the slice filled by what was done, its rim by what was
// planned.
type TrendWeek struct {
	Monday  day.Day   `json:"monday" format:"date"`
	Words   string    `json:"words"`
	Slice   SliceView `json:"slice"`
	Planned []float64 `json:"planned"` // by head, how far planned sets fill it, 0…1
	Lighter bool      `json:"lighter"`
}

// ProposalView is one thing to do.
type ProposalView struct {
	Kind   string   `json:"kind"`
	Series string   `json:"series"`
	Name   string   `json:"name"`
	Says   string   `json:"says"`
	Why    []string `json:"why"`
	Writes bool     `json:"writes"` // taking it changes sessions to come
}

// CourseShown is one series over time.
type CourseShown struct {
	Key      string        `json:"key"`
	Name     string        `json:"name"`
	Short    string        `json:"short"`
	Group    string        `json:"group"`
	State    string        `json:"state" enum:"unknown,rising,plateau,falling"`
	Says     string        `json:"says"`
	Next     string        `json:"next"` // when it is planned next, empty where it is not
	Planned  bool          `json:"planned"`
	Watching string        `json:"watching"`
	Proposal *ProposalView `json:"proposal,omitempty"`
	Now      string        `json:"now"` // what could be lifted once, by the line's end, in words
	Points   []CoursePoint `json:"points"`
	Band     []BandPoint   `json:"band"`  // the line of the window and what sessions scatter around it
	Ticks    []DecidedTick `json:"ticks"` // decisions, by their day
	Led      string        `json:"led"`   // where its tolerance plan stands, empty for none
	LedID    uuid.UUID     `json:"led_id"`
	// Movement and Settings are the set-up as it is asked for where one arm does it after the other;
	// empty where both work at once.
	Movement string            `json:"movement,omitempty"`
	Settings movement.Settings `json:"settings,omitempty"`
	Arms     string            `json:"arms"` // how far the arms are apart, empty where they are not told apart
}

// CoursePoint is one session of a course.
type CoursePoint struct {
	On     day.Day `json:"on" format:"date"`
	When   string  `json:"when"`
	Kg     float64 `json:"kg"`    // what could be lifted once, as the load is read; 0: it tells none
	Words  string  `json:"words"` // the same
	Load   string  `json:"load"`
	Reps   string  `json:"reps"`
	Hollow string  `json:"hollow"` // why it does not compare, empty where it does
}

// BandPoint is the line of a course on a day, and what it scatters by.
type BandPoint struct {
	On   day.Day `json:"on" format:"date"`
	Kg   float64 `json:"kg"`
	Low  float64 `json:"low"`
	High float64 `json:"high"`
}

// DecidedTick is a decision on a course.
type DecidedTick struct {
	On    day.Day `json:"on" format:"date"`
	Words string  `json:"words"`
}

// DecidedView is a decision and what came of it.
type DecidedView struct {
	ID      uuid.UUID `json:"id"`
	When    string    `json:"when"`
	Name    string    `json:"name"`
	Says    string    `json:"says"`
	Answer  string    `json:"answer" enum:"taken,not_now,undone"`
	Outcome string    `json:"outcome"`
	Fresh   bool      `json:"fresh"` // it can still be taken back
}

// freshFor is for how many days a decision can be taken back: later its sessions are done.
const freshFor = 14

// TrendOf shows a reading.
func TrendOf(eyes *Eyes, c *movement.Catalogue, r *decide.Reading) Trend {
	out := Trend{Weeks: []TrendWeek{}, Courses: []CourseShown{}, Decisions: []DecidedView{}, Heads: []HeadWeeks{},
		Joints: []JointLine{}, Whole: ProposalOf(r.Whole)}
	if r.Planned > 0 {
		out.Attended = decide.AttendedWords(r.Done, r.Planned)
	}
	for i := range r.Weeks {
		out.Weeks = append(out.Weeks, trendWeek(&r.Weeks[i]))
	}
	for h := range arm.HeadCount {
		line := HeadWeeks{ID: arm.Heads[h].ID, Code: arm.Heads[h].Code, Name: arm.Heads[h].Name, Planned: []float64{}, Done: []float64{}}
		for i := range r.Weeks {
			w := &r.Weeks[i]
			line.Planned, line.Done = append(line.Planned, Round4(w.Planned[h])), append(line.Done, Round4(w.Done[h]))
			line.Low, line.High = w.Target[h].Low, w.Target[h].High
		}
		out.Heads = append(out.Heads, line)
	}
	for _, j := range movement.Joints {
		out.Sites = append(out.Sites, WordView{string(j), j.Words()})
	}
	for _, j := range r.Joints {
		out.Joints = append(out.Joints, JointLine(j))
	}
	for i := range r.Courses {
		x := &r.Courses[i]
		set, ok := setUpOfKey(c, x)
		if !ok {
			continue
		}
		shown := courseShown(eyes, set, x)
		for _, d := range r.Decisions {
			if d.Series == x.Key && !d.NotNow && !d.Undone {
				shown.Ticks = append(shown.Ticks, DecidedTick{d.On, d.Says + ". " + d.Outcome})
			}
		}
		out.Courses = append(out.Courses, shown)
	}
	for _, d := range r.Decisions {
		answer := "taken"
		switch {
		case d.Undone:
			answer = "undone"
		case d.NotNow:
			answer = "not_now"
		}
		out.Decisions = append(out.Decisions, DecidedView{ID: d.ID, When: d.On.FromToday(eyes.Today), Name: d.Name, Says: d.Says,
			Answer: answer, Outcome: d.Outcome, Fresh: int(eyes.Today-d.On) <= freshFor})
	}
	return out
}

// ProposalOf shows a proposal; nil for none.
func ProposalOf(p *decide.Proposal) *ProposalView {
	if p == nil {
		return nil
	}
	return &ProposalView{Kind: string(p.Kind), Series: p.Series, Name: p.Name, Says: p.Says, Why: append([]string{}, p.Why...),
		Writes: !p.Steps.Nothing()}
}

func trendWeek(w *decide.WeekLine) TrendWeek {
	var low [arm.HeadCount]float64
	out := TrendWeek{Monday: w.Monday, Lighter: w.Lighter}
	out.Slice = SliceOf("Effective sets done", w.Done, low, low, Levels(w.Done, figure.SetsLevel))
	for i := range out.Slice.Heads {
		out.Slice.Heads[i].Leading = false // it is no choice of a set-up
		out.Planned = append(out.Planned, Round4(figure.SetsLevel(w.Planned[i])))
	}
	out.Words = fmt.Sprintf("Week of %s: %d of %d sessions done", w.Monday.Words(), w.Came, w.Sessions)
	if w.Lighter {
		out.Words += ", a lighter week"
	}
	return out
}

// setUpOfKey is the set-up of a course; false where its movement is gone.
func setUpOfKey(c *movement.Catalogue, x *decide.Course) (movement.SetUp, bool) {
	set, fault := c.SetUp("set_up", x.Movement, x.Turned)
	return set, fault == nil
}

func courseShown(eyes *Eyes, set movement.SetUp, x *decide.Course) CourseShown {
	words := func(whole float64) string { return eyes.Room.Words(math.Round(10*whole)/10, set) }
	out := CourseShown{Key: x.Key, Name: x.Name, Short: x.Short, Group: x.Group, State: string(x.State), Says: x.Words,
		Planned: x.Planned, Watching: x.Watching, Proposal: ProposalOf(x.Proposal), Points: []CoursePoint{}, Band: []BandPoint{},
		Ticks: []DecidedTick{}, Arms: x.ArmsSay, Led: x.Led, LedID: x.LedID}
	if set.ArmsInTurn() == 2 {
		out.Movement, out.Settings = x.Movement, x.Turned
	}
	if x.NextOn != 0 {
		out.Next = x.NextOn.FromToday(eyes.Today)
	}
	if x.WholeKg > 0 {
		out.Now = "about " + words(x.WholeKg) + " once"
	}
	for i := range x.Points {
		p := &x.Points[i]
		v := CoursePoint{On: p.On, When: p.On.Words(), Kg: p.WholeKg, Hollow: p.Hollow, Load: eyes.Room.Words(p.LoadKg, set)}
		if p.WholeKg > 0 {
			v.Words = words(p.WholeKg)
		}
		for k, n := range p.Reps {
			if k > 0 {
				v.Reps += ", "
			}
			v.Reps += fmt.Sprint(n)
		}
		out.Points = append(out.Points, v)
	}
	for _, b := range x.Band {
		out.Band = append(out.Band, BandPoint(b))
	}
	return out
}
