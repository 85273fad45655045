package store

import (
	"context"
	"encoding/json"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"

	"musculus/internal/core/day"
	"musculus/internal/core/movement"
	"musculus/internal/core/plan"
	"musculus/internal/store/db"
)

// Issue is a sheet as it left.
type Issue struct {
	ID             uuid.UUID
	SessionID      uuid.UUID
	Number         int // of the session's sheets, from 1
	SessionVersion int // what it was made of
	PlannedOn      day.Day
	Sheet          json.RawMessage
	// Plan is the session in that version; its faults are not looked at here.
	Plan Session
	By   string
	At   time.Time
}

// AddIssue keeps a sheet under the session's next number, after whoever is issuing
// it just now; sending it twice keeps it once, sending another under its id is
// ErrTaken.
func (t *Tx) AddIssue(ctx context.Context, client uuid.UUID, i Issue, by uuid.UUID) error {
	if err := t.q.LockSession(ctx, i.SessionID); err != nil {
		return err
	}
	n, err := t.q.AddIssue(
		ctx,
		db.AddIssueParams{
			IssueID:        i.ID,
			ClientID:       client,
			SessionID:      i.SessionID,
			SessionVersion: i.SessionVersion,
			PlannedOn:      i.PlannedOn,
			Sheet:          i.Sheet,
			IssuedBy:       by,
		},
	)
	return once(n, err, func() (bool, error) {
		return t.q.SameIssue(
			ctx,
			db.SameIssueParams{IssueID: i.ID, ClientID: client, SessionID: i.SessionID, SessionVersion: i.SessionVersion},
		)
	})
}

// Issues returns a session's sheets with the plan they were made of, the latest
// first.
func (t *Tx) Issues(ctx context.Context, client, session uuid.UUID, c *movement.Catalogue) ([]Issue, error) {
	rows, err := t.q.IssuesOfSession(ctx, db.IssuesOfSessionParams{ClientID: client, SessionID: session})
	if err != nil {
		return nil, err
	}
	out := make([]Issue, len(rows))
	for i, r := range rows {
		out[i] = Issue{
			ID:             r.IssueID,
			SessionID:      session,
			Number:         r.Number,
			SessionVersion: r.SessionVersion,
			Sheet:          r.Sheet,
			By:             r.IssuedByName,
			At:             r.IssuedAt,
		}
		out[i].Plan = Session{
			ClientID: client,
			Version:  r.SessionVersion,
			Planned:  plan.Planned{ID: session, Name: r.Name, On: r.PlannedOn},
		}
		if err := out[i].Plan.read(r.Content, c); err != nil {
			return nil, err
		}
	}
	return out, nil
}

// LatestIssues returns the newest sheet of each of a client's sessions of some
// days.
func (t *Tx) LatestIssues(ctx context.Context, client uuid.UUID, first, last day.Day) ([]Issue, error) {
	rows, err := t.q.LatestIssues(ctx, db.LatestIssuesParams{ClientID: client, FirstDay: first, LastDay: last})
	if err != nil {
		return nil, err
	}
	out := make([]Issue, len(rows))
	for i, r := range rows {
		out[i] = Issue{
			SessionID:      r.SessionID,
			Number:         r.Number,
			SessionVersion: r.SessionVersion,
			PlannedOn:      r.PlannedOn,
			Sheet:          r.Sheet,
			At:             r.IssuedAt,
		}
	}
	return out, nil
}

// Link is a link to a client's sheets; its token is known only when it is made.
type Link struct {
	ID       uuid.UUID
	Expires  time.Time
	Revoked  *time.Time
	OpenedAt *time.Time // last
	Opened   int        // times
	MadeAt   time.Time
	MayLog   bool // its holder may log sets, and say what hurts
}

// AddLink keeps a link by its token. Sent again, before anybody opened it, the token
// made now takes the place of the one whose answer was lost; another link under the
// id is ErrTaken.
func (t *Tx) AddLink(
	ctx context.Context,
	id, client uuid.UUID,
	token string,
	expires time.Time,
	mayLog bool,
	by uuid.UUID,
) error {
	n, err := t.q.AddLink(
		ctx,
		db.AddLinkParams{
			LinkID:    id,
			ClientID:  client,
			TokenHash: HashToken(token),
			ExpiresAt: expires,
			MadeBy:    by,
			MayLog:    mayLog,
		},
	)
	return once(n, err, func() (bool, error) {
		n, err := t.q.RenewLink(
			ctx,
			db.RenewLinkParams{LinkID: id, ClientID: client, TokenHash: HashToken(token), Expires: expires},
		)
		return n == 1, err
	})
}

// Links returns a client's links, the latest first.
func (t *Tx) Links(ctx context.Context, client uuid.UUID) ([]Link, error) {
	rows, err := t.q.Links(ctx, client)
	if err != nil {
		return nil, err
	}
	out := make([]Link, len(rows))
	for i, r := range rows {
		out[i] = Link{r.LinkID, r.ExpiresAt, r.RevokedAt, r.OpenedAt, r.Opened, r.MadeAt, r.MayLog}
	}
	return out, nil
}

// RevokeLink ends a link at once, ErrNotFound if there is none that holds.
func (t *Tx) RevokeLink(ctx context.Context, client, id uuid.UUID) error {
	n, err := t.q.RevokeLink(ctx, db.RevokeLinkParams{LinkID: id, ClientID: client})
	if err == nil && n == 0 {
		err = ErrNotFound
	}
	return err
}

// Opened is whose sheets a token opens.
type Opened struct {
	Studio, Client, Link uuid.UUID
	MayLog               bool
	Over                 string // why it opens no longer: expired, revoked; "" while it does
}

// OpenLink finds what a token opens, ErrNotFound for one that is nobody's.
func (s *Store) OpenLink(ctx context.Context, token string, now time.Time) (Opened, error) {
	var out Opened
	err := classify(pgx.BeginFunc(ctx, s.Pool, func(tx pgx.Tx) error {
		hash := HashToken(token)
		if _, err := tx.Exec(ctx, "select set_config('musculus.token', $1, true)", hash); err != nil {
			return err
		}
		r, err := db.New(tx).LinkByToken(ctx, hash)
		if err != nil {
			return err
		}
		out = Opened{Studio: r.StudioID, Client: r.ClientID, Link: r.LinkID, MayLog: r.MayLog}
		switch {
		case r.RevokedAt != nil:
			out.Over = "revoked"
		case !now.Before(r.ExpiresAt):
			out.Over = "expired"
		}
		return nil
	}))
	return out, err
}

// MarkOpened notes that a link was opened.
func (t *Tx) MarkOpened(ctx context.Context, link uuid.UUID, at time.Time) error {
	return t.q.MarkOpened(ctx, db.MarkOpenedParams{LinkID: link, At: &at})
}

// Tomorrows is a session that is planned for a day and whose sheet has left.
type Tomorrows struct {
	Client, Session uuid.UUID
	Name            string
}

// IssuedOn are the sessions of a day whose sheets have left.
func (t *Tx) IssuedOn(ctx context.Context, on day.Day) ([]Tomorrows, error) {
	rows, err := t.q.IssuedOn(ctx, on)
	out := make([]Tomorrows, len(rows))
	for i, r := range rows {
		out[i] = Tomorrows{r.ClientID, r.SessionID, r.Name}
	}
	return out, err
}
