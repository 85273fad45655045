package week

import (
	"fmt"

	"musculus/internal/core/plan"
	"musculus/internal/core/series"
)

// grips finds plans that begin with the stronger grip.
func (a *auditor) grips(i int) {
	s := &a.week.Sessions[i]
	for j := range s.Slots {
		slot := &s.Slots[j]
		if len(slot.SetUps()) < 2 {
			continue
		}
		ordered := series.OrderGrips(slot.SetUps(), a.t.Yardstick, a.t.maxima())
		rank := map[string]int{}
		for n, g := range ordered {
			rank[g.SetUp.Key()] = n
		}
		falls := false
		for n := 1; n < slot.Sets(); n++ {
			falls = falls || rank[slot.SetUpOf(n).Key()] < rank[slot.SetUpOf(n-1).Key()]
		}
		if !falls {
			continue
		}
		a.add(
			Found{
				Key:      "grips:" + s.ID.String() + ":" + slot.ID.String(),
				Code:     "grips",
				Severity: Note,
				Session:  i,
				Slot:     j,
				Why:      whys["grips"],
				Text:     fmt.Sprintf("%s, slot %d goes from the stronger grip to the weaker one.", s.Name, j+1),
			},
			func() *Fix {
				return a.change("Begin where the client is weaker", func(w *Week) bool {
					to := &w.Sessions[i].Slots[j]
					var next []plan.Row
					for _, g := range ordered {
						for k := range slot.Rows {
							if slot.SetUpIn(k).Key() == g.SetUp.Key() {
								row := slot.Rows[k]
								if row.Load = slot.Asked(k); row.Load != nil && (row.Load.Share != 0 || row.Load.Steps != nil) {
									return false // the load of a row would be a part of another one's
								}
								next = append(next, row)
							}
						}
					}
					to.Rows = next
					return len(next) == len(slot.Rows)
				})
			},
		)
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
