package people

import (
	"bytes"
	"context"
	"encoding/json"
	"io"
	"net"
	"net/http"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/danielgtaylor/huma/v2/adapters/humachi"
	"github.com/go-chi/httprate"
	"github.com/google/uuid"

	"musculus/internal/core/day"
	"musculus/internal/httpapi/op"
	"musculus/internal/store"
)

// Me is who is signed in.
type Me struct {
	ID      uuid.UUID  `json:"id"`
	Name    string     `json:"name"`
	Role    store.Role `json:"role" enum:"owner,coach,assistant"`
	Studio  string     `json:"studio"`
	MayPlan bool       `json:"may_plan"` // may change what is prescribed
	Today   string     `json:"today" format:"date"`
}

type meOutput struct{ Body Me }

type signInInput struct {
	Body struct {
		Email    string `json:"email" maxLength:"200"`
		Password string `json:"password" maxLength:"200"`
	}
}

func (s *place) registerSignIn(api huma.API) {
	signIn := op.Operation("sign-in", op.Anybody, http.MethodPost, "/sign-in", "Sign in")
	signIn.Middlewares = huma.Middlewares{throttled()}
	huma.Register(api, signIn, s.signIn)
	huma.Register(api, op.Operation("sign-out", op.Anybody, http.MethodPost, "/sign-out", "Sign out"), s.signOut)
	huma.Register(api, op.Operation("me", op.Everybody, http.MethodGet, "/me", "Who is signed in"), s.me)
}

func (s *place) signIn(ctx context.Context, in *signInInput) (*meOutput, error) {
	a, err := s.Store.SignIn(ctx, in.Body.Email, in.Body.Password)
	if err == store.ErrNotFound {
		return nil, op.Problem(http.StatusUnauthorized, "no account has this address and password")
	}
	if err != nil {
		return nil, op.ProblemOf(err)
	}
	if err := s.Sessions.RenewToken(ctx); err != nil { // no session fixed beforehand
		return nil, op.ProblemOf(err)
	}
	s.Sessions.Put(ctx, op.SessionAccount, a.ID.String())
	s.Sessions.Put(ctx, op.SessionStudio, a.Studio.String())
	return s.tellMe(ctx, a)
}

func (s *place) signOut(ctx context.Context, _ *struct{}) (*struct{}, error) {
	return nil, op.ProblemIf(s.Sessions.Destroy(ctx))
}

func (s *place) me(ctx context.Context, _ *struct{}) (*meOutput, error) {
	return s.tellMe(ctx, op.AccountOf(ctx))
}

func (s *place) tellMe(ctx context.Context, a store.Account) (*meOutput, error) {
	out := &meOutput{Me{ID: a.ID, Name: a.Name, Role: a.Role, MayPlan: a.Role != store.Assistant}}
	err := s.Store.In(ctx, a.Studio, func(tx *store.Tx) error {
		studio, err := tx.Studio(ctx)
		out.Body.Studio, out.Body.Today = studio.Name, day.At(s.Now().In(studio.Location())).String()
		return err
	})
	return out, op.ProblemIf(err)
}

// Sign-in attempts in a window of one minute, by place and by account.
const (
	attemptsPerIP      = 60
	attemptsPerAccount = 10
)

// throttled slows guessing down: by address and by account asked for.
func throttled() func(huma.Context, func(huma.Context)) {
	tooMany := httprate.WithLimitHandler(func(w http.ResponseWriter, _ *http.Request) {
		op.WriteProblem(w, op.Problem(http.StatusTooManyRequests, "too many attempts; wait a minute and try again"))
	})
	byIP := httprate.NewRateLimiter(attemptsPerIP, time.Minute, tooMany, httprate.WithKeyFuncs(peerOf))
	byAccount := httprate.NewRateLimiter(attemptsPerAccount, time.Minute, tooMany, httprate.WithKeyFuncs(emailOf))
	return func(hc huma.Context, next func(huma.Context)) {
		r, w := humachi.Unwrap(hc)
		byIP.Handler(byAccount.Handler(http.HandlerFunc(func(http.ResponseWriter, *http.Request) { next(hc) }))).ServeHTTP(w, r)
	}
}

// peerOf is the address of whoever opened the connection; behind a proxy all
// share one, so the limit by account is the tighter one.
func peerOf(r *http.Request) (string, error) {
	host, _, err := net.SplitHostPort(r.RemoteAddr)
	return httprate.CanonicalizeIP(host), err
}

// emailOf reads the account asked for out of the body and puts the body back.
func emailOf(r *http.Request) (string, error) {
	b, err := io.ReadAll(io.LimitReader(r.Body, op.MostBody))
	r.Body = struct {
		io.Reader
		io.Closer
	}{io.MultiReader(bytes.NewReader(b), r.Body), r.Body} // what is over is refused where it is read
	if err != nil {
		return "unreadable", nil // the operation itself will tell
	}
	var body struct{ Email string }
	_ = json.Unmarshal(b, &body)
	return strings.ToLower(strings.TrimSpace(body.Email)), nil
}
