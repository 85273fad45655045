package sheet

import (
	"context"

	"musculus/internal/core/movement"
	"musculus/internal/core/sheet"
	"musculus/internal/httpapi/op"
	"musculus/internal/store"
)

type compareInput struct {
	op.SessionPath
	Was int `query:"was" minimum:"0" doc:"a sheet's number; 0: as planned now"`
	Is  int `query:"is" minimum:"0"`
}

type compareOutput struct {
	Body struct {
		Changes []string `json:"changes"`
	}
}

// compareIssues tells what changed from one sheet to another, of the same session.
func (s *place) compareIssues(ctx context.Context, in *compareInput) (*compareOutput, error) {
	out := &compareOutput{}
	return out, s.InSession(ctx, in.SessionPath, func(tx *store.Tx, _ store.Account, c *store.Client, kept store.Session) error {
		rows, err := tx.Issues(ctx, c.ID, kept.ID, op.Movements(ctx))
		if err != nil {
			return err
		}
		facts := func(number int) (*sheet.Facts, error) {
			if number == 0 {
				return factsOf(&kept, c)
			}
			for i := range rows {
				if rows[i].Number == number {
					return factsLeft(&rows[i], c, op.Movements(ctx))
				}
			}
			return nil, store.ErrNotFound
		}
		was, err := facts(in.Was)
		if err != nil {
			return err
		}
		is, err := facts(in.Is)
		if err != nil {
			return err
		}
		out.Body.Changes = changes(was, is, c)
		return nil
	})
}

// factsOf are the facts of a session as it is planned now; nil where it can no longer
// be counted.
func factsOf(kept *store.Session, c *store.Client) (*sheet.Facts, error) {
	if len(kept.Faults) > 0 {
		return nil, nil
	}
	f := sheet.Of(&kept.Planned, op.Floor(c))
	return &f, nil
}

// factsLeft are the facts of a sheet that left: its own, or those of the plan it was
// made of, as far as they go.
func factsLeft(i *store.Issue, c *store.Client, catalogue *movement.Catalogue) (*sheet.Facts, error) {
	d, err := sheet.Read(i.Sheet, catalogue)
	if err != nil || d.Facts != nil {
		return d.Facts, err
	}
	f, err := factsOf(&i.Plan, c)
	if f != nil {
		f.Loads = nil // of the room as it is now
	}
	return f, err
}

// changes tells what differs between two sheets; nothing where one of them is words
// alone.
func changes(was, is *sheet.Facts, c *store.Client) []string {
	if was == nil || is == nil {
		return []string{}
	}
	return sheet.Changes(was, is, op.Floor(c))
}

// pendingOf tells what a session's last sheet does not have yet.
func pendingOf(kept *store.Session, rows []store.Issue, c *store.Client, catalogue *movement.Catalogue) ([]string, error) {
	left, err := factsLeft(&rows[0], c, catalogue)
	if err != nil {
		return nil, err
	}
	now, err := factsOf(kept, c)
	return changes(left, now, c), err
}
