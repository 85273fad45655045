package op

import (
	"context"
	"net/http"
	"time"

	"github.com/google/uuid"

	"musculus/internal/core/secret"
	"musculus/internal/httpapi/request"
	"musculus/internal/store"
)

// Keys of what a sign-in session holds.
const (
	sessionSignIn  = "sign-in"
	sessionLogin   = "login"
	sessionStudio  = "studio"
	sessionAccount = "account"
)

// here is who is signed in at one place.
type here struct {
	account store.Account
	at      store.SignIn
}

// Who is who is remembered for a moment, so that a setting that is dragged does not
// ask the database for it at every step. A changed role, a disabled account or an ended
// sign-in takes effect when the moment is over, on every process.
const (
	rememberSignIn = 2 * time.Second
	mostSignIns    = 10_000
	notedEvery     = 5 * time.Minute // how often it is noted that a sign-in is in use
)

// BeginSession makes the request's session one of an account.
func (s *Server) BeginSession(ctx context.Context, signIn, login uuid.UUID, at store.Place, ownDevice bool) error {
	if err := s.Sessions.RenewToken(ctx); err != nil { // no session fixed beforehand
		return err
	}
	s.Sessions.RememberMe(ctx, ownDevice)
	ids := map[string]uuid.UUID{sessionSignIn: signIn, sessionLogin: login, sessionStudio: at.Studio, sessionAccount: at.Account}
	for key, id := range ids {
		s.Sessions.Put(ctx, key, id.String())
	}
	return nil
}

// MoveSession takes the session to another studio of the same login.
func (s *Server) MoveSession(ctx context.Context, at store.Place) {
	s.signIns.Forget(s.SignInOf(ctx))
	s.Sessions.Put(ctx, sessionStudio, at.Studio.String())
	s.Sessions.Put(ctx, sessionAccount, at.Account.String())
}

// SignInOf is the request's sign-in, zero where there is none.
func (s *Server) SignInOf(ctx context.Context) uuid.UUID {
	id, _ := uuid.Parse(s.Sessions.GetString(ctx, sessionSignIn))
	return id
}

// LoginOf is whose session the request's is, zero where it is nobody's.
func (s *Server) LoginOf(ctx context.Context) uuid.UUID {
	id, _ := uuid.Parse(s.Sessions.GetString(ctx, sessionLogin))
	return id
}

// ForgetMe lets what is remembered of the request's sign-in be read anew.
func (s *Server) ForgetMe(ctx context.Context) { s.signIns.Forget(s.SignInOf(ctx)) }

// SignedIn returns the account of the request's session.
func (s *Server) SignedIn(ctx context.Context) (store.Account, error) {
	notSignedIn := Problem(http.StatusUnauthorized, "not signed in, or no longer")
	ids := map[string]uuid.UUID{}
	for _, key := range []string{sessionSignIn, sessionLogin, sessionStudio, sessionAccount} {
		id, err := uuid.Parse(s.Sessions.GetString(ctx, key))
		if err != nil {
			return store.Account{}, notSignedIn
		}
		ids[key] = id
	}
	h, err := s.signIns.Of(ctx, ids[sessionSignIn], func(ctx context.Context) (h here, err error) {
		h.account, h.at, err = s.Store.SignedIn(
			ctx, ids[sessionStudio], ids[sessionLogin], ids[sessionAccount], ids[sessionSignIn], s.Now(), notedEvery,
		)
		return h, err
	})
	switch now := s.Now(); {
	case err == store.ErrNotFound:
		return h.account, notSignedIn
	case err != nil:
		return h.account, err
	case h.account.Disabled != nil:
		return h.account, Problem(
			http.StatusUnauthorized,
			"this account is disabled here; an owner of the studio can let you in again",
		)
	case h.at.Ended != nil, now.Sub(h.at.Seen) > secret.IdleOf(h.at.OwnDevice)+notedEvery, now.Sub(h.at.Made) > secret.Longest,
		h.account.ID != ids[sessionAccount], h.account.Login != ids[sessionLogin]:
		return h.account, notSignedIn
	}
	return h.account, nil
}

// NoteSecurity keeps what concerns a studio's safety; see request.NoteSecurity.
func (s *Server) NoteSecurity(ctx context.Context, studio uuid.UUID, e store.SecurityEvent) {
	request.NoteSecurity(ctx, s.Store, s.Now(), studio, e)
}

// NoteRead notes that somebody opened something of a client.
func (s *Server) NoteRead(ctx context.Context, client uuid.UUID, what string) {
	s.trail.Note(ctx, s.Store, AccountOf(ctx), client, s.Day(ctx), what)
}
