package drafts

import (
	"context"
	"crypto/sha256"
	"encoding/hex"
	"encoding/json"
	"fmt"
	"slices"

	"github.com/google/uuid"

	"musculus/internal/core/arm"
	"musculus/internal/core/day"
	"musculus/internal/core/draft"
	"musculus/internal/core/entry"
	"musculus/internal/core/movement"
	"musculus/internal/core/plan"
	"musculus/internal/core/priority"
	"musculus/internal/core/series"
	"musculus/internal/core/week"
	"musculus/internal/formats"
	"musculus/internal/httpapi/op"
	"musculus/internal/store"
)

// LaidSession is a session as it stands on the board, or as it would.
type LaidSession struct {
	plan.Planned
	Version int `json:"version" minimum:"0" maximum:"1000000" doc:"as it was read; 0: it is new"`
}

// KeptSlot is a slot of a draft that is to stay.
type KeptSlot struct {
	On       day.Day           `json:"on" format:"date"`
	Movement string            `json:"movement" maxLength:"60"`
	Settings movement.Settings `json:"settings,omitempty"`
	Sets     int               `json:"sets" minimum:"2" maximum:"5"`
}

// DraftAsked is what a week is drafted from.
type DraftAsked struct {
	Sessions []LaidSession             `json:"sessions" maxItems:"42" doc:"the board as it stands, saved or not"`
	Stage    draft.Stage               `json:"stage" enum:"first,more,final"`
	Seed     int                       `json:"seed,omitempty" doc:"another taste" minimum:"0" maximum:"100000"`
	Pattern  string                    `json:"pattern,omitempty" doc:"of GET /patterns" maxLength:"40"`
	Slots    int                       `json:"slots,omitempty" doc:"the most of a day; 0: as it comes" minimum:"0" maximum:"8"`
	Keep     []KeptSlot                `json:"keep,omitempty" maxItems:"60"`
	Forbid   []string                  `json:"forbid,omitempty" maxItems:"200" doc:"movements that are not wanted"`
	Levels   map[string]priority.Level `json:"levels,omitempty" doc:"targets that give way, by head"`
}

// asking is a week that is to be drafted, read.
type asking struct {
	c       *store.Client
	r       op.WeekRead
	kept    []store.Session
	past    []entry.Entry
	tries   []store.TryOut
	logged  map[uuid.UUID]bool
	own     *store.Template // what the studio starts from
	body    *DraftAsked
	from    day.Day
	dated   *draft.Dated
	pool    *draft.Pool
	audited op.AuditedWeek
}

// read reads what a draft needs; nil sessions: as they are kept.
func (s *place) read(ctx context.Context, tx *store.Tx, client uuid.UUID, from day.Day, body *DraftAsked, out *asking) error {
	c, err := tx.Client(ctx, client)
	if err != nil {
		return err
	}
	out.c, out.body, out.from = &c, body, from
	if body.Sessions == nil {
		if out.kept, err = tx.SessionsBetween(ctx, c.ID, from, from+6, op.Movements(ctx)); err != nil {
			return err
		}
	} else {
		edited := make([]store.Session, len(body.Sessions))
		for i := range body.Sessions {
			edited[i] = store.Session{Planned: body.Sessions[i].Planned, Version: body.Sessions[i].Version}
		}
		if out.kept, err = s.ReadBoard(ctx, &c, edited); err != nil {
			return err
		}
	}
	if out.r, err = s.ReadWeekOf(ctx, tx, &c, week.WeekOf(from), out.kept); err != nil {
		return err
	}
	if out.past, err = tx.EntriesSince(ctx, c.ID, s.Now().Add(-series.LooksBack), op.Movements(ctx)); err != nil {
		return err
	}
	if out.tries, err = tx.TryOuts(ctx, c.ID); err != nil {
		return err
	}
	logged, err := tx.LoggedSessions(ctx, c.ID)
	if err != nil {
		return err
	}
	out.logged = map[uuid.UUID]bool{}
	for id := range logged {
		out.logged[id] = logged[id].Sets > 0
	}
	if id, err := uuid.Parse(body.Pattern); err == nil {
		x, err := tx.Template(ctx, id)
		if err != nil {
			return err
		}
		out.own = &x
	}
	return nil
}

// build makes the problem of what was read.
func (s *place) build(ctx context.Context, a *asking) error {
	var err error
	if a.audited, err = s.AuditRead(ctx, &a.r, 0); err != nil {
		return err
	}
	cl := &draft.Client{Trainee: a.audited.T, Catalogue: op.Movements(ctx), Comfort: comfortOf(a.tries, op.Movements(ctx))}
	ask := &draft.Ask{Monday: a.from, Board: &a.audited.Week, Forbid: a.body.Forbid, Slots: a.body.Slots}
	for id, done := range a.logged {
		if done {
			ask.Done = append(ask.Done, id.String())
		}
	}
	for i, k := range a.body.Keep {
		set, err := op.SetUp(ctx, fmt.Sprintf("body.keep[%d].", i), k.Movement, k.Settings)
		if err != nil {
			return err
		}
		ask.Keep = append(ask.Keep, draft.Kept{On: k.On, SetUp: set, Sets: k.Sets})
	}
	for id, level := range a.body.Levels {
		h, ok := arm.HeadByID(id)
		if !ok || !slices.Contains(priority.Levels, level) {
			return op.FieldProblem("body.levels", "there is no head %q at %q", id, string(level))
		}
		ask.Levels[h] = level
	}
	if ask.Pattern, err = patternOf(ctx, a); err != nil {
		return err
	}
	key := s.poolKey(a, cl)
	var known bool
	if a.pool, known = s.pools.Get(key); !known {
		a.pool = draft.Stock(cl)
		s.pools.Put(key, a.pool)
	}
	if a.own != nil { // what the kept week has may be used, though the pool has something like it
		a.pool = a.pool.With(cl, a.ownSetUps(ctx))
	}
	a.dated = draft.Build(cl, a.pool, ask)
	return nil
}

