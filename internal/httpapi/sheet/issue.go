package sheet

import (
	"context"
	"errors"
	"fmt"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"musculus/internal/core/movement"
	"musculus/internal/core/sheet"
	"musculus/internal/httpapi/op"
	"musculus/internal/store"
)

// IssueView is a sheet as it left.
type IssueView struct {
	Number  int       `json:"number"`
	At      time.Time `json:"at"`
	By      string    `json:"by"`
	Sheet   SheetView `json:"sheet"`
	Changes []string  `json:"changes"` // against the one before
}

// LinkView is a link to a client's sheets.
type LinkView struct {
	ID      uuid.UUID  `json:"id"`
	State   string     `json:"state" enum:"open,expired,revoked"`
	Expires time.Time  `json:"expires"`
	Opened  int        `json:"opened"`
	Last    *time.Time `json:"opened_at"`
}

// IssuesView is what was issued of a session, and whether it is what is planned.
type IssuesView struct {
	Issues  []IssueView `json:"issues"`  // the latest first
	Pending []string    `json:"pending"` // what changed since the latest
	Links   []LinkView  `json:"links"`
}

type issuesOutput struct{ Body IssuesView }

type issueInput struct {
	op.SessionPath
	Body struct {
		ID      uuid.UUID `json:"id" doc:"made for this issue; sending it again issues once"`
		Version int       `json:"version" minimum:"1" maximum:"1000000" doc:"the session's version that was looked at"`
	}
}

type issueWeekInput struct {
	Client uuid.UUID `path:"client"`
	Body   struct {
		Sheets []struct {
			ID      uuid.UUID `json:"id" doc:"made for this issue; sending it again issues once"`
			Session uuid.UUID `json:"session"`
			Version int       `json:"version" minimum:"1" maximum:"1000000" doc:"the session's version that was looked at"`
		} `json:"sheets" minItems:"1" maxItems:"42"`
	}
}

type issueWeekOutput struct {
	Body struct {
		Issued []IssuedView `json:"issued"`
	}
}

// IssuedView is a sheet that left with a week.
type IssuedView struct {
	Session uuid.UUID `json:"session"`
	Name    string    `json:"name"`
	Number  int       `json:"number"`
}

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

func (s *place) registerIssues(api huma.API) {
	huma.Register(api, op.Operation("issues", op.Everybody, http.MethodGet, "/clients/{client}/sessions/{session}/issues", "What was issued of a session"), s.issues)
	huma.Register(api, op.Operation("compare-issues", op.Everybody, http.MethodGet, "/clients/{client}/sessions/{session}/issues/compare", "What changed from one sheet to another"), s.compareIssues)
	huma.Register(api, op.Operation("issue", op.Planners, http.MethodPost, "/clients/{client}/sessions/{session}/issues", "Issue the sheet, complete or not at all"), s.issue)
	huma.Register(api, op.Operation("issue-week", op.Planners, http.MethodPost, "/clients/{client}/issues", "Issue sheets of several sessions, all or none"), s.issueWeek)
	huma.Register(api, op.Operation("make-link", op.Planners, http.MethodPost, "/clients/{client}/links", "A link to the client's sheets"), s.makeLink)
	huma.Register(api, op.Operation("revoke-link", op.Planners, http.MethodDelete, "/clients/{client}/links/{link}", "End a link at once"), s.revokeLink)
	huma.Register(api, op.Operation("open-link", op.Anybody, http.MethodGet, "/links/{token}", "A client's sheets by a link"), s.openLink)
}

