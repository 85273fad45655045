package trend

import (
	"context"
	"fmt"
	"net/http"
	"slices"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"musculus/internal/core/decide"
	"musculus/internal/core/week"
	"musculus/internal/httpapi/op"
	"musculus/internal/store"
)

// AnswerBody answers a proposal.
type AnswerBody struct {
	ID     uuid.UUID    `json:"id"     doc:"made by the asker; sending it again keeps it once"`
	Series string       `json:"series" doc:"empty: the client as a whole"                      maxLength:"400"`
	Kind   decide.Kind  `json:"kind"   doc:"of the proposal that is answered"                  maxLength:"20"`
	Answer store.Answer `json:"answer"                                                                         enum:"taken,not_now"`
}

// AnsweredView is what an answer wrote.
type AnsweredView struct {
	Words string    `json:"words"`
	Undo  uuid.UUID `json:"undo"` // the decision that can be taken back
}

type answerInput struct {
	Client uuid.UUID `path:"client"`
	Body   AnswerBody
}

type undoInput struct {
	Client   uuid.UUID `path:"client"`
	Decision uuid.UUID `path:"decision"`
	Body     struct {
		ID uuid.UUID `json:"id" doc:"made by the asker; sending it again keeps it once"`
	}
}

type answeredOutput struct{ Body AnsweredView }

func (s *place) registerDecisions(api huma.API) {
	const path = "/clients/{client}/decisions"
	huma.Register(
		api,
		op.Operation("answer-proposal", op.Planners, http.MethodPost, path, "Take what is proposed, or not now"),
		s.answer,
	)
	huma.Register(
		api,
		op.Operation("undo-decision", op.Planners, http.MethodPost, path+"/{decision}/undo", "Take a decision back"),
		s.undo,
	)
}

// answer takes a proposal, or puts it off. It is worked out again from what is there: what was
// shown before something changed is not written.
func (s *place) answer(ctx context.Context, in *answerInput) (*answeredOutput, error) {
	out := &answeredOutput{AnsweredView{Undo: in.Body.ID}}
	err := s.InStudio(ctx, func(tx *store.Tx, a store.Account) error {
		r, err := s.readFacts(ctx, tx, in.Client)
		if err != nil {
			return err
		}
		known, err := tx.Decisions(ctx, in.Client)
		if err != nil {
			return err
		}
		if i := slices.IndexFunc(known, func(d store.Decision) bool { return d.ID == in.Body.ID }); i >= 0 {
			d := &known[i]
			if d.Series != in.Body.Series || d.Kind != in.Body.Kind || d.Answer != in.Body.Answer {
				return store.ErrTaken
			}
			out.Body.Words = wroteWords(d, &r)
			return nil
		}
		p := proposed(&r.facts, in.Body.Series)
		if p == nil || p.Kind != in.Body.Kind {
			return op.Problem(
				http.StatusConflict,
				"this is no longer what is proposed: something was logged, planned or decided since",
			)
		}
		d := store.Decision{
			ID:      in.Body.ID,
			Answer:  in.Body.Answer,
			On:      r.facts.Today,
			By:      a.ID,
			Decided: store.Decided{Proposal: *p},
		}
		if in.Body.Answer == store.Took && !p.Steps.Nothing() {
			if err := s.write(ctx, tx, &r, &d); err != nil {
				return err
			}
		}
		out.Body.Words = wroteWords(&d, &r)
		return tx.AddDecision(ctx, in.Client, &d)
	})
	return out, err
}

// proposed is what is proposed now, of one series or of the client as a whole; nil for nothing.
func proposed(f *decide.Facts, series string) *decide.Proposal {
	c, all := decide.Gather(f)
	whole := decide.Whole(c, all)
	if series == "" {
		return whole
	}
	for _, x := range all {
		if x.Key == series {
			return decide.For(c, whole, x)
		}
	}
	return nil
}

// write writes a proposal into the sessions to come that are open.
func (s *place) write(ctx context.Context, tx *store.Tx, r *factsRead, d *store.Decision) error {
	f := &r.facts
	tried := 0
	for _, i := range decide.Into(&d.Proposal, f.Sessions, f.Today, r.shut) {
		kept := r.sessions[i]
		was := kept.Version
		if !decide.Write(f.T, &d.Proposal, &kept.Session) {
			continue
		}
		tried++
		draft, err := s.Checked(ctx, &r.client, &kept.Planned)
		if err != nil {
			continue // what cannot be planned so stays as it is
		}
		draft.ClientID, draft.Version = r.client.ID, was
		saved, err := tx.SaveSession(ctx, draft, d.By, uuid.NewSHA1(d.ID, kept.ID[:]), f.Movements)
		if err != nil {
			return s.StaleProblem(ctx, tx, &r.client, err)
		}
		if len(d.Wrote) == 0 {
			d.Heads = headsChanged(f, &saved)
		}
		d.Wrote = append(d.Wrote, store.Wrote{Session: saved.ID, Before: was, After: saved.Version})
	}
	if tried > len(d.Wrote) && len(d.Wrote) == 0 {
		return op.Problem(
			http.StatusUnprocessableEntity,
			"the sessions to come cannot be planned so as they are: look at the board",
		)
	}
	return nil
}

