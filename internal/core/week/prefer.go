package week

import (
	"fmt"
	"strings"

	"musculus/internal/core/dose"
	"musculus/internal/core/effort"
	"musculus/internal/core/fitting"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/plan"
)

// This file shapes what is new by the client's preferences: caps first, then what is
// safe to fail, then what was typed.

// Fill gives a slot that has no rows yet the preferred ones, and its set-up the preferred
// settings where nobody turned them.
func (t *Trainee) Fill(slot *plan.Slot) {
	if len(slot.Rows) > 0 {
		return
	}
	if to := t.Preferred(slot.SetUp); t.Fence.Judge(to, t.Profile(to)).Ruling != person.Avoid && t.memo().look(to).refused == "" {
		slot.SetUp = to
	}
	slot.Rows = t.preferredRows(slot.SetUp)
}

// What preferences turn, degrees and seconds.
const (
	stopShortDeg  = 10.0
	partialsDeg   = 70.0
	helpOverhead  = 8.0
	leastSqueezeS = 1.0
)

// Preferred is a set-up with the settings the client prefers; what is turned already
// stays as it is.
func (t *Trainee) Preferred(s movement.SetUp) movement.SetUp {
	turned := s.Turned()
	turn := func(k movement.Key, v movement.Value) {
		if _, typed := turned[k]; typed || s.Movement.Setting(k) == nil || !s.Uses(k) {
			return
		}
		if to, err := s.With(k, v); err == nil && t.memo().look(to).refused == "" {
			s = to
		}
	}
	m := s.Movement
	if oneJoint(m) {
		switch p := t.Prefer; {
		case p.Is(person.AxisRange, "guarded"):
			if slope, ok := s.Value(movement.PadSlope); ok {
				from, to := fitting.PadRange(slope.Number)
				turn(movement.ElbowFrom, movement.Num(from))
				turn(movement.ElbowTo, movement.Num(to))
			} else {
				turn(movement.ElbowFrom, movement.Num(t.towards(s, movement.ElbowFrom, 20)))
			}
		case p.Is(person.AxisRange, "long_partials"):
			end := s.Number(movement.ElbowFrom) + partialsDeg
			if m.Action == movement.Extension {
				end = s.Number(movement.ElbowFrom) - partialsDeg
			}
			turn(movement.ElbowTo, movement.Num(end))
		}
		switch p := t.Prefer; { // the short end only
		case !p.Is(person.AxisRange, "full"), p.Is(person.AxisTop, "all"):
		case p.Is(person.AxisTop, "short"):
			turn(movement.ElbowTo, movement.Num(t.towards(s, movement.ElbowTo, stopShortDeg)))
		case t.said(person.AxisTop): // by demand is the table's own end, until somebody asks for it
			if k := t.memo().look(s); k.profile != nil && k.profile.Curve[effort.Samples-1] < effort.IdleBelow {
				for i := effort.Samples - 1; i > 0; i-- {
					if k.profile.Curve[i] >= effort.IdleBelow {
						turn(movement.ElbowTo, movement.Num(k.profile.Elbow[i]))
						break
					}
				}
			}
		}
	}
	if t.Prefer.Is(person.AxisFinish, "upright") {
		turn(movement.Tilt, movement.Num(0))
	}
	if to := m.Setting(movement.ShoulderTo); to != nil && m.Family.ID == "overhead" && t.Prefer.Is(person.AxisOverhead, "help") {
		for _, x := range descending(to.Steps()) { // the first step that is more than the drift that counts as still
			if x < s.Effort().From.ShoulderElevation-helpOverhead {
				turn(movement.ShoulderTo, movement.Num(x))
				break
			}
		}
	}
	t.held(s, turn)
	return s
}

// held turns hold and wrist; a thumb over only where no bar is over the body, a cupped
// wrist only on pads and with a wrist that bears it.
func (t *Trainee) held(s movement.SetUp, turn func(movement.Key, movement.Value)) {
	switch p := t.Prefer; {
	case p.Is(person.AxisHold, "loose"):
		turn(movement.Hold, movement.Word("loose"))
	case p.Is(person.AxisHold, "thumb_over"):
		turn(movement.Hold, movement.Word("thumb_over"))
	case p.Is(person.AxisHold, "cupped") && s.Movement.Anchor == "pad" && t.Scores().Worse(movement.Wrist) <= 2:
		turn(movement.WristKey, movement.Word("cupped"))
	}
}

// said says whether an axis is somebody's own choice and not the default.
func (t *Trainee) said(id person.AxisID) bool {
	held, ok := t.Prefer[id]
	return ok && held.Whose != "default"
}

// towards is an end of the elbow's range some degrees nearer to the other one.
func (t *Trainee) towards(s movement.SetUp, k movement.Key, by float64) float64 {
	if (k == movement.ElbowFrom) == (s.Movement.Action == movement.Flexion) {
		return s.Number(k) + by
	}
	return s.Number(k) - by
}

func descending(x []float64) []float64 {
	out := make([]float64, len(x))
	for i := range x {
		out[len(x)-1-i] = x[i]
	}
	return out
}

// bands are reps and rests by preference.
var bands = map[string][3]int{"heavy": {5, 8, 150}, "middle": {8, 12, 90}, "high": {12, 20, 75}, "light": {20, 35, 50}}