func (s *place) issues(ctx context.Context, in *op.SessionPath) (*issuesOutput, error) {
	out := &issuesOutput{}
	return out, s.InSession(ctx, *in, func(tx *store.Tx, _ store.Account, c *store.Client, kept store.Session) (err error) {
		out.Body, err = s.viewIssues(ctx, tx, c, kept)
		return err
	})
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

// issue keeps the sheet as it is now. What is wrong or incomplete stops it.
func (s *place) issue(ctx context.Context, in *issueInput) (*issuesOutput, error) {
	out := &issuesOutput{}
	return out, s.InSession(ctx, in.SessionPath, func(tx *store.Tx, a store.Account, c *store.Client, kept store.Session) error {
		if err := s.issueOne(ctx, tx, a, c, kept, in.Body.ID, in.Body.Version); err != nil {
			return err
		}
		var err error
		out.Body, err = s.viewIssues(ctx, tx, c, kept)
		return err
	})
}

// issueWeek issues several sheets, all or none: every one that cannot leave is told.
func (s *place) issueWeek(ctx context.Context, in *issueWeekInput) (*issueWeekOutput, error) {
	out := &issueWeekOutput{}
	out.Body.Issued = []IssuedView{}
	return out, s.InClient(ctx, in.Client, func(tx *store.Tx, a store.Account, c *store.Client) error {
		var wrong []*movement.FieldError
		for i, one := range in.Body.Sheets {
			kept, err := tx.Session(ctx, c.ID, one.Session, op.Movements(ctx))
			if err == nil {
				if is, err := s.viewIssues(ctx, tx, c, kept); err != nil {
					return err
				} else if len(is.Issues) > 0 && len(is.Pending) == 0 { // it has what is planned
					out.Body.Issued = append(out.Body.Issued, IssuedView{kept.ID, kept.Name, is.Issues[0].Number})
					continue
				}
				err = s.issueOne(ctx, tx, a, c, kept, one.ID, one.Version)
			}
			var refused huma.StatusError
			switch {
			case errors.As(err, &refused) && refused.GetStatus() < http.StatusInternalServerError:
				wrong = append(wrong, &movement.FieldError{Field: fmt.Sprintf("sheets[%d]", i), Reason: kept.Name + ": " + detailOf(refused)})
				continue
			case err != nil:
				return err
			}
			issues, err := tx.Issues(ctx, c.ID, kept.ID, op.Movements(ctx))
			if err != nil {
				return err
			}
			out.Body.Issued = append(out.Body.Issued, IssuedView{kept.ID, kept.Name, issues[0].Number})
		}
		return op.Faults("body.", wrong)
	})
}

// detailOf is what a problem says.
func detailOf(p huma.StatusError) string {
	if model, ok := p.(*huma.ErrorModel); ok {
		return model.Detail
	}
	return p.Error()
}

// issueOne keeps one sheet. What was looked at must be what is kept.
func (s *place) issueOne(ctx context.Context, tx *store.Tx, a store.Account, c *store.Client, kept store.Session, id uuid.UUID, version int) error {
	if kept.Version != version {
		return op.Problem(http.StatusConflict, "somebody saved this session in between: look at it once more before it is issued")
	}
	if err := s.mayLeave(ctx, tx, c, kept); err != nil {
		return err
	}
	studio, err := tx.StudioName(ctx)
	if err != nil {
		return err
	}
	words, err := s.sheet(ctx, tx, studio, c, kept)
	if err != nil {
		return err
	}
	b, err := sheet.Write(sheet.Of(&kept.Planned, op.Floor(c)), words)
	if err != nil {
		return err
	}
	return tx.AddIssue(ctx, c.ID, store.Issue{ID: id, SessionID: kept.ID, SessionVersion: kept.Version, PlannedOn: kept.On, Sheet: b}, a.ID)
}

func (s *place) viewIssues(ctx context.Context, tx *store.Tx, c *store.Client, kept store.Session) (IssuesView, error) {
	out := IssuesView{Issues: []IssueView{}, Pending: []string{}, Links: []LinkView{}}
	rows, err := tx.Issues(ctx, c.ID, kept.ID, op.Movements(ctx))
	if err != nil {
		return out, err
	}
	var later *sheet.Facts
	for i := range rows {
		r := &rows[i]
		v := IssueView{Number: r.Number, At: r.At, By: r.By, Changes: []string{}}
		if v.Sheet, err = readSheet(r.Sheet, op.Movements(ctx)); err != nil {
			return out, err
		}
		facts, err := factsLeft(r, c, op.Movements(ctx))
		if err != nil {
			return out, err
		}
		if i == 0 {
			now, err := factsOf(&kept, c)
			if err != nil {
				return out, err
			}
			out.Pending = changes(facts, now, c)
		} else {
			out.Issues[i-1].Changes = changes(facts, later, c)
		}
		later = facts
		out.Issues = append(out.Issues, v)
	}
	links, err := tx.Links(ctx, c.ID)
	for _, l := range links {
		v := LinkView{ID: l.ID, State: "open", Expires: l.Expires, Opened: l.Opened, Last: l.OpenedAt}
		switch {
		case l.Revoked != nil:
			v.State = "revoked"
		case !s.Now().Before(l.Expires):
			v.State = "expired"
		}
		out.Links = append(out.Links, v)
	}
	return out, err
}
