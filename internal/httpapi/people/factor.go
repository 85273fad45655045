package people

import (
	"bytes"
	"context"
	"encoding/base64"
	"image/png"
	"net/http"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/pquerna/otp"
	"github.com/pquerna/otp/hotp"
	"github.com/pquerna/otp/totp"

	"musculus/internal/core/secret"
	"musculus/internal/httpapi/op"
	"musculus/internal/store"
)

// The second factor: six digits that change every half minute (RFC 6238), one step
// early or late, and ten codes for when the device is lost.
const (
	stepSeconds   = 30
	recoveryCodes = 10
)

func (s *place) registerFactor(api huma.API) {
	huma.Register(
		api,
		op.Operation("begin-factor", op.Everybody, http.MethodPost, "/me/factor", "Begin a second factor", op.First()),
		s.beginFactor,
	)
	huma.Register(
		api,
		op.Operation(
			"confirm-factor",
			op.Everybody,
			http.MethodPut,
			"/me/factor",
			"Ask for a second factor from now on",
			op.First(),
		),
		s.confirmFactor,
	)
	huma.Register(
		api,
		op.Operation(
			"drop-factor",
			op.Everybody,
			http.MethodDelete,
			"/me/factor",
			"Ask for no second factor any more",
			op.First(),
		),
		s.dropFactor,
	)
}

// factor checks a code of the second factor; a code of a recovery opens once.
func (s *place) factor(ctx context.Context, tx *store.LoginTx, login store.Login, code string) error {
	question := "The six digits of the authenticator, or a recovery code"
	if strings.TrimSpace(code) == "" {
		return op.AskFor(http.StatusUnauthorized, "code", question, op.NeedsCode, nil)
	}
	door := store.Guess{Door: secret.Account, What: "factor " + login.ID.String()}
	wait, err := s.Store.Try(ctx, s.Now(), door)
	if err != nil {
		return err
	}
	if wait > 0 {
		return tooSoon(wait)
	}
	ok, err := s.isCode(ctx, tx, login.Secret, code)
	if err == nil && !ok {
		if ok, err = tx.UseRecoveryCode(ctx, code); ok {
			s.noteOfLogin(ctx, login.ID, "used a recovery code")
		}
	}
	if err != nil {
		return err
	}
	if !ok {
		s.noteOfLogin(ctx, login.ID, "failed at the second factor")
		return op.AskFor(http.StatusUnauthorized, "code", "That code does not fit, or was used. "+question, op.NeedsCode, nil)
	}
	return s.Store.Passed(ctx, door)
}

// isCode says whether a code is one of now, used for the first time.
func (s *place) isCode(ctx context.Context, tx *store.LoginTx, key, code string) (bool, error) {
	code = strings.ReplaceAll(strings.TrimSpace(code), " ", "")
	now := s.Now().Unix() / stepSeconds
	for step := now - 1; step <= now+1; step++ {
		want, err := hotp.GenerateCodeCustom(
			key,
			uint64(step),
			hotp.ValidateOpts{Digits: otp.DigitsSix, Algorithm: otp.AlgorithmSHA1},
		)
		if err != nil {
			return false, err
		}
		if want == code {
			return tx.UseStep(ctx, step)
		}
	}
	return false, nil
}

type factorOutput struct {
	Body struct {
		Secret string `json:"secret" doc:"to be typed where no picture can be taken"`
		Link   string `json:"link"`
		Image  string `json:"image" doc:"the link as a picture, a data: address"`
	}
}

// beginFactor makes a secret that waits until a code of it is given.
func (s *place) beginFactor(ctx context.Context, _ *struct{}) (*factorOutput, error) {
	a := op.AccountOf(ctx)
	if a.Factor {
		return nil, op.Problem(http.StatusConflict, "there is a second factor already; take it off first")
	}
	key, err := totp.Generate(totp.GenerateOpts{Issuer: "Musculus", AccountName: a.Email, Period: stepSeconds})
	if err != nil {
		return nil, op.ProblemOf(err)
	}
	out := &factorOutput{}
	out.Body.Secret, out.Body.Link = key.Secret(), key.URL()
	img, err := key.Image(220, 220)
	if err != nil {
		return nil, op.ProblemOf(err)
	}
	var b bytes.Buffer
	if err := png.Encode(&b, img); err != nil {
		return nil, op.ProblemOf(err)
	}
	out.Body.Image = "data:image/png;base64," + base64.StdEncoding.EncodeToString(b.Bytes())
	return out, op.ProblemIf(
		s.Store.InLogin(ctx, a.Login, func(tx *store.LoginTx) error { return tx.SetFactor(ctx, key.Secret(), false) }),
	)
}

type codesOutput struct {
	Body struct {
		Codes []string `json:"codes" doc:"each opens once; shown this once"`
	}
}

type confirmFactorInput struct {
	Body struct {
		Code string `json:"code" maxLength:"40"`
	}
}

func (s *place) confirmFactor(ctx context.Context, in *confirmFactorInput) (*codesOutput, error) {
	a := op.AccountOf(ctx)
	out := &codesOutput{}
	err := s.Store.InLogin(ctx, a.Login, func(tx *store.LoginTx) error {
		login, err := tx.Login(ctx)
		if err != nil {
			return err
		}
		if login.Secret == "" || login.Factor {
			return op.Problem(http.StatusConflict, "there is none that waits to be confirmed")
		}
		ok, err := s.isCode(ctx, tx, login.Secret, in.Body.Code)
		if err != nil {
			return err
		}
		if !ok {
			return op.Problem(http.StatusUnprocessableEntity, "that code does not fit: is the clock of the device right?",
				&huma.ErrorDetail{Location: "body.code", Message: "that code does not fit: is the clock of the device right?"})
		}
		if err := tx.SetFactor(ctx, login.Secret, true); err != nil {
			return err
		}
		out.Body.Codes, err = tx.RecoveryCodes(ctx, recoveryCodes)
		return err
	})
	s.ForgetMe(ctx)
	if err == nil {
		s.NoteSecurity(ctx, a.Studio, store.SecurityEvent{Account: &a.ID, What: "set up a second factor"})
	}
	return out, op.ProblemIf(err)
}

type dropFactorInput struct {
	Body struct {
		Password string `json:"password" maxLength:"1000"`
	}
}

func (s *place) dropFactor(ctx context.Context, in *dropFactorInput) (*struct{}, error) {
	a := op.AccountOf(ctx)
	if err := s.isMyPassword(ctx, a, in.Body.Password, "body.password"); err != nil {
		return nil, err
	}
	err := s.Store.InLogin(ctx, a.Login, func(tx *store.LoginTx) error { return tx.SetFactor(ctx, "", false) })
	s.ForgetMe(ctx)
	if err == nil {
		s.NoteSecurity(ctx, a.Studio, store.SecurityEvent{Account: &a.ID, What: "took the second factor off"})
	}
	return nil, op.ProblemIf(err)
}

// hereWords says when somebody was here last, roughly.
func hereWords(at, now time.Time) string {
	if at.Unix() <= 0 {
		return "has not been here yet"
	}
	return "last here " + sinceWords(at, now)
}

// sinceWords says how long ago something was, roughly.
func sinceWords(at, now time.Time) string {
	switch d := now.Sub(at); {
	case d < 10*time.Minute:
		return "just now"
	case d < time.Hour:
		return "within the hour"
	case d < 24*time.Hour:
		return "within a day"
	}
	return at.Format("2 January 2006")
}
