package draft

import (
	"fmt"
	"slices"

	"github.com/google/uuid"

	"musculus/internal/core/movement"
	"musculus/internal/core/plan"
	"musculus/internal/core/week"
)

// Pattern is a named starting point: what it allows and wants, as constraints on the problem.
type Pattern struct {
	ID, Name, Says string
	// Only says which candidates it uses; nil: all.
	Only func(*Candidate) bool
	// wants are what it asks for, of the problem's days.
	wants func(*Dated) []Want
	// Combos says how slots are put together afterwards.
	Combos Pairing
}

// Pairing is how a pattern puts slots of a day together.
type Pairing string

// The pairings.
const (
	NoPairs      Pairing = ""
	PressIsolate Pairing = "press_isolate" // a press or dip with an extension
	Opposing     Pairing = "opposing"      // a curl with an extension
	Rounds       Pairing = "rounds"        // the last slots of a day as one combo
	BackOffs     Pairing = "back_offs"     // no pairs: a lighter row after the first slot of a day
)

// asked is what a want of a pattern costs a slot: more than any head is worth.
const asked = 12

// of makes a want of the candidates that are something.
func (d *Dated) of(words string, least, most int, days []int, is func(*Candidate) bool) Want {
	w := Want{Words: words, Least: least, Most: most, Days: days, Weight: asked}
	for i := range d.Candidates {
		if is(&d.Candidates[i]) {
			w.Candidates = append(w.Candidates, i)
		}
	}
	return w
}

func has(i Idea) func(*Candidate) bool {
	return func(c *Candidate) bool { return slices.Contains(c.Ideas, i) }
}

func inFamily(ids ...string) func(*Candidate) bool {
	return func(c *Candidate) bool { return slices.Contains(ids, c.setUp.Movement.Family.ID) }
}

func moves(ids ...string) func(*Candidate) bool {
	return func(c *Candidate) bool { return slices.Contains(ids, c.Movement) }
}

func isAction(a ...movement.Action) func(*Candidate) bool {
	return func(c *Candidate) bool { return slices.Contains(a, c.setUp.Movement.Action) }
}

func extension(c *Candidate) bool { return c.setUp.Movement.Action == movement.Extension }

func palmsDown(c *Candidate) bool {
	e := c.setUp.Effort()
	return c.setUp.Movement.Action == movement.Flexion && (e.From.ForearmRotation+e.To.ForearmRotation)/2 < -30
}

// pressDays are the problem's days after pressing elsewhere: the day itself, or the next one
// she trains on.
func (d *Dated) pressDays() (out []int) {
	for on := range d.Cycle {
		if d.Elsewhere.Extensors[on] == 0 {
			continue
		}
		best := -1
		for i := range d.Days {
			gap := (d.Days[i].On - on + d.Cycle) % d.Cycle
			if best < 0 || gap < (d.Days[best].On-on+d.Cycle)%d.Cycle {
				best = i
			}
		}
		if best >= 0 && !slices.Contains(out, best) {
			out = append(out, best)
		}
	}
	return out
}

