package library

import (
	"context"
	"net/http"
	"slices"
	"strings"
	"sync"

	"github.com/danielgtaylor/huma/v2"

	"musculus/internal/core/arm"
	"musculus/internal/core/dose"
	"musculus/internal/core/effort"
	"musculus/internal/core/movement"
	"musculus/internal/core/plan"
	"musculus/internal/core/stance"
	"musculus/internal/figure"
	"musculus/internal/httpapi/op"
	"musculus/internal/view"
)

// CueView is a cue the coach can pick, with what she would see.
type CueView struct {
	Fault string `json:"fault"`
	Seen  string `json:"seen"`
	View  string `json:"view" enum:"side,front,back"`
	Cue   string `json:"cue"`
}

// MovementView is one entry of the catalogue at its defaults, or a set-up that the studio kept.
type MovementView struct {
	Key      string            `json:"key"` // the movement's id, or that of a kept set-up
	ID       string            `json:"id"`
	Name     string            `json:"name"`
	Settings movement.Settings `json:"settings"` // turned, where it is a kept set-up
	Own      bool              `json:"own"`      // the studio's own movement
	Action   string            `json:"action"`
	Family   string            `json:"family"`
	Computed bool              `json:"computed"`
	Glyph    view.Glyph        `json:"glyph"`
	Cues     []CueView         `json:"cues"`
}

// Catalogue is what every screen needs once: the slices and the movements.
type Catalogue struct {
	Right     figure.Slice   `json:"right"`
	Left      figure.Slice   `json:"left"`
	Movements []MovementView `json:"movements"`
	Limits    Limits         `json:"limits"`
}

// Limits are those a form must know before it sends.
type Limits struct {
	Cues int `json:"cues"` // of a slot
	Cue  int `json:"cue"`  // characters
	Word int `json:"word"` // for the client at a row, characters
	Name int `json:"name"` // of a session, characters
	Rows int `json:"rows"` // of a slot
}

var limits = Limits{plan.MostCues, plan.LongestCue, dose.LongestWord, plan.MostName, plan.MostRows}

type catalogueOutput struct{ Body *Catalogue }

func (s *place) registerCatalogue(api huma.API) {
	huma.Register(api, op.Operation("catalogue", op.Everybody, http.MethodGet, "/catalogue", "Slices and movements"),
		func(ctx context.Context, _ *struct{}) (*catalogueOutput, error) {
			shipped, err := shippedCatalogue()
			if err != nil {
				return nil, op.ProblemOf(err)
			}
			out := *shipped
			own := op.OwnOf(ctx)
			y, err := s.Yardstick(arm.DefaultBody)
			if err != nil {
				return nil, op.ProblemOf(err)
			}
			for _, m := range own.Catalogue.Movements[len(movement.Shipped.Movements):] {
				out.Movements = append(slices.Clip(out.Movements), viewMovement(m, m.Default(), y))
			}
			for _, k := range own.SetUps {
				if set, err := k.SetUp(own.Catalogue); err == nil {
					v := viewMovement(set.Movement, set, y)
					v.Key, v.Name, v.Settings = k.ID.String(), k.Name, set.Turned()
					out.Movements = append(slices.Clip(out.Movements), v)
				}
			}
			return &catalogueOutput{&out}, nil
		})
}

// viewMovement views a movement by one of its set-ups.
func viewMovement(m *movement.Movement, set movement.SetUp, y *effort.Yardstick) MovementView {
	v := MovementView{
		Key:      m.ID,
		ID:       m.ID,
		Name:     set.Title(),
		Settings: movement.Settings{},
		Action:   string(m.Action),
		Family:   m.Family.Label,
		Computed: m.Computed(),
		Own:      strings.HasPrefix(m.ID, movement.OwnPrefix),
		Cues:     []CueView{},
	}
	var p *effort.Profile
	if m.Computed() {
		p, _ = set.Profile(y) // an unreachable one has a glyph without a ribbon
	}
	reading := stance.Shipped.Read(stance.ByID(stance.Default), set, p)
	v.Glyph = view.GlyphOf(set, p, &reading)
	for _, f := range m.FaultsOf() {
		v.Cues = append(v.Cues, CueView{f.ID, f.Seen, f.View, f.Cue})
	}
	return v
}

// shippedCatalogue is computed once: it is the same for every studio.
var shippedCatalogue = sync.OnceValues(func() (*Catalogue, error) {
	y, err := effort.NewYardstick(arm.DefaultBody)
	if err != nil {
		return nil, err
	}
	out := &Catalogue{Right: figure.MakeSlice(false), Left: figure.MakeSlice(true), Movements: []MovementView{},
		Limits: limits}
	for _, m := range movement.Shipped.Movements {
		out.Movements = append(out.Movements, viewMovement(m, m.Default(), y))
	}
	return out, nil
})
