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
	"musculus/internal/core/week"
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
	MayLog  bool       `json:"may_log"`
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

func (s *place) registerIssues(api huma.API) {
	huma.Register(
		api,
		op.Operation("issues", op.Everybody, http.MethodGet, "/clients/{client}/sessions/{session}/issues", "What was issued of a session"),
		s.issues,
	)
	huma.Register(
		api,
		op.Operation(
			"compare-issues",
			op.Everybody,
			http.MethodGet,
			"/clients/{client}/sessions/{session}/issues/compare",
			"What changed from one sheet to another",
		),
		s.compareIssues,
	)
	huma.Register(
		api,
		op.Operation(
			"issue",
			op.Planners,
			http.MethodPost,
			"/clients/{client}/sessions/{session}/issues",
			"Issue the sheet, complete or not at all",
		),
		s.issue,
	)
	huma.Register(
		api,
		op.Operation(
			"issue-week",
			op.Planners,
			http.MethodPost,
			"/clients/{client}/issues",
			"Issue sheets of several sessions, all or none",
		),
		s.issueWeek,
	)
	huma.Register(
		api,
		op.Operation("make-link", op.Planners, http.MethodPost, "/clients/{client}/links", "A link to the client's sheets"),
		s.makeLink,
	)
	huma.Register(
		api,
		op.Operation("revoke-link", op.Planners, http.MethodDelete, "/clients/{client}/links/{link}", "End a link at once"),
		s.revokeLink,
	)
	huma.Register(api, op.Operation("open-link", op.Anybody, http.MethodGet, "/links/{token}", "A client's sheets by a link"), s.openLink)
}

func (s *place) issues(ctx context.Context, in *op.SessionPath) (*issuesOutput, error) {
	return s.answerIssues(ctx, *in, func(*store.Tx, store.Account, *store.Client, store.Session) error { return nil })
}

// issue keeps the sheet as it is now. What is wrong or incomplete stops it.
func (s *place) issue(ctx context.Context, in *issueInput) (*issuesOutput, error) {
	return s.answerIssues(ctx, in.SessionPath, func(tx *store.Tx, a store.Account, c *store.Client, kept store.Session) error {
		t, err := s.Informed(ctx, tx, c)
		if err != nil {
			return err
		}
		return s.issueOne(ctx, tx, a, c, t, kept, in.Body.ID, in.Body.Version)
	})
}

// issueWeek issues several sheets, all or none: every one that cannot leave is told.
func (s *place) issueWeek(ctx context.Context, in *issueWeekInput) (*issueWeekOutput, error) {
	out := &issueWeekOutput{}
	out.Body.Issued = []IssuedView{}
	return out, s.InClient(ctx, in.Client, func(tx *store.Tx, a store.Account, c *store.Client) error {
		t, err := s.Informed(ctx, tx, c)
		if err != nil {
			return err
		}
		var wrong []*movement.FieldError
		for i, one := range in.Body.Sheets {
			number, name, err := s.issueNext(ctx, tx, a, c, t, one.Session, one.ID, one.Version)
			var refused huma.StatusError
			switch {
			case errors.As(err, &refused) && refused.GetStatus() < http.StatusInternalServerError:
				wrong = append(wrong, &movement.FieldError{Field: fmt.Sprintf("sheets[%d]", i), Reason: name + ": " + detailOf(refused)})
			case err != nil:
				return err
			default:
				out.Body.Issued = append(out.Body.Issued, IssuedView{one.Session, name, number})
			}
		}
		return op.Faults("body.", wrong)
	})
}

// issueNext issues a session's sheet unless the last one has what is planned, and says
// which number it has.
func (s *place) issueNext(
	ctx context.Context,
	tx *store.Tx,
	a store.Account,
	c *store.Client,
	t *week.Trainee,
	session, id uuid.UUID,
	version int,
) (number int, name string, err error) {
	kept, err := tx.Session(ctx, c.ID, session, op.Movements(ctx))
	if err != nil {
		return 0, "", err
	}
	rows, err := tx.Issues(ctx, c.ID, kept.ID, op.Movements(ctx))
	if err != nil {
		return 0, kept.Name, err
	}
	if len(rows) > 0 {
		pending, err := pendingOf(&kept, rows, c, op.Movements(ctx))
		if err != nil || len(pending) == 0 {
			return rows[0].Number, kept.Name, err
		}
	}
	if err := s.issueOne(ctx, tx, a, c, t, kept, id, version); err != nil {
		return 0, kept.Name, err
	}
	rows, err = tx.Issues(ctx, c.ID, kept.ID, op.Movements(ctx)) // one sent again has its old number
	if err != nil {
		return 0, kept.Name, err
	}
	return rows[0].Number, kept.Name, nil
}

