package store

import (
	"context"
	"crypto/rand"
	"strings"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"

	"musculus/internal/core/text"
	"musculus/internal/store/db"
)

// Login is somebody who signs in, in whichever studios.
type Login struct {
	ID     uuid.UUID // zero: nobody signs in with that address
	Email  string
	Factor bool   // a second factor is asked for
	Secret string // of the second factor, also while it waits to be confirmed
	Units  string
	hash   string
}

// Is tells whether it is her password, taking as long where there is nobody.
func (l Login) Is(password string) bool {
	if l.ID == uuid.Nil {
		checkPassword(password, unknownHash)
		return false
	}
	return checkPassword(password, l.hash)
}

// Outdated says that the password's hash was made cheaper than hashes are made now.
func (l Login) Outdated() bool { return !strings.HasPrefix(l.hash, hashCost) }

// LoginOf is who signs in with an address, the zero Login where nobody does.
func (s *Store) LoginOf(ctx context.Context, email string) (Login, error) {
	var l db.Login
	err := classify(pgx.BeginFunc(ctx, s.Pool, func(tx pgx.Tx) (err error) {
		if _, err := tx.Exec(ctx, "select set_config('musculus.signing_in', $1, true)", text.Address(email)); err != nil {
			return err
		}
		l, err = db.New(tx).LoginByEmail(ctx, text.Address(email))
		return err
	}))
	if err == ErrNotFound {
		return Login{}, nil
	}
	return login(l), err
}

func login(l db.Login) Login {
	return Login{l.LoginID, l.Email, l.TotpOn, l.TotpSecret, l.Units, l.PasswordHash}
}

// LoginTx is one transaction of somebody's own.
type LoginTx struct {
	q  *db.Queries
	tx pgx.Tx
	id uuid.UUID
}

// InLogin runs do in one transaction that sees only what is a login's own.
func (s *Store) InLogin(ctx context.Context, id uuid.UUID, do func(*LoginTx) error) error {
	begin := "begin; select set_config('musculus.login', '" + id.String() + "', true)"
	return classify(pgx.BeginTxFunc(ctx, s.Pool, pgx.TxOptions{BeginQuery: begin}, func(tx pgx.Tx) error {
		return do(&LoginTx{db.New(tx), tx, id})
	}))
}

// Login is whose transaction it is.
func (t *LoginTx) Login(ctx context.Context) (Login, error) {
	l, err := t.q.LoginByID(ctx)
	return login(l), err
}

// Place is an account of one's own that may be signed in to.
type Place struct {
	Account, Studio uuid.UUID
	Role            Role
	Name            string // the studio's
}

// Places are where one may sign in.
func (t *LoginTx) Places(ctx context.Context) ([]Place, error) {
	rows, err := t.q.StudiosOfLogin(ctx)
	out := make([]Place, len(rows))
	for i, r := range rows {
		out[i] = Place{r.AccountID, r.StudioID, Role(r.Role), r.Name}
	}
	return out, err
}

// SetPassword sets a new password by its hash.
func (t *LoginTx) SetPassword(ctx context.Context, hash string) error {
	return t.q.SetPassword(ctx, hash)
}

// SetReading sets in which units one reads and types, and which way round dates are written.
func (t *LoginTx) SetReading(ctx context.Context, units, dates string) error {
	return t.q.SetReading(ctx, db.SetReadingParams{Units: units, Dates: dates})
}

// SetFactor keeps the secret of a second factor; on: it is asked for from now on.
func (t *LoginTx) SetFactor(ctx context.Context, secret string, on bool) error {
	if !on {
		if err := t.q.DropRecoveryCodes(ctx); err != nil {
			return err
		}
	}
	return t.q.SetFactor(ctx, db.SetFactorParams{TotpSecret: secret, TotpOn: on})
}

// UseStep says whether the code of a step of the second factor was used for the first time.
func (t *LoginTx) UseStep(ctx context.Context, step int64) (bool, error) {
	n, err := t.q.UseStep(ctx, step)
	return n == 1, err
}

