package week

import (
	"fmt"
	"math"
	"sort"
	"strings"
)

// Spent is what a session's time is made of, s.
type Spent struct {
	General, Ramp float64 // the warm-up
	Sets          float64
	Rests         float64 // between sets, and inside combos
	Ways          float64 // to another station, and setting it up
}

func (s *Spent) seconds() float64 { return s.General + s.Ramp + s.Sets + s.Rests + s.Ways }

// Add adds another session's time.
func (s *Spent) Add(o Spent) {
	s.General, s.Ramp, s.Sets = s.General+o.General, s.Ramp+o.Ramp, s.Sets+o.Sets
	s.Rests, s.Ways = s.Rests+o.Rests, s.Ways+o.Ways
}

// Words tells the parts in whole minutes that add up to the whole minutes shown: "40 min: 5
// general warm-up, 3 ramp, …"; "" for no time at all.
func (s *Spent) Words() string {
	if s.seconds() == 0 {
		return ""
	}
	names := []string{"general warm-up", "ramp", "in sets", "rests", "on the way and setting up"}
	parts := []float64{s.General / 60, s.Ramp / 60, s.Sets / 60, s.Rests / 60, s.Ways / 60}
	whole := Apportion(parts)
	var out []string
	sum := 0
	for i, m := range whole {
		sum += m
		if m > 0 {
			out = append(out, fmt.Sprintf("%d %s", m, names[i]))
		}
	}
	return fmt.Sprintf("%d min: %s", sum, strings.Join(out, ", "))
}

// Apportion rounds parts to whole numbers that add up to their rounded sum: those that lose
// most by being rounded down are rounded up first.
func Apportion(parts []float64) []int {
	out, by, sum := make([]int, len(parts)), make([]int, len(parts)), 0.0
	given := 0
	for i, p := range parts {
		out[i], by[i] = int(math.Floor(p)), i
		sum += p
		given += out[i]
	}
	rest := func(i int) float64 { return parts[by[i]] - math.Floor(parts[by[i]]) }
	sort.SliceStable(by, func(i, j int) bool { return rest(i) > rest(j) })
	for i := 0; given < int(math.Round(sum)) && i < len(by); i++ {
		out[by[i]]++
		given++
	}
	return out
}