func patternOf(ctx context.Context, a *asking) (*draft.Pattern, error) {
	if a.own == nil {
		p := draft.PatternOf(a.body.Pattern)
		if p == nil && a.body.Pattern != "" {
			return nil, op.FieldProblem("body.pattern", "there is no pattern %q", a.body.Pattern)
		}
		return p, nil
	}
	var w week.Week
	for _, set := range a.ownSetUps(ctx) {
		w.Sessions = append(w.Sessions, plan.Planned{Session: plan.Session{Slots: []plan.Slot{{SetUp: set}}}})
	}
	return draft.Own(a.own.ID.String(), a.own.Name, &w), nil
}

// ownSetUps are the set-ups of the kept week that is started from, a slot each.
func (a *asking) ownSetUps(ctx context.Context) (out []movement.SetUp) {
	for _, session := range formats.ReadPlanJSON(a.own.Plan).Plan.Sessions {
		for _, slot := range session.Slots {
			if set, fault := op.Movements(ctx).SetUp("", slot.Movement, slot.Settings); fault == nil {
				out = append(out, set)
			}
		}
	}
	return out
}

// comfortOf is how comfortable set-ups were when they were tried: as it is, or else the
// movement as it was tried last.
func comfortOf(tries []store.TryOut, c *movement.Catalogue) func(movement.SetUp) (int, bool) {
	bySetUp, byMovement := map[string]*store.TryOut{}, map[string]*store.TryOut{}
	for i := len(tries) - 1; i >= 0; i-- { // the latest last
		m := c.Get(tries[i].Movement)
		if m == nil {
			continue
		}
		if s, err := m.SetUp(tries[i].Settings); err == nil {
			bySetUp[s.Key()] = &tries[i]
		}
		byMovement[m.ID] = &tries[i]
	}
	return func(s movement.SetUp) (int, bool) {
		t := bySetUp[s.Key()]
		if t == nil {
			t = byMovement[s.Movement.ID]
		}
		if t == nil {
			return -1, false
		}
		return t.Comfort, t.Outcome == "dropped"
	}
}

// poolKey names all that what may be used for a client depends on.
func (s *place) poolKey(a *asking, cl *draft.Client) string {
	t := cl.Trainee
	room, _ := json.Marshal(t.Room)
	var levels []priority.Level
	for h := range t.Aims.Levels {
		levels = append(levels, t.Aims.Levels[h])
	}
	known := make([]string, 0, len(t.Own))
	for key, own := range t.Own {
		known = append(known, fmt.Sprintf("%s %.2f %d", key, own.E1RM, own.Logged))
	}
	slices.Sort(known)
	sum := sha256.New()
	for _, part := range []any{fmt.Sprintf("%p %p", t.Yardstick, cl.Catalogue), op.StanceKey(t.Stance), string(room), t.Caps, t.Fence, levels,
		t.Aims.FirstYear, a.tries, known} {
		fmt.Fprintf(sum, "%+v\n", part)
	}
	for _, axis := range preferred(t) {
		fmt.Fprintln(sum, axis)
	}
	return hex.EncodeToString(sum.Sum(nil))
}

func preferred(t *week.Trainee) (out []string) {
	for id, held := range t.Prefer {
		if held.Choice != nil {
			out = append(out, string(id)+held.Choice.ID+held.Whose)
		}
	}
	slices.Sort(out)
	return out
}

// compose composes the three weeks, or remembers them.
func (s *place) compose(ctx context.Context, a *asking) [3]draft.Composed {
	b, _ := json.Marshal(a.dated.Problem)
	sum := sha256.Sum256(fmt.Appendf(b, "%s %d", a.body.Stage, a.body.Seed))
	key := hex.EncodeToString(sum[:])
	if known, ok := s.composed.Get(key); ok {
		return known
	}
	out := a.dated.Compose(a.body.Stage, uint64(a.body.Seed), stopped(ctx), nil)
	if ctx.Err() == nil {
		s.composed.Put(key, out)
	}
	return out
}

// stopped says whether whoever asked has gone away.
func stopped(ctx context.Context) func() bool { return func() bool { return ctx.Err() != nil } }

// finish is what lays a week down with loads and cues.
func (a *asking) finish() *draft.Finish {
	return &draft.Finish{Known: series.Gather(a.past), NewID: func() uuid.UUID { return uuid.Must(uuid.NewV7()) },
		Seen: func(set movement.SetUp) []string { return entry.SeenLast(a.past, set) }}
}

// ProblemOf is the problem of a client's week as it is kept, for whoever composes outside; of
// is a day of the week, "" for next week.
func ProblemOf(ctx context.Context, s *op.Server, studio, client uuid.UUID, of string) (*draft.Problem, error) {
	own, err := s.OwnOfStudio(ctx, studio)
	if err != nil {
		return nil, err
	}
	ctx = op.InStudioOf(ctx, store.Account{Studio: studio}, own)
	on, err := s.DayIn(ctx, of)
	if err != nil {
		return nil, err
	}
	from := on.Monday()
	if of == "" {
		from += 7
	}
	p := newPlace(s)
	a := asking{}
	if err := s.InStudio(ctx, func(tx *store.Tx, _ store.Account) error {
		return p.read(ctx, tx, client, from, &DraftAsked{}, &a)
	}); err != nil {
		return nil, err
	}
	if err := p.build(ctx, &a); err != nil {
		return nil, err
	}
	a.dated.Name = a.c.Dossier.Name
	return a.dated.Problem, nil
}
