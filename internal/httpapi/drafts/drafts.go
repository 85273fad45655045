package drafts

import (
	"context"
	"errors"
	"fmt"
	"math"
	"net/http"
	"slices"
	"strings"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"musculus/internal/core/arm"
	"musculus/internal/core/draft"
	"musculus/internal/core/plan"
	"musculus/internal/core/priority"
	"musculus/internal/core/week"
	"musculus/internal/httpapi/op"
	"musculus/internal/store"
	"musculus/internal/view"
)

// DraftsView are three weeks beside what is on the board.
type DraftsView struct {
	Stage   string        `json:"stage" enum:"first,more,final"`
	Of      string        `json:"of"`      // days, minutes, room, what was looked at, in words
	Empty   string        `json:"empty"`   // why there is none, empty if there are
	Clashes []string      `json:"clashes"` // limits that what stays exceeds by itself
	Swaps   []string      `json:"swaps"`   // what stands in for what a joint does not bear
	Asks    *DraftAsks    `json:"asks"`    // where the minutes do not hold all targets; with the first stage
	Drafts  []DraftedWeek `json:"drafts"`
	Free    []string      `json:"free_days"` // days without anything in every draft
	Weights []DraftWeight `json:"weights"`   // what counts how much
}

// DraftWeight is what a term of a draft counts.
type DraftWeight struct {
	Words string  `json:"words"`
	Value float64 `json:"value"`
}

// DraftAsks asks which target gives way.
type DraftAsks struct {
	Words string    `json:"words"`
	Ways  []GiveWay `json:"ways"`
}

// GiveWay is a target that may give way.
type GiveWay struct {
	Head  string         `json:"head"`
	To    priority.Level `json:"to" enum:"maintain,build,prioritise"`
	Words string         `json:"words"`
}

// DraftedWeek is one drafted week.
type DraftedWeek struct {
	Way      draft.Way      `json:"way" enum:"robust,stance,least_time"`
	Title    string         `json:"title"`
	Says     string         `json:"says"`
	Minutes  int            `json:"minutes"`
	Slice    view.SliceView `json:"slice"`
	Heads    []DraftedHead  `json:"heads"`
	GivesUp  []string       `json:"gives_up"`
	Days     []DraftedDay   `json:"days"`
	Sessions []LaidSession  `json:"sessions"` // the board once it is taken: those that are new or change
	Removed  []uuid.UUID    `json:"removed"`  // sessions of the board that are empty then
	Stopped  bool           `json:"stopped"`
}

// DraftedHead is what a head gets.
type DraftedHead struct {
	ID    string  `json:"id"`
	Code  string  `json:"code"`
	Name  string  `json:"name"`
	Total float64 `json:"total"`
	Low   float64 `json:"low"`
	High  float64 `json:"high"`
	From  float64 `json:"target_low"`
	To    float64 `json:"target_high"`
	Level string  `json:"level" enum:"maintain,build,prioritise"`
	Short bool    `json:"short"`
}

// DraftedDay is a day of a drafted week.
type DraftedDay struct {
	On      string        `json:"on" format:"date"`
	Name    string        `json:"name"`
	Session uuid.UUID     `json:"session"`
	Minutes int           `json:"minutes"`
	Slots   []DraftedSlot `json:"slots"`
	Gone    []string      `json:"gone"` // what is on the board that day and not here
}

// DraftedSlot is a slot of a drafted week.
type DraftedSlot struct {
	ID      uuid.UUID  `json:"id"`
	Key     string     `json:"key"`
	Of      string     `json:"of"`   // its movement, to forbid it by
	Keep    *KeptSlot  `json:"keep"` // to keep it by; null where it stays anyway
	Title   string     `json:"title"`
	Short   string     `json:"short"`
	Details string     `json:"details"`
	Glyph   view.Glyph `json:"glyph"`
	Sets    int        `json:"sets"`
	Dose    string     `json:"dose"`
	Load    string     `json:"load"`
	State   string     `json:"state" enum:"locked,same,changed,new"`
	Carries string     `json:"carries"` // why it is there
	Also    []string   `json:"also"`
	Turns   string     `json:"turns"` // "a pair", where it is done in turns with the one before
}

type draftInput struct {
	Client uuid.UUID `path:"client"`
	Of     string    `query:"of" doc:"a day of the week; absent: today"`
	Body   DraftAsked
}

type draftOutput struct{ Body DraftsView }

func (s *place) registerDrafts(api huma.API) {
	huma.Register(api, op.Operation("draft-week", op.Planners, http.MethodPost, "/clients/{client}/draft",
		"Three weeks composed beside the board; nothing is kept"), s.draft)
	huma.Register(api, op.Operation("draft-prices", op.Planners, http.MethodPost, "/clients/{client}/draft/prices",
		"What lifting a limit would buy the first of them"), s.prices)
	huma.Register(
		api,
		op.Operation("patterns", op.Everybody, http.MethodGet, "/patterns", "What a draft may start from"),
		s.patterns,
	)
}

