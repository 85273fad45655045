package checkins

import (
	"context"
	"net/http"
	"slices"
	"strings"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"musculus/internal/core/checkin"
	"musculus/internal/core/day"
	"musculus/internal/core/entry"
	"musculus/internal/core/floor"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/plan"
	"musculus/internal/httpapi/bylink"
	"musculus/internal/httpapi/op"
	"musculus/internal/store"
)

// CheckInView is what a client reads of her last session.
type CheckInView struct {
	Session uuid.UUID `json:"session"`
	Title   string    `json:"title"` // empty where she did not train of late
	When    string    `json:"when"`
	checkin.Summary
	Answered []AnsweredLine `json:"answered"` // what she said about it, and what was said to it
}

// AnsweredLine is her own words back.
type AnsweredLine struct {
	Words string `json:"words"`
	Reply string `json:"reply"`
	By    string `json:"by"`
}

type linkInput struct {
	Token string `path:"token" maxLength:"100"`
}

type tellInput struct {
	Token string `path:"token" maxLength:"100"`
	Body  struct {
		ID     uuid.UUID `json:"id" doc:"made by the asker; sending it again keeps it once"`
		Key    string    `json:"key" maxLength:"80"`
		Answer string    `json:"answer" maxLength:"80"`
		Asks   string    `json:"asks" maxLength:"300"`
	}
}

type checkInOutput struct{ Body CheckInView }

func (s *place) registerByLink(api huma.API) {
	const path = "/links/{token}/check-in"
	huma.Register(api, op.Operation("check-in", op.Anybody, http.MethodGet, path, "What she is told after a session"), s.show)
	huma.Register(api, op.Operation("tell-check-in", op.Anybody, http.MethodPost, path, "Answer, or ask"), s.tell)
}

// How far back a session is told of, and from when on being away counts, days.
const (
	tellsOf   = 8
	looksBack = 60
	awayFrom  = 14
	nextIn    = 14
	mostADay  = 20 // answers by whoever has the link
)

// lastRead is a client's last session with what was told of it.
type lastRead struct {
	c     store.Client
	kept  *store.Session // nil: none of late
	facts checkin.Facts
	told  []store.CheckIn
	today day.Day
}

func (s *place) read(ctx context.Context, tx *store.Tx, client uuid.UUID) (r lastRead, err error) {
	if r.c, err = tx.Client(ctx, client); err != nil {
		return r, err
	}
	r.today = s.DayOf(&r.c)
	sessions, err := tx.SessionsBetween(ctx, client, r.today-looksBack, r.today+nextIn, op.Movements(ctx))
	if err != nil {
		return r, err
	}
	past, err := tx.EntriesSince(ctx, client, s.Now().AddDate(0, 0, -looksBack), op.Movements(ctx))
	if err != nil {
		return r, err
	}
	f := &r.facts
	before := day.Day(0) // the session before the last one
	for i := range sessions {
		x := &sessions[i]
		did := slices.ContainsFunc(past, func(e entry.Entry) bool { return e.SessionID == x.ID })
		switch {
		case len(x.Faults) > 0:
		case did:
			if r.kept != nil {
				before = r.kept.On
			}
			r.kept, f.Next = x, nil
		case x.On >= r.today && f.Next == nil:
			f.Next = &x.Planned
		}
	}
	if r.kept == nil || int(r.today-r.kept.On) > tellsOf {
		r.kept = nil
		return r, nil
	}
	f.Session, f.First = &r.kept.Planned, map[string]bool{}
	f.After = before != 0 && int(r.kept.On-before) >= awayFrom
	earlier := map[string]bool{}
	for _, e := range past {
		if e.SessionID == r.kept.ID {
			f.Entries = append(f.Entries, e)
		} else if e.SetUp.Movement != nil {
			earlier[e.SetUp.Key()] = true
		}
	}
	slices.SortStableFunc(f.Entries, func(a, b entry.Entry) int { return a.DoneAt.Compare(b.DoneAt) })
	for _, e := range f.Entries {
		if e.SetUp.Movement != nil && !earlier[e.SetUp.Key()] && before != 0 {
			f.First[e.SetUp.Key()] = true
		}
	}
	consent := r.c.Dossier.HealthConsent != nil
	events, err := tx.FloorEvents(ctx, client, r.kept.ID)
	if err != nil {
		return r, err
	}
	f.Events = floor.Seen(events, consent)
	for _, j := range r.c.Joints {
		if consent && j.In == r.kept.ID.String() {
			f.Joints = append(f.Joints, j)
		}
	}
	decided, err := tx.Decisions(ctx, client)
	if err != nil {
		return r, err
	}
	for _, t := range store.TakenOf(decided, op.Movements(ctx)) {
		if t.On >= r.kept.On {
			f.Before = append(f.Before, t)
		}
	}
	f.When = func(p *plan.Planned) string { return p.On.FromToday(r.today) }
	if !r.c.Dossier.HideWeights {
		room, rigging := r.c.Room(), r.c.Room().Rigging(r.c.Dossier.Body().BodyMass)
		f.Load = func(set movement.SetUp, hand float64) string {
			return room.Words(person.CarryOf(set).Whole(hand, rigging), set)
		}
	}
	r.told, err = tx.CheckIns(ctx, client)
	return r, err
}

