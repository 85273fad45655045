package store

import (
	"context"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"

	"musculus/internal/core/text"
	"musculus/internal/store/db"
)

// OneTime is what whoever has its token opens once.
type OneTime struct {
	ID      uuid.UUID
	Kind    string // invitation, password, first
	Studio  *uuid.UUID
	Login   *uuid.UUID
	Email   string
	Role    Role
	MadeBy  *uuid.UUID
	Made    time.Time
	Expires time.Time
	Used    *time.Time
}

// The kinds, and for how long they open.
const (
	Invitation  = "invitation"
	NewPassword = "password"
	FirstOwner  = "first"

	InvitationFor  = 72 * time.Hour
	NewPasswordFor = 30 * time.Minute
	FirstOwnerFor  = 24 * time.Hour
)

func oneTime(r db.OneTime) OneTime {
	return OneTime{r.OneTimeID, r.Kind, r.StudioID, r.LoginID, r.Email, Role(r.Role), r.MadeBy, r.MadeAt, r.ExpiresAt, r.UsedAt}
}

func addOneTime(ctx context.Context, q *db.Queries, o OneTime) (token string, fresh bool, err error) {
	token = NewToken()
	n, err := q.AddOneTime(ctx, db.AddOneTimeParams{
		OneTimeID: o.ID, TokenHash: HashToken(token), Kind: o.Kind, StudioID: o.Studio, LoginID: o.Login, Email: text.Address(o.Email),
		Role: string(o.Role), MadeBy: o.MadeBy, MadeAt: o.Made, ExpiresAt: o.Expires,
	})
	return token, n == 1, err
}

// Invite lets somebody into the studio; the token is not kept. Sent again under the same
// id, its answer lost, it is the same invitation: not fresh, and opened by the token made
// now where anew says so. Another one under that id is ErrTaken.
func (t *Tx) Invite(
	ctx context.Context,
	a Account,
	id uuid.UUID,
	email string,
	role Role,
	now time.Time,
	anew bool,
) (token string, fresh bool, err error) {
	token, fresh, err = addOneTime(ctx, t.q, OneTime{
		ID: id, Kind: Invitation, Studio: &a.Studio, Email: email, Role: role, MadeBy: &a.ID, Made: now, Expires: now.Add(InvitationFor),
	})
	if err != nil || fresh {
		return token, fresh, err
	}
	same, err := t.q.SameInvitation(ctx, db.SameInvitationParams{OneTimeID: id, Email: text.Address(email), Role: string(role)})
	if err == nil && !same {
		err = ErrTaken
	}
	if err == nil && anew {
		err = t.q.RenewInvitation(ctx, db.RenewInvitationParams{OneTimeID: id, TokenHash: HashToken(token)})
	}
	return token, false, err
}

// Invitations are those of the studio that still open.
func (t *Tx) Invitations(ctx context.Context, now time.Time) ([]OneTime, error) {
	rows, err := t.q.Invitations(ctx, now)
	out := make([]OneTime, len(rows))
	for i, r := range rows {
		out[i] = oneTime(r)
	}
	return out, err
}

// WithdrawInvitation takes one back; ErrNotFound when it is used, or none.
func (t *Tx) WithdrawInvitation(ctx context.Context, id uuid.UUID) error {
	n, err := t.q.WithdrawInvitation(ctx, id)
	if err == nil && n == 0 {
		return ErrNotFound
	}
	return err
}

// NewPassword makes a link under which a new password is set; those made before open no more.
func (t *LoginTx) NewPassword(ctx context.Context, email string, now time.Time) (token string, err error) {
	if err := t.q.SpendPasswordLinks(ctx, &now); err != nil {
		return "", err
	}
	token, _, err = addOneTime(
		ctx,
		t.q,
		OneTime{ID: uuid.New(), Kind: NewPassword, Login: &t.id, Email: email, Made: now, Expires: now.Add(NewPasswordFor)},
	)
	return token, err
}

// FirstOwnerLink makes the token of the first owner, where there is no studio yet; "" where there is one.
func (s *Store) FirstOwnerLink(ctx context.Context, now time.Time) (token string, err error) {
	begin := "begin; select set_config('musculus.round', 'on', true), set_config('musculus.first', 'on', true)"
	err = classify(pgx.BeginTxFunc(ctx, s.Pool, pgx.TxOptions{BeginQuery: begin}, func(tx pgx.Tx) error {
		var any bool
		if err := tx.QueryRow(ctx, "SELECT EXISTS (SELECT 1 FROM studio)").Scan(&any); err != nil {
			return err
		}
		// One at a time: what an earlier start printed opens no more, nor any once there is a studio.
		if err := db.New(tx).SpendFirstLinks(ctx, &now); err != nil || any {
			return err
		}
		token, _, err = addOneTime(
			ctx,
			db.New(tx),
			OneTime{ID: uuid.New(), Kind: FirstOwner, Made: now, Expires: now.Add(FirstOwnerFor)},
		)
		return err
	}))
	return token, err
}

// OneTime finds what a token opens, used or not; ErrNotFound for one that is nobody's.
func (s *Store) OneTime(ctx context.Context, token string) (OneTime, error) {
	var o OneTime
	err := s.byToken(ctx, token, func(tx pgx.Tx, q *db.Queries) error {
		row, err := q.OneTimeByToken(ctx, HashToken(token))
		o = oneTime(row)
		return err
	})
	return o, err
}

func (s *Store) byToken(ctx context.Context, token string, do func(pgx.Tx, *db.Queries) error) error {
	begin := "begin; select set_config('musculus.token', '" + HashToken(token) + "', true)"
	return classify(
		pgx.BeginTxFunc(ctx, s.Pool, pgx.TxOptions{BeginQuery: begin}, func(tx pgx.Tx) error { return do(tx, db.New(tx)) }),
	)
}

// Redeemed is where whoever opened something has her place.
type Redeemed struct{ Login, Studio, Account uuid.UUID }

// Redeem opens what a token is for, once: of two at the same moment one. It runs do in
// the same transaction, inside the studio and as the login that do is given.
func (s *Store) Redeem(
	ctx context.Context,
	token string,
	login uuid.UUID,
	studio uuid.UUID,
	now time.Time,
	do func(*Tx, *LoginTx, OneTime) error,
) error {
	return s.byToken(ctx, token, func(tx pgx.Tx, q *db.Queries) error {
		row, err := q.LockOneTime(ctx, HashToken(token))
		if err != nil {
			return err
		}
		if row.UsedAt != nil || !now.Before(row.ExpiresAt) {
			return ErrNotFound
		}
		if _, err := q.UseOneTime(ctx, db.UseOneTimeParams{TokenHash: HashToken(token), UsedAt: &now}); err != nil {
			return err
		}
		set := "select set_config('musculus.login', $1, true), set_config('musculus.studio', $2, true)"
		if _, err := tx.Exec(ctx, set, login.String(), studio.String()); err != nil {
			return err
		}
		return do(&Tx{q, tx, settingOf(ctx), s.read}, &LoginTx{q, tx, login}, oneTime(row))
	})
}
