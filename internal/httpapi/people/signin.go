package people

import (
	"context"
	"fmt"
	"math"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"musculus/internal/core/day"
	"musculus/internal/core/secret"
	"musculus/internal/core/text"
	"musculus/internal/httpapi/op"
	"musculus/internal/httpapi/request"
	"musculus/internal/store"
)

// Me is who is signed in.
type Me struct {
	ID      uuid.UUID    `json:"id"`
	Name    string       `json:"name"`
	Email   string       `json:"email"`
	Role    store.Role   `json:"role"     enum:"owner,coach,assistant"`
	Studio  string       `json:"studio"`
	Studios []StudioName `json:"studios"`  // all one belongs to
	MayPlan bool         `json:"may_plan"` // may change what is prescribed
	Today   string       `json:"today"                                 format:"date"`
	Units   string       `json:"units"    enum:"metric,imperial"`
	Dates   string       `json:"dates"    enum:"day_first,month_first"`
	Factor  bool         `json:"factor"`  // a second factor is asked for
	Lacks   bool         `json:"lacks"`   // the studio asks for one, and there is none yet
	Letters bool         `json:"letters"` // letters can be sent from here
}

// StudioName is a studio one belongs to.
type StudioName struct {
	ID   uuid.UUID `json:"id"`
	Name string    `json:"name"`
	Here bool      `json:"here"`
}

type meOutput struct{ Body Me }

type signInInput struct {
	Body struct {
		Email     string    `json:"email" maxLength:"200"`
		Password  string    `json:"password" maxLength:"1000"`
		Code      string    `json:"code,omitempty" maxLength:"40" doc:"of the second factor, or a recovery code"`
		Studio    uuid.UUID `json:"studio,omitempty" doc:"which of several"`
		OwnDevice bool      `json:"own_device,omitempty" doc:"stay signed in for thirty days"`
	}
}

type signedInOutput struct {
	SetCookie http.Cookie `header:"Set-Cookie"`
	Body      Me
}

func (s *place) registerSignIn(api huma.API) {
	huma.Register(api, op.Operation("sign-in", op.Anybody, http.MethodPost, "/sign-in", "Sign in"), s.signIn)
	huma.Register(api, op.Operation("sign-out", op.Anybody, http.MethodPost, "/sign-out", "Sign out"), s.signOut)
	huma.Register(api, op.Operation("me", op.Everybody, http.MethodGet, "/me", "Who is signed in", op.First()), s.me)
}

// signIn lets somebody in who has the password, and the second factor where there is
// one. What it answers, and how long it takes, is the same whether the address is known.
func (s *place) signIn(ctx context.Context, in *signInInput) (*signedInOutput, error) {
	login, err := s.Store.LoginOf(ctx, in.Body.Email)
	if err != nil {
		return nil, op.ProblemOf(err)
	}
	if err := s.mayTry(ctx, login, in.Body.Email, in.Body.Password); err != nil {
		return nil, err
	}
	var at store.Place
	err = s.Store.InLogin(ctx, login.ID, func(tx *store.LoginTx) error {
		if login.Factor {
			if err := s.factor(ctx, tx, login, in.Body.Code); err != nil {
				return err
			}
		}
		places, err := tx.Places(ctx)
		if err != nil {
			return err
		}
		at, err = choose(places, in.Body.Studio)
		return err
	})
	if err != nil {
		return nil, op.ProblemOf(err)
	}
	hash := ""
	if login.Outdated() {
		hash = store.HashPassword(in.Body.Password)
	}
	return s.begin(ctx, login, at, in.Body.OwnDevice, func(tx *store.LoginTx) error {
		if hash == "" {
			return nil
		}
		return tx.SetPassword(ctx, hash)
	})
}

// mayTry checks a password at the doors it comes to: an account's, or that of a browser
// that has signed in to it before, and an address of the network.
func (s *place) mayTry(ctx context.Context, login store.Login, email, password string) error {
	known := false
	err := s.Store.InLogin(
		ctx,
		login.ID,
		func(tx *store.LoginTx) (err error) { // asked in vain for nobody, so that it takes as long
			known, err = tx.IsKnownDevice(ctx, request.DeviceOf(ctx))
			return err
		},
	)
	if err != nil {
		return op.ProblemOf(err)
	}
	door := store.Guess{Door: secret.Account, What: text.Address(email)}
	if known {
		door = store.Guess{Door: secret.Device, What: request.DeviceOf(ctx)}
	}
	doors := []store.Guess{door, {Door: secret.Address, What: request.AddressOf(ctx)}}
	wait, err := s.Store.Try(ctx, s.Now(), doors...)
	if err != nil {
		return op.ProblemOf(err)
	}
	if wait > 0 {
		return tooSoon(wait)
	}
	if !login.Is(password) {
		s.noteOfLogin(ctx, login.ID, "failed to sign in")
		return op.Problem(http.StatusUnauthorized, "no account has this address and password")
	}
	return op.ProblemIf(s.Store.Passed(ctx, doors...))
}

func tooSoon(wait time.Duration) error {
	return op.Problem(
		http.StatusTooManyRequests,
		fmt.Sprintf("too many attempts: the next one counts in %d s", int(math.Ceil(wait.Seconds()))),
	)
}