// Patterns are the shipped starting points, in the order they are shown.
var Patterns = []Pattern{
	{
		ID:   "two_upper",
		Name: "Two upper days",
		Says: "Pulls first, then one curl with the arm in front and one behind; palms down once over both days.",
		wants: func(d *Dated) []Want {
			out := []Want{
				d.of(
					"a curl with the arm in front",
					1,
					0,
					nil,
					has(InFront),
				), d.of("a curl with the arm behind", 1, 0, nil, has(Behind)),
				d.of("one curl palms down", 1, 0, nil, palmsDown),
			}
			for i := range d.Days[:min(2, len(d.Days))] {
				out = append(out, d.of("a pull on "+d.Days[i].Name, 1, 0, []int{i}, isAction(movement.Pull)))
			}
			return out
		},
	},
	{ID: "presser", Name: "A presser’s accessories",
		Says: "One extension after each day of pressing, one of the week heavy with few reps and one light with many.",
		wants: func(d *Dated) []Want {
			var out []Want
			for _, i := range d.pressDays() {
				out = append(out, d.of("one extension on "+d.Days[i].Name, 1, 1, []int{i}, extension))
			}
			if len(out) == 0 {
				out = append(out, d.of("two extensions", 2, 0, nil, extension))
			}
			return append(out, d.of("no other press", 0, 1, nil, isAction(movement.Press, movement.Dip)))
		}},
	{
		ID:     "press_isolate",
		Name:   "Press, then isolate",
		Says:   "Pairs of one press or dip with one extension; one extension alone, with drops in its last set.",
		Combos: PressIsolate,
		wants: func(d *Dated) []Want {
			return []Want{d.of("two presses or dips", 2, 0, nil, has(PressDip)), d.of("three extensions", 3, 0, nil, extension)}
		},
	},
	{
		ID:   "four_back",
		Name: "Four for the back of the arm",
		Says: "A press or loaded dip, an overhead cable, a push-down, a close push-up to the limit.",
		wants: func(d *Dated) []Want {
			return []Want{
				d.of(
					"a press or dip",
					1,
					0,
					nil,
					isAction(movement.Press, movement.Dip),
				), d.of("an overhead extension", 1, 0, nil, has(Overhead)),
				d.of("a push-down", 1, 0, nil, inFamily("pushdown")), d.of("a close push-up", 1, 0, nil, moves("pushup_close")),
			}
		},
	},
	{
		ID:     "dense",
		Name:   "Dense day",
		Says:   "Heavy and strict first, then pairs for one muscle, last a curl and an extension at length in turns; loads start low.",
		Combos: Opposing,
		wants: func(d *Dated) []Want {
			return []Want{
				d.of("something heavy with several joints", 1, 0, nil, isAction(movement.Press, movement.Dip, movement.Pull)),
				d.of(
					"a curl with the arm behind",
					1,
					0,
					nil,
					has(Behind),
				),
				d.of("an overhead extension", 1, 0, nil, has(Overhead)),
			}
		},
	},
	{
		ID:   "two_dumbbells",
		Name: "All with two dumbbells",
		Says: "Nothing but a pair of dumbbells and, where there is one, a bench.",
		Only: func(c *Candidate) bool {
			return c.setUp.Implement() == movement.Dumbbell || c.setUp.Implement() == movement.Shared
		},
	},
	{ID: "one_weight", Name: "One weight", Says: "What one dumbbell is enough for: one arm at a time, or both hands on it.",
		Only: func(c *Candidate) bool {
			return c.setUp.Implement() == movement.Shared ||
				c.setUp.Implement() == movement.Dumbbell && c.setUp.Hands() == movement.OneArm ||
				moves("pushup", "pushup_close")(c)
		}},
	{
		ID:     "finisher",
		Name:   "A finisher",
		Says:   "Ends each day with three or four rounds of a combo, seven to ten reps of each.",
		Combos: Rounds,
	},
	{
		ID:   "few_extensions",
		Name: "One or two extensions",
		Says: "One: overhead. Two: overhead, and lying or a push-down. Never an extension before a press.",
		wants: func(d *Dated) []Want {
			return []Want{d.of("two extensions at most", 0, 2, nil, extension), d.of("one overhead", 1, 0, nil, has(Overhead)),
				d.of("one lying or a push-down", 1, 0, nil, inFamily("lying", "pushdown"))}
		},
	},
	{
		ID:     "climb",
		Name:   "Climb and back off",
		Says:   "The first slot of each day climbs to a heavy set and backs off.",
		Combos: BackOffs,
	},
}

// PatternOf finds a shipped pattern, nil for none.
func PatternOf(id string) *Pattern {
	for i := range Patterns {
		if Patterns[i].ID == id {
			return &Patterns[i]
		}
	}
	return nil
}

// Own makes a pattern of any week: its set-ups on as many days are wanted again.
func Own(id, name string, w *week.Week) *Pattern {
	slots, short := map[string]int{}, map[string]string{}
	for i := range w.Sessions {
		for j := range w.Sessions[i].Slots {
			s := w.Sessions[i].Slots[j].SetUp
			slots[s.Movement.ID]++
			short[s.Movement.ID] = s.Short()
		}
	}
	ids := make([]string, 0, len(slots))
	for m := range slots {
		ids = append(ids, m)
	}
	slices.Sort(ids)
	return &Pattern{ID: id, Name: name, wants: func(d *Dated) (out []Want) {
		for _, m := range ids {
			if len(out) < mostPatternWants-4 {
				o := d.of(short[m], min(slots[m], 2), 0, nil, moves(m))
				o.Weight = ownAsked
				out = append(out, o)
			}
		}
		return out
	}}
}

// ownAsked is what each slot of an own pattern is worth: it leads, but gives way to targets.
const ownAsked = 2

// on lays a pattern on a problem whose candidates and days are there and of which nothing is
// locked yet.
func (p *Pattern) on(d *Dated) {
	if p.wants != nil {
		for _, w := range p.wants(d) {
			if len(w.Candidates) > 0 {
				d.Wants = append(d.Wants, w)
			}
		}
	}
}

// swap is what takes the place of something that a joint does not bear.
type swap struct {
	joint movement.Joint
	is    func(*Candidate) bool
	what  string
	by    func(*Candidate) bool
	words string
}

