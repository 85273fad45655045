package drafts

import (
	"context"

	"musculus/internal/core/draft"
	"musculus/internal/httpapi/op"
	"musculus/internal/store"
)

// DraftPrices is what lifting a limit would buy.
type DraftPrices struct {
	Prices []DraftPrice `json:"prices"`
	Reach  []string     `json:"reach"` // heads that no week within the limits fills
}

// DraftPrice is one limit.
type DraftPrice struct {
	At    string `json:"at" enum:"day,days,room,joint"`
	On    string `json:"on"` // the day it is of, empty for none
	Words string `json:"words"`
}

type pricesOutput struct{ Body DraftPrices }

func (s *place) prices(ctx context.Context, in *draftInput) (*pricesOutput, error) {
	on, err := s.DayIn(ctx, in.Of)
	if err != nil {
		return nil, err
	}
	from := on.Monday()
	return op.Showing(ctx, s.Server, func(tx *store.Tx, a *asking) error {
		return s.read(ctx, tx, in.Client, from, &in.Body, a)
	}, func(a *asking) (*pricesOutput, error) {
		out := &pricesOutput{DraftPrices{[]DraftPrice{}, []string{}}}
		if err := s.build(ctx, a); err != nil || draft.Empty(a.dated.Problem) != "" {
			return out, err
		}
		three := s.compose(ctx, a)
		for _, p := range a.dated.Prices(a.pool, &three[0].Week, stopped(ctx)) {
			v := DraftPrice{At: p.At, Words: p.Words}
			if p.Day >= 0 {
				v.On = a.dated.On[p.Day].String()
			}
			out.Body.Prices = append(out.Body.Prices, v)
		}
		for _, r := range a.dated.OutOfReach(&three[0].Week, stopped(ctx)) {
			out.Body.Reach = append(out.Body.Reach, r.Words)
		}
		return out, unlessGone(ctx.Err())
	})
}