func (r *lastRead) view() CheckInView {
	v := CheckInView{Summary: checkin.Summary{Done: []string{}, Changed: []string{}}, Answered: []AnsweredLine{}}
	if r.kept == nil {
		return v
	}
	v.Session, v.Title, v.When, v.Summary = r.kept.ID, r.kept.Name, r.kept.On.FromToday(r.today), *checkin.Of(&r.facts)
	for _, t := range r.told {
		if t.Session != r.kept.ID {
			continue
		}
		v.Answered = append(v.Answered, AnsweredLine{t.Words(true), t.Reply, t.By})
		if q := v.Question; q != nil && t.Answer != "" && t.Key == q.Key && sameDay(&t, q, r.today) {
			v.Question = nil // it is answered; how a joint is is asked again another day
		}
	}
	return v
}

// toldToday is how much else was told today: what is sent again is no other.
func (r *lastRead) toldToday(but uuid.UUID) (n int) {
	for i := range r.told {
		if r.told[i].ID != but && day.At(r.told[i].At) == r.today {
			n++
		}
	}
	return n
}

// sameDay says whether an answer still answers: a joint is asked after day by day.
func sameDay(t *store.CheckIn, q *checkin.Question, today day.Day) bool {
	return q.Kind != checkin.Scale || day.At(t.At) == today
}

func (s *place) show(ctx context.Context, in *linkInput) (*checkInOutput, error) {
	ctx, opened, _, err := bylink.Open(ctx, s.Server, in.Token)
	if err != nil {
		return nil, err
	}
	return op.Showing(ctx, s.Server, func(tx *store.Tx, r *lastRead) (err error) {
		*r, err = s.read(ctx, tx, opened.Client)
		return err
	}, func(r *lastRead) (*checkInOutput, error) { return &checkInOutput{r.view()}, nil })
}

// tell keeps an answer. A joint that is worse than what is recorded is recorded, too: what a
// client tells only tightens.
func (s *place) tell(ctx context.Context, in *tellInput) (*checkInOutput, error) {
	ctx, opened, _, err := bylink.Open(ctx, s.Server, in.Token)
	if err != nil {
		return nil, err
	}
	return op.Showing(ctx, s.Server, func(tx *store.Tx, r *lastRead) (err error) {
		if *r, err = s.read(ctx, tx, opened.Client); err != nil {
			return err
		}
		if r.kept == nil {
			return op.Problem(http.StatusConflict, "there is no session of late to say something about")
		}
		b := &in.Body
		told := checkin.Told{ID: b.ID, Session: r.kept.ID, Key: b.Key, Answer: b.Answer, Asks: strings.TrimSpace(b.Asks)}
		asked := checkin.Of(&r.facts).Question
		if asked != nil && asked.Key == b.Key {
			told.Says = asked.Says
		}
		if err := op.Faults("body.", told.Check(asked)); err != nil {
			return err
		}
		if r.toldToday(told.ID) >= mostADay {
			return op.Problem(http.StatusTooManyRequests, "your coach has enough of you for today; say it to her")
		}
		if err := tx.AddCheckIn(ctx, opened.Client, &told, opened.Link, s.Now()); err != nil {
			return err
		}
		if err := s.tighten(ctx, tx, r, &told); err != nil {
			return err
		}
		r.told, err = tx.CheckIns(ctx, opened.Client)
		return err
	}, func(r *lastRead) (*checkInOutput, error) { return &checkInOutput{r.view()}, nil })
}

func (s *place) tighten(ctx context.Context, tx *store.Tx, r *lastRead, told *checkin.Told) error {
	j, side, ok := checkin.JointOf(told.Key)
	if !ok || told.Answer == "" || r.c.Dossier.HealthConsent == nil {
		return nil
	}
	score := told.Score()
	if score <= person.ScoresOf(r.c.Joints)[side][j] {
		return nil
	}
	report := person.JointReport{On: r.today, Joint: j, Side: side, Score: score}
	return tx.AddJointReport(ctx, told.ID, r.c.ID, report, uuid.Nil, s.Now())
}