func (s *place) draft(ctx context.Context, in *draftInput) (*draftOutput, error) {
	on, err := s.DayIn(ctx, in.Of)
	if err != nil {
		return nil, err
	}
	from := on.Monday()
	return op.Showing(ctx, s.Server, func(tx *store.Tx, a *asking) error {
		return s.read(ctx, tx, in.Client, from, &in.Body, a)
	}, func(a *asking) (*draftOutput, error) {
		if err := s.build(ctx, a); err != nil {
			return nil, err
		}
		v, err := s.show(ctx, a)
		return &draftOutput{v}, err
	})
}

// show composes and views.
func (s *place) show(ctx context.Context, a *asking) (DraftsView, error) {
	d := a.dated
	out := DraftsView{Stage: string(a.body.Stage), Of: ofWords(a), Empty: draft.Empty(d.Problem), Clashes: []string{},
		Swaps: append([]string{}, d.Swaps()...), Drafts: []DraftedWeek{}, Free: []string{}, Weights: []DraftWeight{}}
	for _, w := range d.Weights.Words() {
		out.Weights = append(out.Weights, DraftWeight{w.Words, w.Value})
	}
	for _, c := range draft.Clashes(d.Problem) {
		out.Clashes = append(out.Clashes, c.Words)
	}
	if out.Empty != "" {
		return out, nil
	}
	if a.body.Stage == draft.First {
		if asks := d.Outlook(stopped(ctx)); asks.Words != "" && len(asks.Ways) > 0 {
			out.Asks = &DraftAsks{asks.Words, []GiveWay{}}
			for _, w := range asks.Ways {
				out.Asks.Ways = append(out.Asks.Ways, GiveWay{arm.Heads[w.Head].ID, w.To, w.Words})
			}
		}
	}
	three := s.compose(ctx, a)
	if err := ctx.Err(); err != nil {
		return out, unlessGone(err)
	}
	for i := range three {
		out.Drafts = append(out.Drafts, a.view(&three[i], &three[0]))
	}
	for at := range d.On {
		if !slices.ContainsFunc(three[:], func(c draft.Composed) bool { return len(c.Week.Days[at]) > 0 }) &&
			len(d.Stays[at]) == 0 {
			out.Free = append(out.Free, d.Days[at].Name)
		}
	}
	return out, nil
}

func ofWords(a *asking) string {
	d := a.dated
	words := fmt.Sprintf("%s · %s · %d set-ups looked at", d.TimeWords(), a.audited.T.Room.Name, len(d.Candidates))
	if d.Cut > 0 {
		words += fmt.Sprintf(", the %d that could add least left out", d.Cut)
	}
	return words
}

// titles of the three, with what each is for.
func (a *asking) title(way draft.Way, minutes, first int) (title, says string) {
	switch way {
	case draft.Robust:
		return "Holds under every stance", "whoever is right, counted by the one that counts least"
	case draft.Stance:
		return "Best for " + a.audited.T.Stance.Name, "as this client’s stance counts"
	}
	if minutes < first {
		return "Least time", fmt.Sprintf("%d minutes instead of %d", minutes, first)
	}
	return "Least time", "no less will do"
}

