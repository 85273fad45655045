package sheet

import (
	"context"
	"fmt"
	"net/http"

	"github.com/google/uuid"

	"musculus/internal/figure"
	"musculus/internal/httpapi/bylink"
	"musculus/internal/httpapi/op"
	"musculus/internal/store"
)

type linkInput struct {
	Client uuid.UUID `path:"client"`
	Body   struct {
		ID   uuid.UUID `json:"id"`
		Days int       `json:"days" minimum:"1" maximum:"180"`
		// MayLog: the client's own floor.
		MayLog bool `json:"may_log,omitempty" doc:"its holder may log her sets and say what hurts"`
		// Letter: to the address the client gave, with her consent.
		Letter bool `json:"letter,omitempty" doc:"send it to the client by letter instead of showing it"`
	}
}

type linkOutput struct {
	Body struct {
		Path string `json:"path"` // told once; what is kept opens nothing. Empty where a letter took it
	}
}

type linkPath struct {
	Client uuid.UUID `path:"client"`
	Link   uuid.UUID `path:"link"`
}

type openInput struct {
	Token string `path:"token" maxLength:"100"`
	Ahead bool   `query:"ahead" doc:"read before the page asks by itself: no opening"`
}

type openOutput struct {
	Body struct {
		Studio string       `json:"studio"`
		Client string       `json:"client"`
		MayLog bool         `json:"may_log"` // her sets, and what hurts
		Sheets []OpenSheet  `json:"sheets"`  // the next session first
		Right  figure.Slice `json:"right"`   // the slice's shape

	}
}

// OpenSheet is a sheet as the client opens it.
type OpenSheet struct {
	Session uuid.UUID `json:"session"`
	When    string    `json:"when"`
	Sheet   SheetView `json:"sheet"`
}

// How far around today a link shows sheets, days.
const (
	linkBack  = 7
	linkAhead = 28
	longLink  = 30 // for so many days a coach makes one
)

func (s *place) makeLink(ctx context.Context, in *linkInput) (*linkOutput, error) {
	out := &linkOutput{}
	token := store.NewToken()
	if !in.Body.Letter {
		out.Body.Path = "/s/" + token
	} else if s.Post == nil {
		return nil, op.Problem(http.StatusConflict, "no letters are sent from here: copy the link instead")
	}
	a := op.AccountOf(ctx)
	if in.Body.Days > longLink && a.Role != store.Owner {
		return nil, op.FieldProblem("body.days", "links for more than %d days are an owner’s to make", longLink)
	}
	defer s.NoteSecurity(ctx, a.Studio, store.SecurityEvent{Account: &a.ID, What: "made a link", About: in.Client.String()})
	return out, s.InClient(ctx, in.Client, func(tx *store.Tx, a store.Account, c *store.Client) error {
		if err := tx.AddLink(ctx, in.Body.ID, in.Client, token, s.Now().AddDate(0, 0, in.Body.Days), in.Body.MayLog, a.ID); err != nil ||
			!in.Body.Letter {
			return err
		}
		if why := c.Dossier.MayWrite(); why != "" {
			return op.FieldProblem("body.letter", "%s", why)
		}
		studio, err := tx.StudioName(ctx)
		if err != nil {
			return err
		}
		return s.Post.Send(
			ctx,
			tx.Raw(),
			linkLetter(c.Dossier.Letters, c.Dossier.Name, studio, s.Address+"/s/"+token, in.Body.Days),
			s.Now(),
		)
	})
}

func linkLetter(to, name, studio, link string, days int) store.Letter {
	return store.Letter{
		ID: uuid.Must(uuid.NewV7()), To: to, Subject: "Your sessions at " + studio,
		Says: fmt.Sprintf(`Hello %s,

your sessions are here, for %d days; the link opens as often as you like:
%s

It is yours: whoever has it reads them. If you do not want such letters, tell your coach.
`, name, days, link),
	}
}

func (s *place) revokeLink(ctx context.Context, in *linkPath) (*struct{}, error) {
	a := op.AccountOf(ctx)
	defer s.NoteSecurity(ctx, a.Studio, store.SecurityEvent{Account: &a.ID, What: "ended a link", About: in.Client.String()})
	return nil, s.InStudio(ctx, func(tx *store.Tx, _ store.Account) error { return tx.RevokeLink(ctx, in.Client, in.Link) })
}

// openLink shows a client's sheets to whoever has the link, and nothing else.
func (s *place) openLink(ctx context.Context, in *openInput) (*openOutput, error) {
	ctx, opened, own, err := bylink.Open(ctx, s.Server, in.Token)
	if err != nil {
		return nil, err
	}
	out := &openOutput{}
	out.Body.Sheets, out.Body.Right = []OpenSheet{}, figure.MakeSlice(false)
	today := s.Day(ctx)
	return out, op.ProblemIf(s.Store.In(ctx, opened.Studio, func(tx *store.Tx) error {
		c, err := tx.Client(ctx, opened.Client)
		if err != nil {
			return err
		}
		if out.Body.Studio, err = tx.StudioName(ctx); err != nil {
			return err
		}
		out.Body.Client, out.Body.MayLog = c.Dossier.Name, opened.MayLog
		blocked := s.Blocked(&c)
		issues, err := tx.LatestIssues(ctx, c.ID, today-linkBack, today+linkAhead)
		if err != nil {
			return err
		}
		var past []OpenSheet
		for _, i := range issues {
			v := OpenSheet{Session: i.SessionID, When: i.PlannedOn.FromToday(s.Day(ctx))}
			if v.Sheet, err = readSheet(i.Sheet, own.Catalogue); err != nil {
				return err
			}
			if blocked != "" { // a stop that came after the sheet holds for it too
				v.Sheet.Blocked, v.Sheet.Slots, v.Sheet.Caps, v.Sheet.Why = blocked, []SheetSlot{}, []string{}, []string{}
			}
			if i.PlannedOn < s.Day(ctx) {
				past = append(past, v)
			} else {
				out.Body.Sheets = append(out.Body.Sheets, v)
			}
		}
		out.Body.Sheets = append(out.Body.Sheets, past...)
		if in.Ahead {
			return nil
		}
		return tx.MarkOpened(ctx, opened.Link, s.Now())
	}))
}
