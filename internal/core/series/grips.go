package series

import (
	"cmp"
	"slices"

	"musculus/internal/core/effort"
	"musculus/internal/core/movement"
)

// Grip is one way to hold the same weight, and how strong it is.
type Grip struct {
	SetUp   movement.SetUp
	Part    float64 // of the strongest of those it is held against
	FromLog bool    // by the client's own series; else by the model and the usual hand factors
}

// Middles of the hand factors: what a hand allows against the model's ratio.
const (
	palmsDownUsual = 0.65
	neutralUsual   = 0.9
	underhandUsual = 0.65
)

func usualFactor(s movement.SetUp) float64 {
	switch hand(s) {
	case "palms down":
		return palmsDownUsual
	case "neutral":
		return neutralUsual
	case "underhand":
		return underhandUsual
	}
	return 1
}

// OrderGrips puts ways to hold the same weight from the weakest to the strongest:
// by the client's own maxima where every one has a series (own, by key, kg), else
// by the model's working loads times the usual hand factors. Those the body cannot
// do are left out.
func OrderGrips(setUps []movement.SetUp, y *effort.Yardstick, own map[string]float64) []Grip {
	byLog := len(setUps) > 0
	for _, s := range setUps {
		byLog = byLog && own[s.Key()] > 0
	}
	var out []Grip
	most := 0.0
	for _, s := range setUps {
		strong := own[s.Key()]
		if !byLog {
			p, err := s.Profile(y)
			if err != nil {
				continue
			}
			strong = p.Working * usualFactor(s)
		}
		out = append(out, Grip{s, strong, byLog})
		most = max(most, strong)
	}
	for i := range out {
		out[i].Part /= most
	}
	slices.SortStableFunc(out, func(a, b Grip) int { return cmp.Compare(a.Part, b.Part) })
	return out
}

// PlanGrips gives each of some sets a grip, from the weakest to the strongest: of
// every hand (palms up, neutral, palms down) the strongest one.
func PlanGrips(ordered []Grip, sets int) []movement.SetUp {
	best := map[string]int{}
	for i := range ordered {
		best[hand(ordered[i].SetUp)] = i // the last is the strongest
	}
	var at []int
	for _, i := range best {
		at = append(at, i)
	}
	slices.Sort(at)
	if sets < 2 || len(at) < 2 {
		return nil
	}
	out := make([]movement.SetUp, sets)
	for n := range out { // the first and the last are always among them
		out[n] = ordered[at[(n*(len(at)-1)+(sets-1)/2)/(sets-1)]].SetUp
	}
	return out
}
