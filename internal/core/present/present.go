// Package present reads what a client does now: each line of a list is matched
// to set-ups, and what they cover is counted before any plan exists.
package present

import (
	"fmt"

	"musculus/internal/core/arm"
	"musculus/internal/core/dose"
	"musculus/internal/core/effort"
	"musculus/internal/core/fitting"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/plan"
	"musculus/internal/core/stance"
	"musculus/internal/core/week"
	"musculus/internal/core/words"
)

// Line is one exercise of the list; a line with two of them is two.
type Line struct {
	words.Part
	Answered bool // somebody said which one it is
}

const mostLines = 60

// Read reads a list. chosen are the answers given before, by the line's words.
func Read(text string, r *words.Reader, chosen map[string]string) []Line {
	var out []Line
	answers := make(map[string]string, len(chosen))
	for k, v := range chosen {
		answers[words.KeyOf(k)] = v // some were kept before plurals were read alike
	}
	for _, line := range r.Read(text) {
		for _, p := range line.Parts {
			l := Line{Part: p}
			if answer, ok := answers[p.Key()]; ok {
				l.Part = r.Answered(p, answer)
				l.Answered = true
			}
			if out = append(out, l); len(out) == mostLines {
				return out
			}
		}
	}
	return out
}

// Covered is what one head gets of the list.
type Covered struct {
	Sets  float64
	Zones [3]float64 // short, middle, long
	Terms []string   // the lines that give it sets, each with its factors
}

// Repeat is a pair of lines that are one idea twice.
type Repeat struct{ A, B int }

// Picture is what a list comes to.
type Picture struct {
	Heads   [arm.HeadCount]Covered
	Repeats []Repeat
	Never   []arm.HeadIndex // heads that get next to nothing
	Open    int             // lines that are still asked
}

// What a line counts that says nothing of its sets, and when a head counts as trained.
const (
	setsUnsaid   = 3
	leastTrained = 1.0
	leastTerm    = 0.05 // of a head: below, a line is not told
)

// SetUp is what a line counts as, false where it is still asked or counts as nothing.
func (l *Line) SetUp() (movement.SetUp, bool) {
	switch {
	case l.Movement != nil:
		return l.Part.SetUp, true
	case l.Counts == words.CountsPress:
		return week.Elsewhere(false), true
	case l.Counts == words.CountsPull:
		return week.Elsewhere(true), true
	}
	return movement.SetUp{}, false
}

// Cover counts the list of a client under a stance: sets as hard ones, as nothing
// is known of their effort.
func Cover(lines []Line, y *effort.Yardstick, st *stance.Stance) Picture {
	var out Picture
	shapes := make([]*fitting.Shape, len(lines))
	for i := range lines {
		l := &lines[i]
		set, ok := l.SetUp()
		if !ok {
			if l.Counts == "" {
				out.Open++
			}
			continue
		}
		d := dose.Usual(person.Caps{})
		if d.Sets = l.Sets; d.Sets == 0 {
			d.Sets = setsUnsaid
		}
		slot := plan.Of(set, d)
		count := week.CountSlot(&slot, y, st)
		for h := range count.Heads {
			mid := count.Heads[h].Mid
			out.Heads[h].Sets += mid
			if mid >= leastTerm {
				out.Heads[h].Terms = append(out.Heads[h].Terms, fmt.Sprintf("“%s”: %d × %.2f = %.1f", l.Text, d.Sets, mid/float64(d.Sets), mid))
			}
			for z := range count.Zones[h] {
				out.Heads[h].Zones[z] += count.Zones[h][z]
			}
		}
		if shape, ok := fitting.ShapeOf(set, y, st); ok && l.Movement != nil {
			shapes[i] = &shape
		}
	}
	for i := range shapes {
		for j := i + 1; j < len(shapes); j++ {
			if shapes[i] != nil && shapes[j] != nil && fitting.Distance(shapes[i], shapes[j]) < fitting.SameIdea {
				out.Repeats = append(out.Repeats, Repeat{i, j})
			}
		}
	}
	for h := range out.Heads {
		if out.Heads[h].Sets < leastTrained {
			out.Never = append(out.Never, arm.HeadIndex(h))
		}
	}
	return out
}
