package draft

import (
	"fmt"
	"slices"

	"musculus/internal/core/arm"
	"musculus/internal/core/priority"
)

// Outlook is what the minutes can hold, asked before a week is drafted.
type Outlook struct {
	Short float64 // effective sets that the week would lack of what is to grow
	Words string  // "" where the minutes hold it all
	Ways  []GiveWay
}

// GiveWay is a target that may give way, with what it costs and what it frees.
type GiveWay struct {
	Head  int
	To    priority.Level
	Words string
	Short float64 // what would still be lacking
}

// outlookSteps are the steps of each week that is looked at for it.
const outlookSteps = 300

// Outlook asks which targets could give way where the minutes do not hold them all; stop
// ends it early.
func (d *Dated) Outlook(stop func() bool) Outlook {
	p := d.Problem
	e := Effort{Steps: outlookSteps, Stop: stop}
	w := Search(p, Robust, e, nil)
	out := Outlook{Short: Short(p, &w)}
	if out.Short < leastGain {
		return out
	}
	freed := p.with(limitsOf(p)[0].lift)
	more := Search(freed, Robust, e, &w)
	if out.Short-Short(freed, &more) < leastGain { // it is not the minutes
		return out
	}
	sets := 0
	for i := range w.Days {
		for _, s := range w.Days[i] {
			sets += s.Sets
		}
	}
	wanted := 0
	for i := range more.Days {
		for _, s := range more.Days[i] {
			wanted += s.Sets
		}
	}
	out.Words = fmt.Sprintf(
		"%s hold about %d hard sets; the targets would take about %d. What gives way?",
		d.TimeWords(),
		sets,
		wanted,
	)
	for h := range p.Targets {
		to := lower(p.Targets[h].Level)
		if to == "" || stop != nil && stop() {
			continue
		}
		less := p.with(func(o *Problem) {
			target := priority.TargetOf(to, d.firstYear())
			o.Targets[h] = Target{to, perMyriad(target.Low), perMyriad(target.High)}
		})
		found := Search(less, Robust, e, &w)
		short := Short(less, &found)
		if out.Short-short < leastGain {
			continue
		}
		c, s := stateOf(less, Robust, &found)
		has := p.Targets[h].Low - max(0, p.Targets[h].Low-worst(c, s, h))
		rest := "everything else is full"
		if short >= leastGain {
			rest = fmt.Sprintf("%.1f sets are still lacking, not %.1f", short, out.Short)
		}
		out.Ways = append(out.Ways, GiveWay{h, to, fmt.Sprintf("%s: %s instead of %s, %s of %s sets; %s.", arm.Heads[h].Name, to,
			p.Targets[h].Level, effective(has), effective(p.Targets[h].Low), rest), short})
	}
	slices.SortStableFunc(out.Ways, func(a, b GiveWay) int {
		switch {
		case a.Short < b.Short:
			return -1
		case a.Short > b.Short:
			return 1
		}
		return 0
	})
	return out
}

func (d *Dated) firstYear() bool {
	a := d.client.Trainee.Aims
	return a != nil && a.FirstYear
}

// worst is what a head has by the stance that counts least.
func worst(c *compiled, s *state, h int) int {
	out := s.sums.under[h][0]
	for _, x := range s.sums.under[h] {
		out = min(out, x)
	}
	return out
}

func lower(l priority.Level) priority.Level {
	switch l {
	case priority.Prioritise:
		return priority.Build
	case priority.Build:
		return priority.Maintain
	}
	return ""
}
