package store

import (
	"context"
	"errors"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5/pgconn"

	"musculus/internal/core/text"
	"musculus/internal/store/db"
)

// Role says what an account may do.
type Role string

// The roles.
const (
	Owner     Role = "owner"
	Coach     Role = "coach"
	Assistant Role = "assistant"
)

// Account is somebody's place in a studio.
type Account struct {
	ID       uuid.UUID
	Studio   uuid.UUID
	Login    uuid.UUID // who signs in
	Email    string
	Name     string
	Role     Role
	Disabled *time.Time
	Units    string // as the login reads and types
	Dates    string // which way round: day_first, month_first
	Factor   bool   // signs in with a second factor
	Lacks    bool   // the studio asks for a second factor, and there is none
}

// Colleague is an account as the studio's people see it.
type Colleague struct {
	Account
	Seen    time.Time
	Clients int // whose coach it is
}

// ErrAddressTaken says that somebody signs in with this address already.
var ErrAddressTaken = errors.New("somebody signs in with this address already")

// ErrLastOwner says that a studio would be left without an owner.
var ErrLastOwner = errors.New("the last owner stays: make somebody else an owner first")

// AddStudio makes a studio; call it inside its own id.
func (t *Tx) AddStudio(ctx context.Context, id uuid.UUID, name string) error {
	return t.q.AddStudio(ctx, db.AddStudioParams{StudioID: id, Name: name})
}

// StudioName returns the current studio's name.
func (t *Tx) StudioName(ctx context.Context) (string, error) {
	s, err := t.q.GetStudio(ctx)
	return s.Name, err
}

// AddAccount adds an account to the current studio, and the login it belongs to where
// it names none. ErrAddressTaken: that address signs in already.
func (t *Tx) AddAccount(ctx context.Context, a Account, password string) error {
	if a.Login == uuid.Nil {
		a.Login = a.ID
		if err := t.AddLogin(ctx, a.Login, a.Email, HashPassword(password)); err != nil {
			return err
		}
	}
	err := t.q.AddAccount(ctx, db.AddAccountParams{AccountID: a.ID, LoginID: a.Login, Name: a.Name, Role: string(a.Role)})
	var pg *pgconn.PgError
	if errors.As(err, &pg) && pg.Code == uniqueViolation { // she has a place in this studio already
		return ErrTaken
	}
	return err
}

// AddLogin adds somebody who signs in, by her password's hash.
func (t *Tx) AddLogin(ctx context.Context, id uuid.UUID, email, hash string) error {
	if _, err := t.tx.Exec(ctx, "select set_config('musculus.login', $1, true)", id.String()); err != nil {
		return err
	}
	err := t.q.AddLogin(ctx, db.AddLoginParams{LoginID: id, Email: text.Address(email), PasswordHash: hash})
	var pg *pgconn.PgError
	if errors.As(err, &pg) && pg.Code == uniqueViolation && pg.ConstraintName == "login_email_key" {
		return ErrAddressTaken
	}
	return err
}

const uniqueViolation = "23505"

// Account returns an account of the current studio.
func (t *Tx) Account(ctx context.Context, id uuid.UUID) (Account, error) {
	a, err := t.q.AccountByID(ctx, id)
	return Account{
		a.AccountID, a.StudioID, a.LoginID, a.Email, a.Name, Role(a.Role), a.DisabledAt, a.Units, a.Dates, a.TotpOn, a.SecondFactor && !a.TotpOn,
	}, err
}

// Colleagues are the accounts of the studio.
func (t *Tx) Colleagues(ctx context.Context) ([]Colleague, error) {
	rows, err := t.q.AccountsOfStudio(ctx)
	out := make([]Colleague, len(rows))
	for i, a := range rows {
		out[i] = Colleague{
			Account: Account{
				ID: a.AccountID, Studio: a.StudioID, Login: a.LoginID, Email: a.Email, Name: a.Name, Role: Role(a.Role),
				Disabled: a.DisabledAt, Factor: a.TotpOn,
			},
			Seen: a.SeenAt, Clients: a.Clients,
		}
	}
	return out, err
}

// SetAccount gives an account of the studio a role, and disables or enables it. At most
// one at a time: of two owners who take each other out one stays. ErrLastOwner: none
// would be left.
func (t *Tx) SetAccount(ctx context.Context, id uuid.UUID, role Role, disabled *time.Time) error {
	owners, err := t.q.LockOwners(ctx)
	if err != nil {
		return err
	}
	if (role != Owner || disabled != nil) && len(owners) == 1 && owners[0] == id {
		return ErrLastOwner
	}
	n, err := t.q.SetAccount(ctx, db.SetAccountParams{AccountID: id, Role: string(role), DisabledAt: disabled})
	if err == nil && n == 0 {
		return ErrNotFound
	}
	return err
}

// Rename gives an account of the studio another name.
func (t *Tx) Rename(ctx context.Context, id uuid.UUID, name string) error {
	return t.q.RenameAccount(ctx, db.RenameAccountParams{AccountID: id, Name: name})
}

// HandOver makes all clients of one account those of another; it returns how many.
func (t *Tx) HandOver(ctx context.Context, before, next uuid.UUID) (int64, error) {
	return t.q.HandOver(ctx, db.HandOverParams{Before: &before, Next: &next})
}

// DemandSecondFactor asks a second factor of everybody in the studio, or no longer.
func (t *Tx) DemandSecondFactor(ctx context.Context, demanded bool) error {
	return t.q.DemandSecondFactor(ctx, demanded)
}
