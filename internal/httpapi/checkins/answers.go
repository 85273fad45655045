package checkins

import (
	"context"
	"net/http"
	"strings"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"musculus/internal/core/day"
	"musculus/internal/httpapi/op"
	"musculus/internal/store"
)

// CheckInAnswers is what a client answered of late, the latest first.
type CheckInAnswers struct {
	Answers []CheckInAnswer `json:"answers"`
}

// CheckInAnswer is one answer.
type CheckInAnswer struct {
	ID    uuid.UUID `json:"id"`
	When  string    `json:"when"`
	Words string    `json:"words"`
	Seen  bool      `json:"seen"`
	By    string    `json:"by"`
	Reply string    `json:"reply"`
}

type answersInput struct {
	Client uuid.UUID `path:"client"`
}

type replyInput struct {
	Client  uuid.UUID `path:"client"`
	CheckIn uuid.UUID `path:"check-in"`
	Body    struct {
		Reply string `json:"reply" maxLength:"140" doc:"one line to her; empty: it is seen"`
	}
}

type answersOutput struct{ Body CheckInAnswers }

func (s *place) registerAnswers(api huma.API) {
	const path = "/clients/{client}/check-ins"
	huma.Register(api, op.Operation("check-ins", op.Everybody, http.MethodGet, path, "What she answered"), s.answers)
	huma.Register(
		api,
		op.Operation("see-check-in", op.Planners, http.MethodPost, path+"/{check-in}", "An answer is seen, with a line to her or without"),
		s.see,
	)
}

func (s *place) answers(ctx context.Context, in *answersInput) (*answersOutput, error) {
	out := &answersOutput{CheckInAnswers{[]CheckInAnswer{}}}
	return out, s.InClient(ctx, in.Client, func(tx *store.Tx, _ store.Account, c *store.Client) error {
		list, err := tx.CheckIns(ctx, in.Client)
		for i := range list {
			k := &list[i]
			when := day.At(k.At).FromToday(s.DayOf(c))
			out.Body.Answers = append(out.Body.Answers, CheckInAnswer{k.ID, when, k.Words(false), k.Seen, k.By, k.Reply})
		}
		return err
	})
}

func (s *place) see(ctx context.Context, in *replyInput) (*answersOutput, error) {
	err := s.InStudio(ctx, func(tx *store.Tx, a store.Account) error {
		return tx.SeeCheckIn(ctx, in.Client, in.CheckIn, a.ID, strings.TrimSpace(in.Body.Reply), s.Now())
	})
	if err != nil {
		return nil, err
	}
	return s.answers(ctx, &answersInput{in.Client})
}
