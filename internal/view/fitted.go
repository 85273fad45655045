package view

import (
	"musculus/internal/core/effort"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/stance"
)

// Neighbour is the view one step further along the setting being turned.
type Neighbour struct {
	Value float64   `json:"value"`
	View  SetUpView `json:"view"`
}

// Fitted is a set-up and, while a setting is turned, its neighbours.
type Fitted struct {
	View       SetUpView   `json:"view"`
	Blocked    string      `json:"blocked"` // why the client may not train, empty if she may, or without one
	Neighbours []Neighbour `json:"neighbours"`
}

// FittedOf views a set-up and the next steps of the setting being turned.
func FittedOf(set movement.SetUp, y *effort.Yardstick, st *stance.Stance, fence *person.Fence, turning movement.Key) Fitted {
	out := Fitted{View: SetUpOf(set, y, st, fence), Neighbours: []Neighbour{}}
	setting := set.Movement.Setting(turning)
	if setting == nil || setting.IsWord() {
		return out
	}
	for _, c := range out.View.Controls {
		if c.Key != string(turning) {
			continue
		}
		for _, next := range []*float64{c.Down, c.Up} {
			if next == nil {
				continue
			}
			if there, err := set.With(turning, movement.Num(*next)); err == nil {
				out.Neighbours = append(out.Neighbours, Neighbour{*next, SetUpOf(there, y, st, fence)})
			}
		}
	}
	return out
}