// RecoveryCodes makes codes that open once each in place of a second factor, instead of
// those there were. They are not kept, only what they are known by.
func (t *LoginTx) RecoveryCodes(ctx context.Context, n int) ([]string, error) {
	if err := t.q.DropRecoveryCodes(ctx); err != nil {
		return nil, err
	}
	codes := make([]string, n)
	for i := range codes {
		text := strings.ToLower(rand.Text())
		codes[i] = text[:5] + "-" + text[5:10]
		if err := t.q.AddRecoveryCode(ctx, HashToken(codes[i])); err != nil {
			return nil, err
		}
	}
	return codes, nil
}

// UseRecoveryCode says whether a code was one that had not been used.
func (t *LoginTx) UseRecoveryCode(ctx context.Context, code string) (bool, error) {
	n, err := t.q.UseRecoveryCode(ctx, HashToken(strings.ToLower(strings.TrimSpace(code))))
	return n == 1, err
}

// CodesLeft is how many recovery codes are left.
func (t *LoginTx) CodesLeft(ctx context.Context) (int64, error) { return t.q.RecoveryCodes(ctx) }

// SignIn is one place somebody is signed in at.
type SignIn struct {
	ID         uuid.UUID
	Agent      string
	OwnDevice  bool
	Made, Seen time.Time
	Ended      *time.Time
}

// AddSignIn notes that one has signed in.
func (t *LoginTx) AddSignIn(ctx context.Context, in SignIn, now time.Time) error {
	return t.q.AddSignIn(ctx, db.AddSignInParams{SignInID: in.ID, Agent: in.Agent, OwnDevice: in.OwnDevice, Now: now})
}

// SignIns are where one is signed in, the one used last first.
func (t *LoginTx) SignIns(ctx context.Context) ([]SignIn, error) {
	rows, err := t.q.SignIns(ctx)
	out := make([]SignIn, len(rows))
	for i, r := range rows {
		out[i] = signIn(r)
	}
	return out, err
}

func signIn(r db.SignIn) SignIn {
	return SignIn{r.SignInID, r.Agent, r.OwnDevice, r.MadeAt, r.SeenAt, r.EndedAt}
}

// EndSignIns ends one sign-in, or with nil all of them but one's own, which nil is none.
func (t *LoginTx) EndSignIns(ctx context.Context, one, but *uuid.UUID, now time.Time) (int64, error) {
	return t.q.EndSignIns(ctx, db.EndSignInsParams{Now: &now, One: one, Other: but})
}

// KnowDevice remembers a browser by a token of its own.
func (t *LoginTx) KnowDevice(ctx context.Context, token string, now time.Time) error {
	return t.q.KnowDevice(ctx, db.KnowDeviceParams{TokenHash: HashToken(token), SeenAt: now})
}

// IsKnownDevice says whether a browser has signed in before.
func (t *LoginTx) IsKnownDevice(ctx context.Context, token string) (bool, error) {
	return t.q.IsKnownDevice(ctx, HashToken(token))
}

// ForgetDevices makes every browser a stranger's.
func (t *LoginTx) ForgetDevices(ctx context.Context) error { return t.q.ForgetDevices(ctx) }

// SignedIn is the account of a sign-in, and the sign-in. seenAfter is how old its last
// use may be before it is noted anew.
func (s *Store) SignedIn(
	ctx context.Context,
	studio, login, account, in uuid.UUID,
	now time.Time,
	seenAfter time.Duration,
) (Account, SignIn, error) {
	begin := "begin; select set_config('musculus.studio', '" + studio.String() + "', true), " +
		"set_config('musculus.login', '" + login.String() + "', true)"
	var a Account
	var at SignIn
	err := classify(pgx.BeginTxFunc(ctx, s.Pool, pgx.TxOptions{BeginQuery: begin}, func(tx pgx.Tx) (err error) {
		t := &Tx{db.New(tx), tx, settingOf(ctx), s.read}
		if a, err = t.Account(ctx, account); err != nil {
			return err
		}
		row, err := t.q.SignInByID(ctx, in)
		if err != nil {
			return err
		}
		at = signIn(row)
		if at.Ended == nil && now.Sub(at.Seen) > seenAfter {
			err = t.q.SeenSignIn(ctx, db.SeenSignInParams{SignInID: in, SeenAt: now})
		}
		return err
	}))
	return a, at, err
}