// preferredRows are the rows of a new slot.
func (t *Trainee) preferredRows(s movement.SetUp) []plan.Row {
	d := dose.Usual(t.Caps)
	for id, band := range bands {
		is := t.Prefer.Is(person.AxisReps, id)
		if t.Prefer.Is(person.AxisReps, "mixed") {
			is = id == "high" && s.Movement.Computed() || id == "heavy" && !s.Movement.Computed()
		}
		if is {
			d.RepsLow, d.RepsHigh, d.RestS = band[0], band[1], max(band[2], t.Caps.MinRestS)
		}
	}
	switch p := t.Prefer; {
	case p.Is(person.AxisTempo, "slow"):
		d.Tempo = effort.Tempo{3, 0, 1, 0}
	case p.Is(person.AxisTempo, "squeeze") && (t.Caps.MostHoldS == 0 || t.Caps.MostHoldS >= leastSqueezeS):
		d.Tempo = effort.Tempo{2, 0, 1, leastSqueezeS}
	case p.Is(person.AxisTempo, "no_pause"):
		d.Tempo = effort.Tempo{2, 0, 1, 0}
	}
	toLimit := s.Movement.Computed() && t.Caps.MinReserve == 0 && t.Room != nil && t.Room.CanFailAlone(s)
	switch {
	case !toLimit:
	case t.Prefer.Is(person.AxisReps, "light"):
		d.Reserve = 0
	case (t.Prefer.Is(person.AxisEffort, "limit") || t.Prefer.Is(person.AxisEffort, "beyond")) && d.Sets > 1:
		first, last := d, d
		first.Sets, first.Reserve = d.Sets-1, max(1, t.Caps.MinReserve)
		last.Sets, last.Reserve, last.Load = 1, 0, nil
		return []plan.Row{{Dose: first}, {Dose: last}}
	}
	return []plan.Row{{Dose: d}}
}

// clashOf is two things that do not go together, and what could be changed.
type clashOf struct {
	key, text, why string
	axis           person.AxisID
}

// Clashes are preferences that speak against each other, or against what the week and
// the client are.
func (a *auditor) preferences() {
	t := a.t
	if t.Prefer == nil {
		return
	}
	var out []clashOf
	add := func(axis person.AxisID, key, why, text string, args ...any) {
		out = append(out, clashOf{key, fmt.Sprintf(text, args...), why, axis})
	}
	is := t.Prefer.Is
	if is(person.AxisSpread, "daily") && is(person.AxisEffort, "beyond") {
		add(person.AxisEffort, "daily_beyond", "What is done every day has to be recovered from by the next.",
			"Often and little does not go with sets beyond the limit.")
	}
	if is(person.AxisSpread, "one_day") {
		for _, group := range []string{plan.Flexors, plan.Extensors} {
			if n := a.ledger.Hard(group); n > MostGroupSets {
				add(person.AxisSpread, "one_day_"+group, "Late sets of one long day bring little more.",
					"One big day holds %d hard sets for the elbow %s, over %d.", n, group, MostGroupSets)
			}
		}
	}
	if is(person.AxisTempo, "slow") && is(person.AxisReps, "heavy") {
		add(person.AxisTempo, "slow_heavy", "Three seconds down take the load from heavy sets that is their reason.",
			"Slow lowering does not go with the heavy band.")
	}
	if is(person.AxisRange, "guarded") && strings.HasPrefix(t.Stance.ID, "stretch") {
		add(
			person.AxisRange,
			"guarded_stretch",
			"The stance counts what happens at long length; the guarded range leaves that out.",
			"The guarded range does not go with the %s stance.",
			t.Stance.Name,
		)
	}
	if is(person.AxisHold, "thumb_over") {
		for i := range a.week.Sessions {
			for j := range a.week.Sessions[i].Slots {
				if act := a.week.Sessions[i].Slots[j].SetUp.Movement.Action; act == movement.Press {
					add(
						person.AxisHold,
						"thumb_press",
						"A bar that no thumb holds can roll out.",
						"Thumb over is not offered on presses: %s keeps the thumb round.",
						names(a.week.Sessions[i].Slots[j].SetUp),
					)
				}
			}
		}
	}
	if len(t.Caps.From) > 0 {
		for _, axis := range []person.AxisID{person.AxisEffort, person.AxisSwing} {
			if held, ok := t.Prefer[axis]; ok && held.Whose != "default" && !is(axis, "reserve") && !is(axis, "never") {
				add(axis, "caps_"+string(axis), "Caps outrank every preference.",
					"“%s” is the preference, but this client’s caps do not allow it.", held.Choice.Words)
			}
		}
	}
	seen := map[string]bool{}
	for _, c := range out {
		if seen[c.key] {
			continue
		}
		seen[c.key] = true
		a.add(
			Found{
				Key:      "prefer:" + c.key,
				Code:     "prefer",
				Severity: Note,
				Session:  -1,
				Slot:     -1,
				Why: c.why + " Change it in the Dossier, under “" +
					axisLabel(c.axis) + "”.",
				Text: c.text,
			},
			func() *Fix { return nil },
		)
	}
}

func axisLabel(id person.AxisID) string {
	for i := range person.Axes {
		if person.Axes[i].ID == id {
			return person.Axes[i].Label
		}
	}
	return string(id)
}