// noteOfLogin tells every studio of a login what concerns it, after the answer.
func (s *place) noteOfLogin(ctx context.Context, login uuid.UUID, what string) {
	if login == uuid.Nil {
		s.NoteSecurity(ctx, uuid.Nil, store.SecurityEvent{What: what})
		return
	}
	ctx = context.WithoutCancel(ctx)
	go func() {
		var places []store.Place
		if s.Store.InLogin(ctx, login, func(tx *store.LoginTx) (err error) {
			places, err = tx.Places(ctx)
			return err
		}) != nil {
			return
		}
		for _, p := range places {
			s.NoteSecurity(ctx, p.Studio, store.SecurityEvent{Account: &p.Account, What: what})
		}
	}()
}

// choose is the studio that is signed in to; of several one is chosen.
func choose(places []store.Place, studio uuid.UUID) (store.Place, error) {
	var options []op.AskOption
	for _, p := range places {
		if p.Studio == studio || len(places) == 1 && studio == uuid.Nil {
			return p, nil
		}
		options = append(options, op.AskOption{Value: p.Studio.String(), Words: p.Name})
	}
	if len(places) == 0 || studio != uuid.Nil {
		return store.Place{}, op.Problem(
			http.StatusForbidden,
			"this account is disabled here; an owner of the studio can let you in again",
		)
	}
	return store.Place{}, op.AskFor(http.StatusUnauthorized, "studio", "Which studio?", op.NeedsStudio, options)
}

// begin signs a login in at one of its places.
func (s *place) begin(
	ctx context.Context,
	login store.Login,
	at store.Place,
	ownDevice bool,
	also func(*store.LoginTx) error,
) (*signedInOutput, error) {
	device := request.DeviceOf(ctx)
	if device == "" {
		device = store.NewToken()
	}
	id := uuid.Must(uuid.NewV7())
	err := s.Store.InLogin(ctx, login.ID, func(tx *store.LoginTx) error {
		if err := tx.AddSignIn(ctx, store.SignIn{ID: id, Agent: request.AgentOf(ctx), OwnDevice: ownDevice}, s.Now()); err != nil {
			return err
		}
		if err := tx.KnowDevice(ctx, device, s.Now()); err != nil {
			return err
		}
		return also(tx)
	})
	if err != nil {
		return nil, op.ProblemOf(err)
	}
	if err := s.BeginSession(ctx, id, login.ID, at, ownDevice); err != nil {
		return nil, op.ProblemOf(err)
	}
	s.NoteSecurity(ctx, at.Studio, store.SecurityEvent{Account: &at.Account, What: "signed in"})
	var a store.Account
	if err := s.Store.In(ctx, at.Studio, func(tx *store.Tx) (err error) {
		a, err = tx.Account(ctx, at.Account)
		return err
	}); err != nil {
		return nil, op.ProblemOf(err)
	}
	me, err := s.tellMe(ctx, a)
	if err != nil {
		return nil, err
	}
	tls := s.Sessions.Cookie.Secure
	return &signedInOutput{http.Cookie{
		Name: request.DeviceCookie(
			tls,
		), Value: device, Path: "/", MaxAge: 365 * 24 * 3600, HttpOnly: true, Secure: tls, SameSite: http.SameSiteLaxMode,
	}, me.Body}, nil
}

func (s *place) signOut(ctx context.Context, _ *struct{}) (*struct{}, error) {
	if login, id := s.LoginOf(ctx), s.SignInOf(ctx); id != uuid.Nil {
		if err := s.Store.InLogin(ctx, login, func(tx *store.LoginTx) error {
			_, err := tx.EndSignIns(ctx, &id, nil, s.Now())
			return err
		}); err != nil {
			return nil, op.ProblemOf(err)
		}
		s.ForgetMe(ctx)
	}
	return nil, op.ProblemIf(s.Sessions.Destroy(ctx))
}

func (s *place) me(ctx context.Context, _ *struct{}) (*meOutput, error) {
	return s.tellMe(ctx, op.AccountOf(ctx))
}

func (s *place) tellMe(ctx context.Context, a store.Account) (*meOutput, error) {
	out := &meOutput{Me{
		ID: a.ID, Name: a.Name, Email: a.Email, Role: a.Role, MayPlan: a.Role != store.Assistant, Units: a.Units, Dates: a.Dates,
		Factor: a.Factor, Lacks: a.Lacks, Letters: s.Post != nil, Studios: []StudioName{},
	}}
	err := s.Store.In(ctx, a.Studio, func(tx *store.Tx) error {
		studio, err := tx.Studio(ctx)
		out.Body.Studio, out.Body.Today = studio.Name, day.At(s.Now().In(studio.Location())).String()
		return err
	})
	if err != nil {
		return nil, op.ProblemOf(err)
	}
	err = s.Store.InLogin(ctx, a.Login, func(tx *store.LoginTx) error {
		places, err := tx.Places(ctx)
		for _, p := range places {
			out.Body.Studios = append(out.Body.Studios, StudioName{p.Studio, p.Name, p.Studio == a.Studio})
		}
		return err
	})
	return out, op.ProblemIf(err)
}
