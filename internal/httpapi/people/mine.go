package people

import (
	"context"
	"net/http"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"musculus/internal/core/secret"
	"musculus/internal/core/text"
	"musculus/internal/httpapi/op"
	"musculus/internal/httpapi/request"
	"musculus/internal/store"
)

func (s *place) registerMine(api huma.API) {
	mine := func(id, method, path, summary string) huma.Operation {
		return op.Operation(id, op.Everybody, method, path, summary, op.First())
	}
	huma.Register(api, mine("set-me", http.MethodPut, "/me", "One's own name and units"), s.setMe)
	huma.Register(
		api,
		mine("set-password", http.MethodPut, "/me/password", "Another password; every other sign-in ends"),
		s.setPassword,
	)
	huma.Register(api, mine("sign-ins", http.MethodGet, "/me/sign-ins", "Where one is signed in"), s.signIns)
	huma.Register(api, mine("end-sign-in", http.MethodDelete, "/me/sign-ins/{sign_in}", "End one sign-in"), s.endSignIn)
	huma.Register(api, mine("end-sign-ins", http.MethodDelete, "/me/sign-ins", "End every other sign-in"), s.endSignIns)
	huma.Register(api, mine("move-to-studio", http.MethodPost, "/me/studio", "Go to another of one's studios"), s.moveTo)
}

type setMeInput struct {
	Body struct {
		Name  string `json:"name" maxLength:"200"`
		Units string `json:"units" enum:"metric,imperial"`
		Dates string `json:"dates" enum:"day_first,month_first"`
	}
}

func (s *place) setMe(ctx context.Context, in *setMeInput) (*meOutput, error) {
	a := op.AccountOf(ctx)
	name, err := nameOf(in.Body.Name, "body.name")
	if err != nil {
		return nil, err
	}
	if err := s.Store.In(ctx, a.Studio, func(tx *store.Tx) error { return tx.Rename(ctx, a.ID, name) }); err != nil {
		return nil, op.ProblemOf(err)
	}
	err = s.Store.InLogin(ctx, a.Login, func(tx *store.LoginTx) error { return tx.SetReading(ctx, in.Body.Units, in.Body.Dates) })
	if err != nil {
		return nil, op.ProblemOf(err)
	}
	s.ForgetMe(ctx)
	a.Name, a.Units, a.Dates = name, in.Body.Units, in.Body.Dates
	return s.tellMe(ctx, a)
}

// Names are as short as a line.
const mostName = 80

// nameOf reads a name: one line of some letters, whatever their alphabet and direction.
func nameOf(typed, location string) (string, error) {
	name := strings.TrimSpace(typed)
	why := ""
	switch {
	case name == "":
		why = "a name, please"
	case len([]rune(name)) > mostName:
		why = "at most 80 characters"
	default:
		why = text.Fault(name, true)
	}
	if why != "" {
		return "", op.Problem(http.StatusUnprocessableEntity, why, &huma.ErrorDetail{Location: location, Message: why})
	}
	return name, nil
}

type setPasswordInput struct {
	Body struct {
		Old string `json:"old" maxLength:"1000"`
		New string `json:"new" maxLength:"1000"`
	}
}

// isMyPassword checks one's own, at the door of the account.
func (s *place) isMyPassword(ctx context.Context, a store.Account, password, location string) error {
	login, err := s.Store.LoginOf(ctx, a.Email)
	if err != nil {
		return op.ProblemOf(err)
	}
	err = s.mayTry(ctx, login, a.Email, password)
	if p, ok := err.(interface{ GetStatus() int }); ok &&
		p.GetStatus() == http.StatusUnauthorized { // one is signed in all the same
		return op.Problem(http.StatusUnprocessableEntity, "that is not your password",
			&huma.ErrorDetail{Location: location, Message: "that is not your password"})
	}
	return err
}

// passwordFault says at its field what is wrong with a new password.
func passwordFault(password, location string, about ...string) error {
	if why := secret.Check(password, about...); why != "" {
		return op.Problem(http.StatusUnprocessableEntity, why, &huma.ErrorDetail{Location: location, Message: why})
	}
	return nil
}

