package people

import (
	"context"
	"net/http"
	"time"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"musculus/internal/core/text"
	"musculus/internal/httpapi/op"
	"musculus/internal/store"
)

// PeopleView is who belongs to a studio, and who was asked to.
type PeopleView struct {
	People      []ColleagueView  `json:"people"`
	Invitations []InvitationView `json:"invitations"`
	Demanded    bool             `json:"demanded"    doc:"a second factor is asked of everybody"`
}

// ColleagueView is one of the studio's people.
type ColleagueView struct {
	ID       uuid.UUID  `json:"id"`
	Name     string     `json:"name"`
	Email    string     `json:"email"`
	Role     store.Role `json:"role"     enum:"owner,coach,assistant"`
	Seen     string     `json:"seen"`
	Disabled bool       `json:"disabled"`
	Factor   bool       `json:"factor"`
	Clients  int        `json:"clients"`
	Me       bool       `json:"me"`
}

// InvitationView is one that still opens.
type InvitationView struct {
	ID      uuid.UUID  `json:"id"`
	Email   string     `json:"email"`
	Role    store.Role `json:"role"    enum:"owner,coach,assistant"`
	Expires time.Time  `json:"expires"`
}

type peopleOutput struct{ Body PeopleView }

func (s *place) registerPeople(api huma.API) {
	owners := func(id, method, path, summary string) huma.Operation {
		return op.Operation(id, op.Owners, method, path, summary)
	}
	huma.Register(api, owners("people", http.MethodGet, "/people", "Who belongs to the studio"), s.people)
	huma.Register(api, owners("invite", http.MethodPost, "/invitations", "Ask somebody to join"), s.invite)
	huma.Register(
		api,
		owners("withdraw-invitation", http.MethodDelete, "/invitations/{invitation}", "Take an invitation back"),
		s.withdraw,
	)
	huma.Register(
		api,
		owners("set-account", http.MethodPut, "/people/{account}", "Another role; disabled, or no longer"),
		s.setAccount,
	)
	huma.Register(
		api,
		owners("hand-over", http.MethodPost, "/people/{account}/clients", "Hand all clients of one coach to another"),
		s.handOver,
	)
	huma.Register(
		api,
		owners("demand-factor", http.MethodPut, "/studio/second-factor", "Ask a second factor of everybody"),
		s.demand,
	)
	huma.Register(api, owners("security", http.MethodGet, "/studio/security", "What concerned the studio's safety"), s.security)
}

func (s *place) people(ctx context.Context, _ *struct{}) (*peopleOutput, error) {
	out := &peopleOutput{}
	return out, op.ProblemIf(
		s.InStudio(ctx, func(tx *store.Tx, a store.Account) error { return s.tellPeople(ctx, tx, a, &out.Body) }),
	)
}

func (s *place) tellPeople(ctx context.Context, tx *store.Tx, a store.Account, out *PeopleView) error {
	studio, err := tx.Studio(ctx)
	if err != nil {
		return err
	}
	list, err := tx.Colleagues(ctx)
	if err != nil {
		return err
	}
	invited, err := tx.Invitations(ctx, s.Now())
	out.Demanded, out.People, out.Invitations = studio.SecondFactor, []ColleagueView{}, []InvitationView{}
	for _, c := range list {
		out.People = append(out.People, ColleagueView{
			c.ID, c.Name, c.Email, c.Role, hereWords(c.Seen, s.Now()), c.Disabled != nil, c.Factor, c.Clients, c.ID == a.ID,
		})
	}
	for _, i := range invited {
		out.Invitations = append(out.Invitations, InvitationView{i.ID, i.Email, i.Role, i.Expires})
	}
	return err
}

type inviteInput struct {
	Body struct {
		ID     uuid.UUID  `json:"id"`
		Email  string     `json:"email" maxLength:"200"`
		Role   store.Role `json:"role" enum:"owner,coach,assistant"`
		Letter bool       `json:"letter,omitempty" doc:"send it there; otherwise the link is copied"`
	}
}

type inviteOutput struct {
	Body struct {
		Link string     `json:"link" doc:"shown this once; empty where a letter took it"`
		Now  PeopleView `json:"now"`
	}
}

func (s *place) invite(ctx context.Context, in *inviteInput) (*inviteOutput, error) {
	email := text.Address(in.Body.Email)
	if !text.IsAddress(email) {
		why := "an e-mail address, please"
		return nil, op.Problem(http.StatusUnprocessableEntity, why, &huma.ErrorDetail{Location: "body.email", Message: why})
	}
	if in.Body.Letter && s.Post == nil {
		return nil, op.Problem(http.StatusConflict, "no letters are sent from here: copy the link instead")
	}
	out := &inviteOutput{}
	err := s.InStudio(ctx, func(tx *store.Tx, a store.Account) error {
		list, err := tx.Colleagues(ctx)
		if err != nil {
			return err
		}
		for _, c := range list {
			if c.Email == email {
				why := "this address belongs to " + c.Name + ", who is in the studio already"
				return op.Problem(http.StatusConflict, why, &huma.ErrorDetail{Location: "body.email", Message: why})
			}
		}
		token, fresh, err := tx.Invite(ctx, a, in.Body.ID, email, in.Body.Role, s.Now(), !in.Body.Letter)
		if err != nil {
			return err
		}
		link := s.Address + "/once/" + token
		switch {
		case !in.Body.Letter:
			out.Body.Link = link
		case fresh: // sent again, its answer lost, the letter has left already
			studio, err := tx.StudioName(ctx)
			if err != nil {
				return err
			}
			if err := s.Post.Send(ctx, tx.Raw(), invitationLetter(email, a.Name, studio, roleWords[in.Body.Role], link), s.Now()); err != nil {
				return err
			}
		}
		return s.tellPeople(ctx, tx, a, &out.Body.Now)
	})
	if err == nil {
		a := op.AccountOf(ctx)
		s.NoteSecurity(ctx, a.Studio, store.SecurityEvent{Account: &a.ID, What: "invited", About: roleWords[in.Body.Role]})
	}
	return out, op.ProblemIf(err)
}

