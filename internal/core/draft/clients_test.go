package draft

import (
	"testing"

	"github.com/stretchr/testify/assert"

	"musculus/internal/core/priority"
	"musculus/internal/core/week"
)

// tally is what drafts of many clients come to.
type tally struct {
	slots, two         [3]int
	worst1, worst2     float64 // worst-stance shortfall of the first and second draft; the second's under her stance
	minutes1, minutes2 float64
	fewDays, flooded   int
	hurried            int // slots of those who have twenty minutes
	findings           map[string]int
}

// shortfall is what the heads lack of their targets, by a way's reading.
func shortfall(p *Problem, way Way, w *Week) (sum float64) {
	c, s := stateOf(p, way, w)
	for h := range c.aims {
		sum += float64(c.lack(h, &s.sums)) / Per
	}
	return sum
}

func (y *tally) add(d *Dated, three *[3]Composed) {
	one, two := &three[0], &three[1]
	y.worst1 += max(0, shortfall(one.Problem, Robust, &one.Week)-shortfall(two.Problem, Stance, &two.Week))
	y.worst2 += max(0, shortfall(two.Problem, Robust, &two.Week)-shortfall(two.Problem, Stance, &two.Week))
	for _, m := range d.Board(one.Problem, Robust, &one.Week) {
		y.minutes1 += m
	}
	for _, m := range d.Board(two.Problem, Stance, &two.Week) {
		y.minutes2 += m
	}
	for i := range three {
		for _, day := range three[i].Week.Days {
			if d.client.Trainee.Aims.Minutes < 25 {
				y.hurried += len(day)
				continue // in twenty minutes two sets are a slot
			}
			for _, s := range day {
				y.slots[i]++
				if s.Sets == fewestSets {
					y.two[i]++
				}
			}
		}
	}
	c, s := stateOf(one.Problem, Robust, &one.Week)
	if used, _, _ := c.ends(s); d.Spread == "days" && used < c.wantDays {
		y.fewDays++
	}
	for h := range c.aims {
		if c.p.Targets[h].Level == priority.Maintain && s.sums.mid[h] > 3*c.p.Targets[h].High {
			y.flooded++
		}
	}
}

// avoidable are findings that a draft must not leave: nothing in the problem stands for them
// but its limits.
var avoidable = []string{
	"equipment",
	"refused",
	"avoid",
	"modify",
	"ladder",
	"top_range",
	"combo",
	"dose",
	"apart",
	"minutes",
	"group_session",
	"twice",
	"order",
	"cold",
	"grips",
	"load",
	"spacing",
	"group_week",
	"joint",
	"failure",
	"weekday",
	"same",
	"unchanged",
	"cue",
}

// Over the made clients: the audit of a draft finds nothing that could have been avoided, the
// first draft holds where the second does not, hardly any slot has two sets, no week has
// fewer days than it should, and what is maintained is not flooded.
func TestDraftsOfManyClients(t *testing.T) {
	y := tally{findings: map[string]int{}}
	for n := range 22 {
		cl, d := made(t, n)
		three := d.Compose(Final, 0, nil, nil)
		y.add(d, &three)
		shelf := week.Stock(cl.Catalogue, cl.Trainee.Yardstick, cl.Trainee.Stance)
		for i := range three {
			laid := d.Lay(three[i].Problem, three[i].Way, &three[i].Week, &Finish{NewID: newID})
			w := week.Week{Sessions: laid.Sessions}
			l := w.Count(cl.Trainee)
			for _, f := range w.Audit(cl.Trainee, shelf, &l, 0) {
				y.findings[string(three[i].Way)+" "+f.Code]++
				if f.Code == "twice" && three[i].Way == LeastTime { // told as given up
					assert.NotEmpty(t, twins(three[i].Problem, &three[i].Week))
					continue
				}
				assert.NotContains(t, avoidable, f.Code, "%d %s: %s", n, three[i].Way, f.Text)
			}
			if three[i].Way == Robust && shortfall(three[i].Problem, Robust, &three[i].Week) < 0.05 {
				for _, f := range w.Audit(cl.Trainee, shelf, &l, 0) {
					assert.NotEqual(t, "disputed", f.Code, "%d: holds under every stance: %s", n, f.Text)
				}
			}
		}
	}
	t.Logf("slots by way %v, of two sets %v, %d more where there are twenty minutes", y.slots, y.two, y.hurried)
	t.Logf("worst-stance shortfall beyond what her stance lacks: first %.2f, second %.2f; minutes %.0f and %.0f (%.3f)", y.worst1, y.worst2,
		y.minutes1, y.minutes2, y.minutes1/y.minutes2)
	t.Logf("weeks on too few days %d; maintained heads over three times their band %d; findings %v", y.fewDays, y.flooded, y.findings)
	assert.LessOrEqual(t, y.two[0]*10, y.slots[0], "slots of two sets")
	assert.LessOrEqual(t, y.worst1, y.worst2/2, "robustness means something")
	assert.Zero(t, y.fewDays)
}