// headsChanged is what a session written into changes in its week, by head.
func headsChanged(f *decide.Facts, saved *store.Session) []float64 {
	before := week.Week{Sessions: weekAround(f.Sessions, saved.On)}
	after := week.Week{Sessions: slices.Clone(before.Sessions)}
	for k := range after.Sessions {
		if after.Sessions[k].ID == saved.ID {
			after.Sessions[k] = saved.Planned
		}
	}
	heads := decide.Changed(f.T, &before, &after)
	return heads[:]
}

// wroteWords tell what an answer did.
func wroteWords(d *store.Decision, r *factsRead) string {
	switch {
	case d.Answer == store.NotNow:
		return "Not now: it is asked again after two sessions."
	case d.Steps.Nothing():
		return "Kept as seen."
	case len(d.Wrote) == 0:
		return "Kept. No session to come has it yet that is neither issued nor begun: plan it there, or issue anew."
	}
	words := ""
	if i := r.at(d.Wrote[0].Session); i >= 0 {
		words = ", from " + r.sessions[i].On.FromToday(r.facts.Today)
	}
	if len(d.Wrote) == 1 {
		return "Written into 1 session" + words + "."
	}
	return fmt.Sprintf("Written into %d sessions%s.", len(d.Wrote), words)
}

// undo takes a decision back: sessions that were not saved since are as they were before.
func (s *place) undo(ctx context.Context, in *undoInput) (*answeredOutput, error) {
	out := &answeredOutput{}
	err := s.InStudio(ctx, func(tx *store.Tx, a store.Account) error {
		c, err := tx.Client(ctx, in.Client)
		if err != nil {
			return err
		}
		all, err := tx.Decisions(ctx, in.Client)
		if err != nil {
			return err
		}
		i := slices.IndexFunc(all, func(d store.Decision) bool { return d.ID == in.Decision && d.Answer != store.Undone })
		if i < 0 {
			return store.ErrNotFound
		}
		d := &all[i]
		again := slices.IndexFunc(all, func(o store.Decision) bool { return o.Of != nil && *o.Of == d.ID })
		if again >= 0 && all[again].ID != in.Body.ID {
			return op.Problem(http.StatusConflict, "it was taken back already")
		}
		out.Body.Words = "Taken back."
		if again >= 0 { // sent again
			return nil
		}
		left := 0
		for _, w := range d.Wrote {
			back, err := s.putBack(ctx, tx, &c, a.ID, in.Body.ID, w)
			if err != nil {
				return err
			}
			if !back {
				left++
			}
		}
		if left > 0 {
			out.Body.Words = fmt.Sprintf(
				"Taken back, but for %s that somebody saved, issued or began since.",
				plural(left, "session"),
			)
		}
		undone := store.Decision{ID: in.Body.ID, Answer: store.Undone, Of: &d.ID, On: s.DayOf(&c), By: a.ID,
			Decided: store.Decided{
				Proposal: decide.Proposal{Kind: d.Kind, Series: d.Series, Name: d.Name, Says: d.Says, Why: []string{}},
			}}
		return tx.AddDecision(ctx, in.Client, &undone)
	})
	return out, err
}

// putBack brings a session to what it was before a decision wrote into it; false where it was
// touched since.
func (s *place) putBack(ctx context.Context, tx *store.Tx, c *store.Client, by, write uuid.UUID, w store.Wrote) (bool, error) {
	now, err := tx.Session(ctx, c.ID, w.Session, op.Movements(ctx))
	if err != nil || now.Version != w.After || now.Removed {
		return false, err
	}
	entries, err := tx.SessionEntries(ctx, w.Session, op.Movements(ctx))
	if err != nil || len(entries) > 0 {
		return false, err
	}
	was, err := tx.SessionAt(ctx, c.ID, w.Session, w.Before, op.Movements(ctx))
	if err != nil {
		return false, err
	}
	now.Session = was.Session
	_, err = tx.SaveSession(ctx, now, by, uuid.NewSHA1(write, w.Session[:]), op.Movements(ctx))
	return err == nil, err
}

func plural(n int, what string) string {
	if n == 1 {
		return "1 " + what
	}
	return fmt.Sprintf("%d %ss", n, what)
}
