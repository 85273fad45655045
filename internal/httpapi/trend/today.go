package trend

import (
	"cmp"
	"context"
	"net/http"
	"slices"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"musculus/internal/core/day"
	"musculus/internal/core/decide"
	"musculus/internal/figure"
	"musculus/internal/httpapi/op"
	"musculus/internal/store"
	"musculus/internal/view"
)

// TodayView is the day's first page: who trains, in the order to see them, and what is due.
type TodayView struct {
	Day     string        `json:"day"`
	Right   figure.Slice  `json:"right"`
	MayPlan bool          `json:"may_plan"`
	People  []TodayPerson `json:"people"`
	Next    string        `json:"next"` // when somebody trains next, on an empty day
	Due     []DueView     `json:"due"`  // the oldest first
}

// TodayPerson is somebody who trains today.
type TodayPerson struct {
	Client  uuid.UUID      `json:"client"`
	Session uuid.UUID      `json:"session"`
	Name    string         `json:"name"`
	Title   string         `json:"title"`
	Room    string         `json:"room"`
	Minutes int            `json:"minutes"` // that the session takes
	Slice   view.SliceView `json:"slice"`
	Sets    int            `json:"sets"` // planned, of all arms
	Done    int            `json:"done"`
	Special []string       `json:"special"` // what is not as always
	Blocked string         `json:"blocked"`
}

// DueView is one thing that is due, with the one action that does it.
type DueView struct {
	Client  uuid.UUID `json:"client"`
	Name    string    `json:"name"`
	Kind    string    `json:"kind" enum:"screening,decision,measuring,rating,emphasis,block,missed,sheet,answer"`
	Says    string    `json:"says"`
	Action  string    `json:"action"`
	To      string    `json:"to"`    // where it is done
	Since   string    `json:"since"` // from when it is due, empty from today
	Session string    `json:"session"`
}

type todayOutput struct{ Body TodayView }

func (s *place) registerToday(api huma.API) {
	huma.Register(api, op.Operation("today", op.Everybody, http.MethodGet, "/today", "Who trains today, and what is due"), s.today)
}

// How far ahead an empty day looks for who trains next.
const nextWithin = 14

type todayRead struct {
	clients  []store.Client
	around   map[uuid.UUID]*decide.Around
	sessions []store.Session // today's
}

func (s *place) today(ctx context.Context, _ *struct{}) (*todayOutput, error) {
	today := s.Day(ctx)
	return op.Showing(ctx, s.Server, func(tx *store.Tx, r *todayRead) (err error) {
		if r.clients, err = tx.Clients(ctx); err != nil {
			return err
		}
		if r.around, err = tx.Arounds(ctx, s.Now(), today-decide.LooksBackFor, today+nextWithin); err != nil {
			return err
		}
		r.sessions, err = tx.SessionsOn(ctx, today, today, op.Movements(ctx))
		return err
	}, func(r *todayRead) (*todayOutput, error) {
		a := op.AccountOf(ctx)
		v := TodayView{Day: today.Long(), Right: figure.MakeSlice(false), MayPlan: a.Role != store.Assistant,
			People: []TodayPerson{}, Due: []DueView{}}
		byID := map[uuid.UUID]*store.Client{}
		next := day.Day(0)
		var dues []dueOf
		for i := range r.clients {
			c := &r.clients[i]
			byID[c.ID] = c
			around := r.around[c.ID]
			if around == nil {
				continue
			}
			around.Today, around.Blocked, around.Measures = today, s.Blocked(c), c.Dossier.BodyConsent != nil
			for k := range around.Sessions {
				if on := around.Sessions[k].On; on > today && (next == 0 || on < next) {
					next = on
				}
			}
			for _, d := range decide.Dues(around) {
				if v.MayPlan || mayAssist[d.Kind] {
					dues = append(dues, dueOf{c, d})
				}
			}
		}
		for i := range r.sessions {
			c := byID[r.sessions[i].ClientID]
			if c == nil {
				continue
			}
			p, err := s.person(c, &r.sessions[i], r.around[c.ID])
			if err != nil {
				return nil, err
			}
			v.People = append(v.People, p)
		}
		slices.SortStableFunc(v.People, func(x, y TodayPerson) int {
			return cmp.Or(cmp.Compare(rankOf(&x), rankOf(&y)), cmp.Compare(x.Name, y.Name))
		})
		if len(v.People) == 0 && next != 0 {
			v.Next = next.FromToday(today)
		}
		slices.SortStableFunc(dues, func(x, y dueOf) int {
			return cmp.Or(cmp.Compare(x.Since, y.Since), cmp.Compare(screens(y.Kind), screens(x.Kind))) // what stops first of a day
		})
		for _, d := range dues {
			v.Due = append(v.Due, d.view(today))
		}
		return &todayOutput{v}, nil
	})
}

