package stances

import (
	"context"
	"fmt"
	"math"
	"strings"

	"musculus/internal/core/arm"
	"musculus/internal/core/week"
	"musculus/internal/httpapi/op"
	"musculus/internal/store"
	"musculus/internal/view"
)

// TryView is what another stance would change: a head's effective sets of this week now
// and then.
type TryView struct {
	Heads []TriedHead `json:"heads"` // that change by what is shown
	Words string      `json:"words"`
}

// TriedHead is a head's effective sets under both stances.
type TriedHead struct {
	Code string  `json:"code"`
	Name string  `json:"name"`
	Now  float64 `json:"now"`
	Then float64 `json:"then"`
}

type tryOutput struct{ Body TryView }

// leastShown is the smallest change of effective sets a tenth tells.
const leastShown = 0.05

func (s *place) tryStance(ctx context.Context, in *setStanceInput) (*tryOutput, error) {
	out := &tryOutput{TryView{Heads: []TriedHead{}}}
	err := s.InClient(ctx, in.Client, func(tx *store.Tx, _ store.Account, c *store.Client) error {
		st, err := op.StanceOf(ctx, tx, in.Body.Stance)
		if err != nil {
			return err
		}
		t, err := s.Trainee(c)
		if err != nil {
			return err
		}
		on, err := s.DayIn(ctx, "")
		if err != nil {
			return err
		}
		monday := on.Monday()
		kept, err := tx.SessionsBetween(ctx, c.ID, monday, monday+6, op.Movements(ctx))
		if err != nil {
			return err
		}
		var now, then [arm.HeadCount]float64
		counted := 0
		for i := range kept {
			if len(kept[i].Faults) > 0 {
				continue // one that can no longer be read is nothing to compare
			}
			counted++
			was, would := t.Count(&kept[i].Session), week.Count(&kept[i].Session, t.Yardstick, st)
			for h := range now {
				now[h], then[h] = now[h]+was.Heads[h].Mid, then[h]+would.Heads[h].Mid
			}
		}
		for h := range now {
			if math.Abs(then[h]-now[h]) >= leastShown {
				out.Body.Heads = append(
					out.Body.Heads,
					TriedHead{arm.Heads[h].Code, arm.Heads[h].Name, view.Round4(now[h]), view.Round4(then[h])},
				)
			}
		}
		out.Body.Words = tryWords(out.Body.Heads, counted, st.Name)
		return nil
	})
	return out, err
}

func tryWords(heads []TriedHead, sessions int, name string) string {
	switch {
	case sessions == 0:
		return "Nothing is planned this week, so there is nothing to compare; what is planned later would be counted by " + name + "."
	case len(heads) == 0:
		return "By " + name + " this week would count the same."
	}
	var parts []string
	for _, h := range heads {
		parts = append(parts, fmt.Sprintf("%s %.1f → %.1f", h.Name, h.Now, h.Then))
	}
	return "By " + name + " this week would count " + strings.Join(parts, "; ") + " effective sets."
}