func (s *place) setPassword(ctx context.Context, in *setPasswordInput) (*struct{}, error) {
	a := op.AccountOf(ctx)
	if err := passwordFault(in.Body.New, "body.new", a.Email, a.Name); err != nil {
		return nil, err
	}
	if err := s.isMyPassword(ctx, a, in.Body.Old, "body.old"); err != nil {
		return nil, err
	}
	here := s.SignInOf(ctx)
	hash := store.HashPassword(in.Body.New) // not while a transaction is open
	err := s.Store.InLogin(ctx, a.Login, func(tx *store.LoginTx) error { return s.renew(ctx, tx, hash, &here) })
	if err == nil {
		s.noteOfLogin(ctx, a.Login, "changed the password")
	}
	return nil, op.ProblemIf(err)
}

// renew sets a new password and ends what was begun with the old one, but for one sign-in.
func (s *place) renew(ctx context.Context, tx *store.LoginTx, hash string, but *uuid.UUID) error {
	if err := tx.SetPassword(ctx, hash); err != nil {
		return err
	}
	_, err := tx.EndSignIns(ctx, nil, but, s.Now())
	return err
}

// SignInView is one place somebody is signed in at.
type SignInView struct {
	ID        uuid.UUID `json:"id"`
	Agent     string    `json:"agent"`
	OwnDevice bool      `json:"own_device"`
	Since     time.Time `json:"since"`
	Seen      string    `json:"seen"`
	Here      bool      `json:"here"`
}

type signInsOutput struct {
	Body struct {
		SignIns []SignInView `json:"sign_ins"`
		Codes   int64        `json:"codes" doc:"recovery codes that are left"`
	}
}

func (s *place) signIns(ctx context.Context, _ *struct{}) (*signInsOutput, error) {
	a, here := op.AccountOf(ctx), s.SignInOf(ctx)
	out := &signInsOutput{}
	out.Body.SignIns = []SignInView{}
	err := s.Store.InLogin(ctx, a.Login, func(tx *store.LoginTx) error {
		list, err := tx.SignIns(ctx)
		if err != nil {
			return err
		}
		for _, in := range list {
			if s.Now().Sub(in.Seen) > secret.IdleOf(in.OwnDevice) { // over by itself
				continue
			}
			out.Body.SignIns = append(
				out.Body.SignIns,
				SignInView{in.ID, in.Agent, in.OwnDevice, in.Made, sinceWords(in.Seen, s.Now()), in.ID == here},
			)
		}
		out.Body.Codes, err = tx.CodesLeft(ctx)
		return err
	})
	return out, op.ProblemIf(err)
}

type endSignInInput struct {
	SignIn uuid.UUID `path:"sign_in"`
}

func (s *place) endSignIn(ctx context.Context, in *endSignInInput) (*struct{}, error) {
	a := op.AccountOf(ctx)
	return nil, op.ProblemIf(s.Store.InLogin(ctx, a.Login, func(tx *store.LoginTx) error {
		n, err := tx.EndSignIns(ctx, &in.SignIn, nil, s.Now())
		if err == nil && n == 0 {
			return store.ErrNotFound
		}
		return err
	}))
}

func (s *place) endSignIns(ctx context.Context, _ *struct{}) (*struct{}, error) {
	a, here := op.AccountOf(ctx), s.SignInOf(ctx)
	return nil, op.ProblemIf(s.Store.InLogin(ctx, a.Login, func(tx *store.LoginTx) error {
		if err := tx.ForgetDevices(ctx); err != nil {
			return err
		}
		if err := tx.KnowDevice(ctx, request.DeviceOf(ctx), s.Now()); err != nil {
			return err
		}
		_, err := tx.EndSignIns(ctx, nil, &here, s.Now())
		return err
	}))
}

type moveToInput struct {
	Body struct {
		Studio uuid.UUID `json:"studio"`
	}
}

func (s *place) moveTo(ctx context.Context, in *moveToInput) (*meOutput, error) {
	a := op.AccountOf(ctx)
	var places []store.Place
	if err := s.Store.InLogin(ctx, a.Login, func(tx *store.LoginTx) (err error) {
		places, err = tx.Places(ctx)
		return err
	}); err != nil {
		return nil, op.ProblemOf(err)
	}
	for _, p := range places {
		if p.Studio != in.Body.Studio {
			continue
		}
		s.MoveSession(ctx, p)
		var next store.Account
		if err := s.Store.In(ctx, p.Studio, func(tx *store.Tx) (err error) {
			next, err = tx.Account(ctx, p.Account)
			return err
		}); err != nil {
			return nil, op.ProblemOf(err)
		}
		s.NoteSecurity(ctx, p.Studio, store.SecurityEvent{Account: &p.Account, What: "signed in", About: "from another studio"})
		return s.tellMe(ctx, next)
	}
	return nil, op.ProblemOf(store.ErrNotFound)
}