var swaps = []swap{
	{
		movement.ShoulderFront,
		isAction(movement.Dip),
		"dips",
		moves("press_bench_close", "press_neutral_dumbbells", "pushup_close"),
		"a close press",
	},
	{movement.Wrist, isAction(movement.Press), "presses", isAction(movement.Dip), "a dip"},
	{movement.ElbowBack, moves("overhead_two_dumbbells", "overhead_one_dumbbell_two_hands", "overhead_bar", "overhead_one_arm"),
		"free weights overhead", inFamily("overhead"), "a cable overhead"},
}

// sore is the score from which a joint speaks.
const sore = 2

// Swaps says what stands in for what a joint does not bear.
func (d *Dated) Swaps() (out []string) {
	for _, s := range swaps {
		score := d.client.Trainee.Scores().Worse(s.joint)
		if score >= sore && !slices.ContainsFunc(d.Candidates, func(c Candidate) bool { return s.is(&c) }) &&
			slices.ContainsFunc(d.Candidates, func(c Candidate) bool { return s.by(&c) }) {
			out = append(out, fmt.Sprintf("No %s while the %s scores %d: %s instead.", s.what, s.joint.Words(), score, s.words))
		}
	}
	return out
}

// Arrange puts the slots of a day together as the pattern asks, as far as that can be done
// and takes no more time than there is; what cannot stays as it is.
func (p *Pattern) Arrange(t *week.Trainee, s *plan.Session, newID func() uuid.UUID) {
	try := func(change func(*plan.Session) bool) {
		after := *s
		after.Slots, after.Combos = slices.Clone(s.Slots), slices.Clone(s.Combos)
		if !change(&after) || len(t.Check(&after)) > 0 {
			return
		}
		if c := t.Count(&after); t.Aims == nil || !c.Over(t.Aims.Minutes) {
			*s = after
		}
	}
	free := func(o *plan.Slot) bool { return !o.Locked && o.Combo == "" }
	join := func(fits func(a, b *plan.Slot) bool) func(*plan.Session) bool {
		return func(o *plan.Session) bool {
			for i := range o.Slots {
				for j := i + 1; j < len(o.Slots); j++ {
					if !free(&o.Slots[i]) || !free(&o.Slots[j]) || !fits(&o.Slots[i], &o.Slots[j]) {
						continue
					}
					moved := o.Slots[j]
					o.Slots = slices.Insert(slices.Delete(o.Slots, j, j+1), i+1, moved)
					return o.Arrange(&plan.Arrange{Do: plan.Join, Slot: o.Slots[i].ID, IDs: []uuid.UUID{newID()}}, t.Caps) == nil
				}
			}
			return false
		}
	}
	action := func(o *plan.Slot) movement.Action { return o.SetUp.Movement.Action }
	switch p.Combos {
	case PressIsolate:
		try(join(func(a, b *plan.Slot) bool {
			return (action(a) == movement.Press || action(a) == movement.Dip) && action(b) == movement.Extension
		}))
		try(func(o *plan.Session) bool {
			for i := len(o.Slots) - 1; i >= 0; i-- {
				if x := &o.Slots[i]; free(x) && action(x) == movement.Extension {
					return o.Arrange(
						&plan.Arrange{Do: plan.LastMethod, Slot: x.ID, Method: "drops", IDs: []uuid.UUID{newID()}},
						t.Caps,
					) == nil
				}
			}
			return false
		})
	case Opposing:
		try(join(func(a, b *plan.Slot) bool {
			return action(a) == movement.Extension && action(b) == movement.Flexion ||
				action(a) == movement.Flexion && action(b) == movement.Extension
		}))
	case Rounds:
		try(func(o *plan.Session) bool {
			n := len(o.Slots)
			if n < 2 || !free(&o.Slots[n-1]) || !free(&o.Slots[n-2]) || o.Slots[n-1].Sets() != o.Slots[n-2].Sets() {
				return false
			}
			for i := n - 2; i < n; i++ {
				o.Slots[i].Each(func(r *plan.Row) { r.RepsLow, r.RepsHigh = 7, 10 })
			}
			return o.Arrange(&plan.Arrange{Do: plan.Join, Slot: o.Slots[n-2].ID, IDs: []uuid.UUID{newID()}}, t.Caps) == nil
		})
	case BackOffs:
		try(func(o *plan.Session) bool {
			if len(o.Slots) == 0 || !free(&o.Slots[0]) || o.Slots[0].Sets() >= mostSets {
				return false
			}
			return o.Arrange(&plan.Arrange{Do: plan.BackOff, Slot: o.Slots[0].ID, IDs: []uuid.UUID{newID()}}, t.Caps) == nil
		})
	}
}