// detailOf is what a problem says.
func detailOf(p huma.StatusError) string {
	if model, ok := p.(*huma.ErrorModel); ok {
		return model.Detail
	}
	return p.Error()
}

// issueOne keeps one sheet. What was looked at must be what is kept.
func (s *place) issueOne(
	ctx context.Context,
	tx *store.Tx,
	a store.Account,
	c *store.Client,
	t *week.Trainee,
	kept store.Session,
	id uuid.UUID,
	version int,
) error {
	if kept.Version != version {
		return op.Problem(http.StatusConflict, "somebody saved this session in between: look at it once more before it is issued")
	}
	if err := s.mayLeave(t, c, &kept); err != nil {
		return err
	}
	read, err := readForSheet(ctx, tx, c, kept)
	if err != nil {
		return err
	}
	words, err := s.sheet(&read)
	if err != nil {
		return err
	}
	b, err := sheet.Write(sheet.Of(&kept.Planned, op.Floor(c)), words)
	if err != nil {
		return err
	}
	return tx.AddIssue(ctx, c.ID, store.Issue{ID: id, SessionID: kept.ID, SessionVersion: kept.Version, PlannedOn: kept.On, Sheet: b}, a.ID)
}

// issuesRead is what the sheets that left of a session are shown from.
type issuesRead struct {
	c     *store.Client
	kept  store.Session
	rows  []store.Issue // the latest first
	links []store.Link
}

// answerIssues shows what was issued of a session as it is after do.
func (s *place) answerIssues(
	ctx context.Context,
	at op.SessionPath,
	do func(*store.Tx, store.Account, *store.Client, store.Session) error,
) (*issuesOutput, error) {
	return op.Showing(ctx, s.Server, func(tx *store.Tx, r *issuesRead) error {
		c, err := tx.Client(ctx, at.Client)
		if err != nil {
			return err
		}
		r.c = &c
		if r.kept, err = tx.Session(ctx, at.Client, at.Session, op.Movements(ctx)); err != nil {
			return err
		}
		if err = do(tx, op.AccountOf(ctx), r.c, r.kept); err != nil {
			return err
		}
		if r.rows, err = tx.Issues(ctx, c.ID, r.kept.ID, op.Movements(ctx)); err != nil {
			return err
		}
		r.links, err = tx.Links(ctx, c.ID)
		return err
	}, func(r *issuesRead) (*issuesOutput, error) {
		v, err := s.showIssues(r, op.Movements(ctx))
		return &issuesOutput{v}, err
	})
}

func (s *place) showIssues(r *issuesRead, catalogue *movement.Catalogue) (out IssuesView, err error) {
	out = IssuesView{Issues: []IssueView{}, Pending: []string{}, Links: []LinkView{}}
	if len(r.rows) > 0 {
		if out.Pending, err = pendingOf(&r.kept, r.rows, r.c, catalogue); err != nil {
			return out, err
		}
	}
	var later *sheet.Facts
	for i := range r.rows {
		row := &r.rows[i]
		v := IssueView{Number: row.Number, At: row.At, By: row.By, Changes: []string{}}
		if v.Sheet, err = readSheet(row.Sheet, catalogue); err != nil {
			return out, err
		}
		facts, err := factsLeft(row, r.c, catalogue)
		if err != nil {
			return out, err
		}
		if i > 0 {
			out.Issues[i-1].Changes = changes(facts, later, r.c)
		}
		later = facts
		out.Issues = append(out.Issues, v)
	}
	for _, l := range r.links {
		v := LinkView{ID: l.ID, State: "open", Expires: l.Expires, Opened: l.Opened, Last: l.OpenedAt, MayLog: l.MayLog}
		switch {
		case l.Revoked != nil:
			v.State = "revoked"
		case !s.Now().Before(l.Expires):
			v.State = "expired"
		}
		out.Links = append(out.Links, v)
	}
	return out, nil
}
