package people

import (
	"context"
	"errors"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"musculus/internal/core/text"
	"musculus/internal/httpapi/op"
	"musculus/internal/store"
)

func (s *place) registerOneTime(api huma.API) {
	open := func(id, method, path, summary string) huma.Operation {
		return op.Operation(id, op.Anybody, method, path, summary)
	}
	huma.Register(api, open("forgotten", http.MethodPost, "/forgotten", "A letter with a link to a new password"), s.forgotten)
	huma.Register(api, open("look-at-link", http.MethodGet, "/once/{token}", "What a link that opens once is for"), s.lookAt)
	huma.Register(api, open("open-link-once", http.MethodPost, "/once/{token}", "Take up an invitation, or begin a studio"), s.redeem)
	huma.Register(api, open("renew-password", http.MethodPost, "/once/{token}/password", "Set a new password"), s.renewPassword)
}

type forgottenInput struct {
	Body struct {
		Email string `json:"email" maxLength:"200"`
	}
}

// forgotten sends a link to a new password where there is somebody to send it to; what
// it answers, and when, tells nobody whether there is.
func (s *place) forgotten(ctx context.Context, in *forgottenInput) (*struct{}, error) {
	if s.Post == nil {
		return nil, op.Problem(
			http.StatusConflict,
			"no letters are sent from here: ask an owner of the studio, or whoever runs the server",
		)
	}
	if wait, err := s.Store.Try(ctx, s.Now(), forgottenDoors(ctx, in.Body.Email)...); err != nil || wait > 0 {
		if err == nil {
			err = tooSoon(wait)
		}
		return nil, op.ProblemOf(err)
	}
	later := context.WithoutCancel(ctx)
	go func() {
		ctx, cancel := context.WithTimeout(later, letterTime)
		defer cancel()
		login, err := s.Store.LoginOf(ctx, in.Body.Email)
		if err != nil || login.ID == uuid.Nil {
			return
		}
		_ = s.Store.InLogin(ctx, login.ID, func(tx *store.LoginTx) error {
			token, err := tx.NewPassword(ctx, login.Email, s.Now())
			if err != nil {
				return err
			}
			return s.Post.Send(ctx, tx.Raw(), passwordLetter(login.Email, s.Address+"/once/"+token), s.Now())
		})
		s.noteOfLogin(ctx, login.ID, "asked for a new password")
	}()
	return nil, nil
}

const letterTime = 10 * time.Second

// OnceView is what a link that opens once is for.
type OnceView struct {
	Kind   string `json:"kind"   enum:"invitation,password,first"`
	Email  string `json:"email"`
	Studio string `json:"studio"`
	Role   string `json:"role"`
	Known  bool   `json:"known"                                   doc:"somebody signs in with this address already: her own password opens it"`
}

type lookAtInput struct {
	Token string `path:"token" maxLength:"100"`
}

type onceOutput struct{ Body OnceView }

// opens is what a token opens, or why it does not.
func (s *place) opens(ctx context.Context, token string) (store.OneTime, error) {
	if wait, err := s.Store.Try(ctx, s.Now(), tokenDoor(ctx)); err != nil || wait > 0 {
		if err == nil {
			err = tooSoon(wait)
		}
		return store.OneTime{}, op.ProblemOf(err)
	}
	o, err := s.Store.OneTime(ctx, token)
	switch {
	case err == store.ErrNotFound:
		return o, op.Problem(http.StatusNotFound, "this link opens nothing; ask for a new one")
	case err != nil:
		return o, op.ProblemOf(err)
	case o.Used != nil:
		return o, op.Problem(http.StatusGone, "this link was used already; ask for a new one if it was not you")
	case !s.Now().Before(o.Expires):
		return o, op.Problem(http.StatusGone, "this link is over; ask for a new one")
	}
	return o, op.ProblemIf(s.Store.Passed(ctx, tokenDoor(ctx)))
}

func (s *place) lookAt(ctx context.Context, in *lookAtInput) (*onceOutput, error) {
	o, err := s.opens(ctx, in.Token)
	if err != nil {
		return nil, err
	}
	out := &onceOutput{OnceView{Kind: o.Kind, Email: o.Email, Role: string(o.Role)}}
	if o.Kind != store.Invitation {
		return out, nil
	}
	login, err := s.Store.LoginOf(ctx, o.Email)
	if err != nil {
		return nil, op.ProblemOf(err)
	}
	out.Body.Known = login.ID != uuid.Nil
	return out, op.ProblemIf(s.Store.In(ctx, *o.Studio, func(tx *store.Tx) (err error) {
		out.Body.Studio, err = tx.StudioName(ctx)
		return err
	}))
}

type redeemInput struct {
	Token string `path:"token" maxLength:"100"`
	Body  struct {
		Studio   string `json:"studio,omitempty" maxLength:"200" doc:"of the first owner: what the studio is called"`
		Zone     string `json:"zone,omitempty" maxLength:"60" doc:"of the first owner: in which time zone its days are counted"`
		Email    string `json:"email,omitempty" maxLength:"200" doc:"of the first owner"`
		Name     string `json:"name,omitempty" maxLength:"1000"`
		Password string `json:"password" maxLength:"1000"`
		Code     string `json:"code,omitempty" maxLength:"40" doc:"of the second factor of who signs in already"`
	}
}

