package drafts

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"musculus/internal/core/draft"
	"musculus/internal/formats"
	"musculus/internal/httpapi/op"
	"musculus/internal/store"
)

// PatternView is what a draft may start from.
type PatternView struct {
	ID   string `json:"id"`
	Name string `json:"name"`
	Says string `json:"says"`
	Own  bool   `json:"own"` // a week that the studio keeps
}

type patternsOutput struct {
	Body struct {
		Patterns []PatternView `json:"patterns"`
	}
}

// patterns lists the shipped ones and the weeks the studio keeps.
func (s *place) patterns(ctx context.Context, _ *struct{}) (*patternsOutput, error) {
	out := &patternsOutput{}
	out.Body.Patterns = []PatternView{}
	for i := range draft.Patterns {
		p := &draft.Patterns[i]
		out.Body.Patterns = append(out.Body.Patterns, PatternView{p.ID, p.Name, p.Says, false})
	}
	return out, s.InStudio(ctx, func(tx *store.Tx, _ store.Account) error {
		list, err := tx.Templates(ctx)
		for _, x := range list {
			says := "As in the kept week: "
			for i, session := range formats.ReadPlanJSON(x.Plan).Plan.Sessions {
				if i > 0 {
					says += ", "
				}
				says += session.Name
			}
			out.Body.Patterns = append(out.Body.Patterns, PatternView{x.ID.String(), x.Name, says + ".", true})
		}
		return err
	})
}

// NextView are the clients without a session in a week.
type NextView struct {
	From    string       `json:"from" format:"date"`
	To      string       `json:"to" format:"date"`
	Clients []NextClient `json:"clients"`
	Planned int          `json:"planned"` // so many have one
}

// NextClient is one of them.
type NextClient struct {
	ID      uuid.UUID `json:"id"`
	Name    string    `json:"name"`
	Blocked string    `json:"blocked"` // why she may not train, empty if she may
}

type nextInput struct {
	Of string `query:"of" doc:"a day of the week; absent: next week"`
}

type nextOutput struct{ Body NextView }

func (s *place) registerNext(api huma.API) {
	huma.Register(api, op.Operation("unplanned", op.Everybody, http.MethodGet, "/unplanned", "Who has no session in a week"), s.next)
}

func (s *place) next(ctx context.Context, in *nextInput) (*nextOutput, error) {
	on, err := s.DayIn(ctx, in.Of)
	if err != nil {
		return nil, err
	}
	from := on.Monday()
	if in.Of == "" {
		from += 7
	}
	out := &nextOutput{NextView{From: from.String(), To: (from + 6).String(), Clients: []NextClient{}}}
	return out, s.InStudio(ctx, func(tx *store.Tx, _ store.Account) error {
		planned, err := tx.PlannedIn(ctx, from, from+6)
		if err != nil {
			return err
		}
		all, err := tx.Clients(ctx)
		if err != nil {
			return err
		}
		for i := range all {
			c := &all[i]
			if planned[c.ID] {
				out.Body.Planned++
				continue
			}
			out.Body.Clients = append(out.Body.Clients, NextClient{c.ID, c.Dossier.Name, s.Blocked(c)})
		}
		return nil
	})
}
