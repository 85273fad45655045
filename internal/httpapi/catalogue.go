package httpapi

import (
	"context"
	"net/http"
	"sync"

	"github.com/danielgtaylor/huma/v2"

	"musculus/internal/core/arm"
	"musculus/internal/core/effort"
	"musculus/internal/core/movement"
	"musculus/internal/core/stance"
	"musculus/internal/figure"
)

// CueView is a cue the coach can pick, with what she would see.
type CueView struct {
	Fault string `json:"fault"`
	Seen  string `json:"seen"`
	View  string `json:"view" enum:"side,front,back"`
	Cue   string `json:"cue"`
}

// MovementView is one entry of the catalogue at its defaults.
type MovementView struct {
	ID       string    `json:"id"`
	Name     string    `json:"name"`
	Action   string    `json:"action"`
	Family   string    `json:"family"`
	Computed bool      `json:"computed"`
	Glyph    Glyph     `json:"glyph"`
	Cues     []CueView `json:"cues"`
}

// Catalogue is what every screen needs once: the slices and the movements.
type Catalogue struct {
	Right     figure.Slice   `json:"right"`
	Left      figure.Slice   `json:"left"`
	Movements []MovementView `json:"movements"`
	Words     []WordView     `json:"words"`
}

// WordView is a word people use, with the movements it may mean.
type WordView struct {
	Words     []string `json:"words"`
	Movements []string `json:"movements"` // ids, likeliest first
	Ask       string   `json:"ask"`       // what to ask back, empty where it is clear
}

type catalogueOutput struct{ Body *Catalogue }

func (s *server) registerCatalogue(api huma.API) {
	huma.Register(api, operation("catalogue", http.MethodGet, "/catalogue", "Slices and movements"),
		func(context.Context, *struct{}) (*catalogueOutput, error) {
			c, err := catalogue()
			return &catalogueOutput{c}, problemIf(err)
		})
}

// catalogue is computed once: it is the same for every studio.
var catalogue = sync.OnceValues(func() (*Catalogue, error) {
	y, err := effort.NewYardstick(arm.DefaultBody)
	if err != nil {
		return nil, err
	}
	out := &Catalogue{Right: figure.MakeSlice(false), Left: figure.MakeSlice(true), Movements: []MovementView{}, Words: []WordView{}}
	for _, m := range movement.Shipped.Movements {
		set := m.Default()
		v := MovementView{ID: m.ID, Name: set.Title(), Action: string(m.Action), Family: m.Family.Label, Computed: m.Computed(), Cues: []CueView{}}
		var p *effort.Profile
		if m.Computed() {
			if p, err = set.Profile(y); err != nil {
				return nil, err
			}
		}
		reading := stance.Shipped.Read(stance.ByID(stance.Default), set, p)
		v.Glyph = glyph(set, p, &reading)
		for _, f := range m.FaultsOf() {
			v.Cues = append(v.Cues, CueView{f.ID, f.Seen, f.View, f.Cue})
		}
		out.Movements = append(out.Movements, v)
	}
	for _, p := range movement.Phrases {
		w := WordView{p.Words, p.IDs, p.Ask}
		if w.Movements == nil {
			w.Movements = []string{}
		}
		out.Words = append(out.Words, w)
	}
	return out, nil
})
