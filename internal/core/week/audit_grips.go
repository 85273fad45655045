package week

import (
	"fmt"

	"musculus/internal/core/movement"
	"musculus/internal/core/series"
)

// grips finds plans that begin with the stronger grip.
func (a *auditor) grips(i int) {
	s := &a.week.Sessions[i]
	for j := range s.Slots {
		slot := &s.Slots[j]
		if len(slot.Grips) < 2 {
			continue
		}
		ordered := series.OrderGrips(slot.grips(), a.t.Yardstick, a.t.maxima())
		rank := map[string]int{}
		for n, g := range ordered {
			rank[g.SetUp.Key()] = n
		}
		falls := false
		for n := 1; n < slot.Dose.Each(); n++ {
			falls = falls || rank[slot.SetUpOf(n).Key()] < rank[slot.SetUpOf(n-1).Key()]
		}
		if !falls {
			continue
		}
		a.add(Found{Key: "grips:" + s.Ref + ":" + slot.Ref, Code: "grips", Severity: Note, Session: i, Slot: j, Why: whys["grips"],
			Text: fmt.Sprintf("%s, slot %d goes from the stronger grip to the weaker one.", s.Name, j+1)}, func() *Fix {
			return a.change("Begin where the client is weaker", func(w *Week) bool {
				var next []movement.SetUp
				for _, g := range ordered {
					for n := range slot.Dose.Each() {
						if slot.SetUpOf(n).Key() == g.SetUp.Key() {
							next = append(next, g.SetUp)
						}
					}
				}
				w.Sessions[i].Slots[j].Grips = next
				return len(next) == slot.Dose.Sets
			})
		})
	}
}

// maxima is what one hand could lift once in each series, kg.
func (t *Trainee) maxima() map[string]float64 {
	out := map[string]float64{}
	for key, own := range t.Own {
		out[key] = own.E1RM
	}
	return out
}