// redeem opens a link once: somebody has a place in a studio, or a new password.
func (s *place) redeem(ctx context.Context, in *redeemInput) (*signedInOutput, error) {
	o, err := s.opens(ctx, in.Token)
	if err != nil {
		return nil, err
	}
	switch o.Kind {
	case store.NewPassword:
		return nil, op.Problem(http.StatusUnprocessableEntity, "this link is for a new password")
	case store.FirstOwner:
		if studios, err := s.Store.Studios(ctx); err != nil || len(studios) > 0 {
			if err == nil {
				err = op.Problem(http.StatusGone, "there is a studio here by now: its owner lets you in")
			}
			return nil, op.ProblemOf(err)
		}
		o.Email = text.Address(in.Body.Email)
		if !text.IsAddress(o.Email) {
			why := "an e-mail address, please"
			return nil, op.Problem(http.StatusUnprocessableEntity, why, &huma.ErrorDetail{Location: "body.email", Message: why})
		}
	}
	login, err := s.Store.LoginOf(ctx, o.Email)
	if err != nil {
		return nil, op.ProblemOf(err)
	}
	name, err := nameOf(in.Body.Name, "body.name")
	if err != nil {
		return nil, err
	}
	fresh, hash := login.ID == uuid.Nil, ""
	if fresh {
		if err := passwordFault(in.Body.Password, "body.password", o.Email, name); err != nil {
			return nil, err
		}
		login = store.Login{ID: uuid.Must(uuid.NewV7()), Email: o.Email}
		hash = store.HashPassword(in.Body.Password)
	} else if err := s.mayTry(ctx, login, o.Email, in.Body.Password); err != nil {
		return nil, err
	}
	at := store.Place{Account: uuid.Must(uuid.NewV7()), Studio: uuid.Must(uuid.NewV7()), Role: store.Owner}
	if o.Studio != nil {
		at.Studio, at.Role = *o.Studio, o.Role
	} else if at.Name, err = nameOf(in.Body.Studio, "body.studio"); err != nil {
		return nil, err
	}
	account := store.Account{ID: at.Account, Studio: at.Studio, Email: o.Email, Name: name, Role: at.Role, Login: login.ID}
	err = s.Store.Redeem(
		ctx,
		in.Token,
		login.ID,
		at.Studio,
		s.Now(),
		func(tx *store.Tx, mine *store.LoginTx, _ store.OneTime) error {
			if login.Factor {
				if err := s.factor(ctx, mine, login, in.Body.Code); err != nil {
					return err
				}
			}
			if o.Kind == store.FirstOwner {
				if err := s.beginStudio(ctx, tx, at, in.Body.Zone); err != nil {
					return err
				}
			}
			if fresh {
				if err := tx.AddLogin(ctx, login.ID, o.Email, hash); err != nil {
					return err
				}
			}
			return tx.AddAccount(ctx, account, "")
		},
	)
	switch {
	case err == store.ErrNotFound: // somebody else was quicker
		return nil, op.Problem(http.StatusGone, "this link was used already; ask for a new one if it was not you")
	case errors.Is(err, store.ErrAddressTaken), errors.Is(err, store.ErrTaken):
		return nil, op.Problem(http.StatusConflict, "somebody with this address was let in meanwhile: sign in instead")
	case err != nil:
		return nil, op.ProblemOf(err)
	}
	s.NoteSecurity(
		ctx,
		at.Studio,
		store.SecurityEvent{Account: &at.Account, What: "took up an invitation", About: string(at.Role)},
	)
	return s.begin(ctx, login, at, false, func(*store.LoginTx) error { return nil })
}

func (s *place) beginStudio(ctx context.Context, tx *store.Tx, at store.Place, zone string) error {
	if err := tx.AddStudio(ctx, at.Studio, at.Name); err != nil {
		return err
	}
	if zone == "" {
		return nil
	}
	if _, err := time.LoadLocation(zone); err != nil {
		why := "no time zone has this name"
		return op.Problem(http.StatusUnprocessableEntity, why, &huma.ErrorDetail{Location: "body.zone", Message: why})
	}
	return tx.SetZone(ctx, zone)
}

type renewPasswordInput struct {
	Token string `path:"token" maxLength:"100"`
	Body  struct {
		Password string `json:"password" maxLength:"1000"`
	}
}

// renewPassword sets a new password and ends whatever was begun with the old one; one
// signs in with it as always, second factor and all.
func (s *place) renewPassword(ctx context.Context, in *renewPasswordInput) (*struct{}, error) {
	o, err := s.opens(ctx, in.Token)
	if err != nil {
		return nil, err
	}
	if o.Kind != store.NewPassword {
		return nil, op.Problem(http.StatusUnprocessableEntity, "this link is for something else")
	}
	if err := passwordFault(in.Body.Password, "body.password", o.Email); err != nil {
		return nil, err
	}
	hash := store.HashPassword(in.Body.Password)
	err = s.Store.Redeem(ctx, in.Token, *o.Login, uuid.Nil, s.Now(), func(_ *store.Tx, mine *store.LoginTx, _ store.OneTime) error {
		if err := mine.ForgetDevices(ctx); err != nil {
			return err
		}
		return s.renew(ctx, mine, hash, nil)
	})
	if err == store.ErrNotFound {
		return nil, op.Problem(http.StatusGone, "this link was used already; ask for a new one if it was not you")
	}
	if err != nil {
		return nil, op.ProblemOf(err)
	}
	s.noteOfLogin(ctx, *o.Login, "set a new password by letter")
	return nil, nil
}
