package view

import (
	"musculus/internal/core/arm"
	"musculus/internal/core/day"
	"musculus/internal/core/person"
	"musculus/internal/core/priority"
)

// EmphasisSlice is a client's slice: the week's target of each head.
func EmphasisSlice(d *person.Dossier, e *priority.Emphasis, today day.Day) SliceView {
	var mid, low, high [arm.HeadCount]float64
	for h := range arm.HeadCount {
		t := priority.TargetOf(e.Of(arm.HeadIndex(h), today), d.FirstYear(today))
		mid[h], low[h], high[h] = (t.Low+t.High)/2, t.Low, t.High
	}
	first := priority.TargetOf(priority.Prioritise, false)
	return SliceOf(
		"Effective sets a week to aim for",
		mid,
		low,
		high,
		Levels(mid, func(x float64) float64 { return x / ((first.Low + first.High) / 2) }),
	)
}