type withdrawInput struct {
	Invitation uuid.UUID `path:"invitation"`
}

func (s *place) withdraw(ctx context.Context, in *withdrawInput) (*peopleOutput, error) {
	out := &peopleOutput{}
	return out, op.ProblemIf(s.InStudio(ctx, func(tx *store.Tx, a store.Account) error {
		if err := tx.WithdrawInvitation(ctx, in.Invitation); err != nil {
			return err
		}
		return s.tellPeople(ctx, tx, a, &out.Body)
	}))
}

type setAccountInput struct {
	Account uuid.UUID `path:"account"`
	Body    struct {
		Role     store.Role `json:"role" enum:"owner,coach,assistant"`
		Disabled bool       `json:"disabled"`
	}
}

func (s *place) setAccount(ctx context.Context, in *setAccountInput) (*peopleOutput, error) {
	out := &peopleOutput{}
	what := "made " + roleWords[in.Body.Role]
	var disabled *time.Time
	if in.Body.Disabled {
		now := s.Now()
		disabled, what = &now, "disabled"
	}
	var about string
	err := s.InStudio(ctx, func(tx *store.Tx, a store.Account) error {
		switch err := tx.SetAccount(ctx, in.Account, in.Body.Role, disabled); {
		case err == store.ErrLastOwner:
			return op.Problem(http.StatusConflict, err.Error())
		case err != nil:
			return err
		}
		of, err := tx.Account(ctx, in.Account)
		if err != nil {
			return err
		}
		about = of.Name
		return s.tellPeople(ctx, tx, a, &out.Body)
	})
	if err == nil {
		a := op.AccountOf(ctx)
		s.NoteSecurity(ctx, a.Studio, store.SecurityEvent{Account: &a.ID, What: what, About: about})
		if in.Account == a.ID {
			s.ForgetMe(ctx)
		}
	}
	return out, op.ProblemIf(err)
}

type handOverInput struct {
	Account uuid.UUID `path:"account"`
	Body    struct {
		To uuid.UUID `json:"to"`
	}
}

func (s *place) handOver(ctx context.Context, in *handOverInput) (*peopleOutput, error) {
	out := &peopleOutput{}
	return out, op.ProblemIf(s.InStudio(ctx, func(tx *store.Tx, a store.Account) error {
		next, err := tx.Account(ctx, in.Body.To)
		if err != nil {
			return err
		}
		if next.Disabled != nil || next.Role == store.Assistant {
			return op.Problem(http.StatusUnprocessableEntity, "clients are handed to a coach or an owner who is not disabled")
		}
		if _, err := tx.HandOver(ctx, in.Account, in.Body.To); err != nil {
			return err
		}
		return s.tellPeople(ctx, tx, a, &out.Body)
	}))
}

type demandInput struct {
	Body struct {
		Demanded bool `json:"demanded"`
	}
}

func (s *place) demand(ctx context.Context, in *demandInput) (*peopleOutput, error) {
	out := &peopleOutput{}
	err := s.InStudio(ctx, func(tx *store.Tx, a store.Account) error {
		if in.Body.Demanded && !a.Factor {
			return op.Problem(http.StatusConflict, "set up your own second factor first: nobody is shut out by it then")
		}
		if err := tx.DemandSecondFactor(ctx, in.Body.Demanded); err != nil {
			return err
		}
		return s.tellPeople(ctx, tx, a, &out.Body)
	})
	return out, op.ProblemIf(err)
}

// SecurityView is something that concerned the studio's safety.
type SecurityView struct {
	At      time.Time `json:"at"`
	Who     string    `json:"who"`
	What    string    `json:"what"`
	About   string    `json:"about"`
	Address string    `json:"address"`
}

type securityOutput struct {
	Body struct {
		Events []SecurityView `json:"events"`
	}
}

// mostEvents is how many are shown.
const mostEvents = 200

func (s *place) security(ctx context.Context, _ *struct{}) (*securityOutput, error) {
	out := &securityOutput{}
	out.Body.Events = []SecurityView{}
	return out, op.ProblemIf(s.InStudio(ctx, func(tx *store.Tx, _ store.Account) error {
		list, err := tx.SecurityEvents(ctx, mostEvents)
		for _, e := range list {
			out.Body.Events = append(out.Body.Events, SecurityView{e.At, e.Name, e.What, e.About, e.Address})
		}
		return err
	}))
}