func (a *asking) view(c, first *draft.Composed) DraftedWeek {
	t, d := a.audited.T, a.dated
	laid := d.Lay(c.Problem, c.Way, &c.Week, a.finish())
	w := week.Week{Sessions: laid.Sessions}
	l := w.Count(t)
	out := DraftedWeek{Way: c.Way, GivesUp: []string{}, Heads: []DraftedHead{}, Days: []DraftedDay{}, Sessions: []LaidSession{},
		Removed: append([]uuid.UUID{}, laid.Removed...), Stopped: c.Week.Stopped}
	firstMinutes, minutes := 0.0, make([]float64, len(laid.Sessions))
	for _, m := range d.Board(first.Problem, first.Way, &first.Week) {
		firstMinutes += m
	}
	for i := range laid.Sessions {
		minutes[i] = l.Sessions[i].Minutes
	}
	byDay := week.Apportion(minutes) // so that the days add up to the week
	var mid, low, high, fill [arm.HeadCount]float64
	for h := range l.Heads {
		line, head := &l.Heads[h], &arm.Heads[h]
		target := c.Problem.Targets[h]
		from, to := float64(target.Low)/draft.Per, float64(target.High)/draft.Per
		mid[h], low[h], high[h] = line.Total.Mid, line.Total.Low, line.Total.High
		if fill[h] = 1; from > 0 {
			fill[h] = min(line.Total.Mid/from, 1)
		}
		out.Heads = append(
			out.Heads,
			DraftedHead{head.ID, head.Code, head.Name, view.Round4(line.Total.Mid), view.Round4(line.Total.Low),
				view.Round4(
					line.Total.High,
				), view.Round4(from), view.Round4(to), string(target.Level), line.Total.Mid < from-0.05},
		)
	}
	out.Slice = view.SliceOf("Effective sets of this week", mid, low, high, fill)
	for _, g := range draft.GivesUp(c.Problem, &c.Week) {
		out.GivesUp = append(out.GivesUp, g.Words)
	}
	out.GivesUp = append(out.GivesUp, d.Monotony(c)...)
	whys := draft.Whys(c.Problem, c.Way, &c.Week)
	for i := range laid.Sessions {
		day := a.day(c, &laid.Sessions[i], &l.Sessions[i], whys)
		day.Minutes = byDay[i]
		out.Minutes += day.Minutes
		out.Days = append(out.Days, day)
		if laid.Changed[i] {
			out.Sessions = append(out.Sessions, LaidSession{laid.Sessions[i], a.version(laid.Sessions[i].ID)})
		}
	}
	slices.SortStableFunc(out.Days, func(x, y DraftedDay) int { return strings.Compare(x.On, y.On) })
	out.Title, out.Says = a.title(c.Way, out.Minutes, int(math.Round(firstMinutes)))
	return out
}

func (a *asking) version(id uuid.UUID) int {
	for i := range a.kept {
		if a.kept[i].ID == id {
			return a.kept[i].Version
		}
	}
	return 0
}

// before is a session as it is on the board, nil where it is not there.
func (a *asking) before(id uuid.UUID) *plan.Planned {
	for i := range a.audited.Week.Sessions {
		if a.audited.Week.Sessions[i].ID == id {
			return &a.audited.Week.Sessions[i]
		}
	}
	return nil
}

func (a *asking) day(c *draft.Composed, s *plan.Planned, counted *week.Totals, whys [][]draft.Why) DraftedDay {
	t, d := a.audited.T, a.dated
	out := DraftedDay{On: s.On.String(), Name: s.On.Weekday(), Session: s.ID, Slots: []DraftedSlot{},
		Gone: []string{}}
	was := a.before(s.ID)
	at := slices.Index(d.On, s.On)
	for i := range s.Slots {
		slot := &s.Slots[i]
		v := DraftedSlot{
			ID:      slot.ID,
			Key:     slot.SetUp.Key(),
			Of:      slot.SetUp.Movement.ID,
			Title:   slot.SetUp.Title(),
			Short:   slot.SetUp.Short(),
			Details: slot.SetUp.Details(),
			Glyph: view.GlyphOf(
				slot.SetUp,
				counted.Slots[i].Profile,
				counted.Slots[i].Reading,
			),
			Sets:  slot.Sets(),
			Dose:  s.DoneWords(i),
			Load:  s.LoadWords(i, t.Floor()),
			State: "new",
			Also:  []string{},
		}
		if was != nil {
			for k := range was.Slots {
				if was.Slots[k].ID != slot.ID {
					continue
				}
				v.State = "changed"
				if was.Slots[k].Same(slot) {
					v.State = "same"
				}
				if was.Slots[k].Locked || s.Locked || a.logged[s.ID] {
					v.State = "locked"
				}
			}
		}
		if i > 0 && s.Joined(i-1, i) {
			v.Turns = "in turns with the one before"
		}
		if at >= 0 {
			for k, o := range c.Week.Days[at] {
				if p := &c.Problem.Candidates[o.Candidate]; p.ID == v.Key && p.Movement == slot.SetUp.Movement.ID {
					v.Carries, v.Also = whys[at][k].Carries, append(v.Also, whys[at][k].Also...)
				}
			}
		}
		if v.State != "locked" && slot.Sets() >= 2 && slot.Sets() <= 5 {
			v.Keep = &KeptSlot{s.On, slot.SetUp.Movement.ID, slot.SetUp.Turned(), slot.Sets()}
		}
		out.Slots = append(out.Slots, v)
	}
	if was != nil {
		for k := range was.Slots {
			if !slices.ContainsFunc(s.Slots, func(o plan.Slot) bool { return o.ID == was.Slots[k].ID }) {
				out.Gone = append(out.Gone, was.Slots[k].SetUp.Short())
			}
		}
	}
	return out
}

// unlessGone is an error for whoever still waits for the answer: who has gone away, as one
// does who asks for something else meanwhile, is no failure.
func unlessGone(err error) error {
	if errors.Is(err, context.Canceled) {
		return nil
	}
	return err
}