func screens(k decide.DueKind) int {
	if k == decide.DueScreening {
		return 1
	}
	return 0
}

// dueOf is what is due for a client.
type dueOf struct {
	c *store.Client
	decide.Due
}

// mayAssist are what an assistant sees to.
var mayAssist = map[decide.DueKind]bool{decide.DueScreening: true, decide.DueMeasuring: true}

// doing are the actions, and where they are done.
var doing = map[decide.DueKind][2]string{
	decide.DueScreening: {"To the dossier", "dossier"},
	decide.DueDecision:  {"Decide", "trend"},
	decide.DueMeasuring: {"Measure", "dossier/measures"},
	decide.DueRating:    {"Rate", "priorities"},
	decide.DueEmphasis:  {"Set another", "priorities"},
	decide.DueBlock:     {"To the week", "week"},
	decide.DueMissed:    {"To the week", "week"},
	decide.DueSheet:     {"To the sheet", "sheet"},
	decide.DueAnswer:    {"Answer", "trend"},
}

func (d *dueOf) view(today day.Day) DueView {
	do := doing[d.Kind]
	v := DueView{Client: d.c.ID, Name: d.c.Dossier.Name, Kind: string(d.Kind), Says: d.Says, Action: do[0],
		To: "/clients/" + d.c.ID.String() + "/" + do[1]}
	if d.Session != uuid.Nil {
		v.Session = d.Session.String()
		if d.Kind == decide.DueSheet {
			v.To += "/" + v.Session
		}
	}
	if d.Since < today {
		v.Since = "since " + d.Since.Words()
	}
	return v
}

// rankOf puts who is in the middle of it first, then who is to come, then who is through.
func rankOf(p *TodayPerson) int {
	switch {
	case p.Blocked != "":
		return 3
	case p.Sets > 0 && p.Done >= p.Sets:
		return 2
	case p.Done > 0:
		return 0
	}
	return 1
}

// person shows somebody who trains today.
func (s *place) person(c *store.Client, kept *store.Session, around *decide.Around) (TodayPerson, error) {
	p := TodayPerson{Client: c.ID, Session: kept.ID, Name: c.Dossier.Name, Title: kept.Name, Room: c.Room().Name,
		Special: []string{}, Blocked: s.Blocked(c)}
	for i := range around.Sessions {
		if around.Sessions[i].ID == kept.ID {
			p.Done = around.Sessions[i].Sets
		}
	}
	if len(kept.Faults) > 0 {
		p.Special = append(p.Special, "something of it can no longer be done")
		return p, nil
	}
	t, err := s.Trainee(c)
	if err != nil {
		return p, err
	}
	counted := t.Count(&kept.Session)
	p.Slice, p.Minutes = view.SetsSlice("Effective sets in "+kept.Name, counted.Heads), int(counted.Minutes+0.5)
	for i := range kept.Slots {
		slot := &kept.Slots[i]
		p.Sets += slot.Sets() * slot.Arms()
		switch words := kept.LastWords(i); {
		case kept.Hand(i, 0, t.Floor()) == nil:
			p.Special = append(p.Special, slot.SetUp.Short()+": the load is to be found")
		case words != "":
			p.Special = append(p.Special, slot.SetUp.Short()+", last set: "+words)
		}
	}
	p.Special = append(p.Special, t.Caps.Does()...)
	return p, nil
}
