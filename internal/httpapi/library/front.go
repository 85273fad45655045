package library

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"

	"musculus/internal/core/movement"
	"musculus/internal/figure"
	"musculus/internal/httpapi/op"
	"musculus/internal/view"
)

// FrontView is what whoever is not signed in sees of the product: one set-up, computed
// for an average adult.
type FrontView struct {
	Right figure.Slice   `json:"right"`
	View  view.SetUpView `json:"view"`
}

type frontOutput struct{ Body FrontView }

// frontMovement is the one: what it does to the heads reads off the picture.
const frontMovement = "curl_reclined"

func (s *place) registerFront(api huma.API) {
	huma.Register(api, op.Operation("front", op.Anybody, http.MethodGet, "/front", "One set-up, for the page one signs in at"), s.front)
}

func (s *place) front(ctx context.Context, _ *struct{}) (*frontOutput, error) {
	body, st, err := s.Wearer(ctx, nil, "")
	if err != nil {
		return nil, err
	}
	set, fault := movement.Shipped.SetUp("", frontMovement, nil)
	if fault != nil {
		return nil, op.ProblemOf(fault)
	}
	y, err := s.Yardstick(body)
	if err != nil {
		return nil, op.ProblemOf(err)
	}
	return &frontOutput{FrontView{figure.MakeSlice(false), view.SetUpOf(set, y, st, nil)}}, nil
}
