package view

import (
	"fmt"
	"math"
	"slices"
	"strings"

	"github.com/google/uuid"

	"musculus/internal/core/arm"
	"musculus/internal/core/day"
	"musculus/internal/core/dose"
	"musculus/internal/core/entry"
	"musculus/internal/core/floor"
	"musculus/internal/core/log"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/plan"
	"musculus/internal/core/series"
	"musculus/internal/core/week"
	"musculus/internal/figure"
)

// RunningOf shows a session's script; hidden keeps weights from who reads it.
func RunningOf(
	eyes *Eyes,
	t *week.Trainee,
	name string,
	p *plan.Session,
	script *floor.Script,
	past floor.Past,
	hidden bool,
) Running {
	counted := t.Count(p)
	out := Running{Title: name, Room: eyes.Room.Name, Minutes: eyes.Dossier.Minutes, Hidden: hidden,
		WarmUp: p.WarmUpWords(), WarmMin: p.WarmUpMin, Right: figure.MakeSlice(false),
		Total: SetsSlice("Effective sets in "+name, counted.Heads), Cautions: person.SheetCautions, Caps: t.Caps.Does(),
		Flags: []FlagView{}, Pain: floor.PainRules, LongRest: floor.LongRest,
		Joints: []WordView{}, Reasons: []WordView{}, Heads: []WordView{}, Says: floor.Sayings(), Steps: script.Steps,
		Slots: []ReadySlot{}}
	if out.Caps == nil {
		out.Caps = []string{}
	}
	if i := p.Ramped(); i >= 0 {
		words := p.RampWords(t.Floor(), hidden)
		if at := strings.LastIndex(words, " ("); at > 0 {
			words = words[:at]
		}
		if words != "" {
			out.Ramp = &RampView{p.Slots[i].ID, strings.Split(words, ", ")}
		}
	}
	for _, q := range floor.Flags() {
		out.Flags = append(out.Flags, FlagView{q.ID, q.Text, q.Level.Heading(), q.Says})
	}
	for _, j := range movement.Joints {
		out.Joints = append(out.Joints, WordView{string(j), j.Words()})
	}
	for _, x := range floor.Reasons {
		out.Reasons = append(out.Reasons, WordView{string(x), x.Words()})
	}
	for i := range arm.HeadCount {
		out.Heads = append(out.Heads, WordView{arm.Heads[i].ID, arm.Heads[i].Name})
	}
	for i := range p.Slots {
		out.Slots = append(out.Slots, readySlot(eyes, t, p, &script.Lines[i], i, counted.Slots[i], past, hidden))
	}
	return out
}

// readySlot makes a slot ready.
func readySlot(
	eyes *Eyes,
	t *week.Trainee,
	p *plan.Session,
	l *floor.Line,
	i int,
	counted week.SlotCount,
	past floor.Past,
	hidden bool,
) ReadySlot {
	slot := &p.Slots[i]
	set := slot.SetUp
	out := ReadySlot{ID: slot.ID, Title: set.Title(), Short: set.Short(), Details: set.Details(),
		Slice: BiasSlice(set, counted.Reading), Pose: LookedAt(slot, eyes.Dossier.Body(), &counted),
		SetUp: append(
			[]string{},
			eyes.Room.SetUpWords(set, eyes.Dossier.Body())...), Ends: set.EndsWords(), Keeps: t.Cautions(p, i),
		Stop: set.Movement.Stop, Cues: append([]string{}, slot.Cues...), Starts: slot.StartsWords(), Special: p.LastWords(i),
		Combo: p.ComboWords(i), In: slot.Combo, Locked: slot.Locked, Sides: sideWords(log.Sides(slot)), Loads: []LoadView{},
		Marks: append([]int{}, l.In...), Rows: []ReadyRow{}, Table: l.Table, Ahead: l.Ahead, Leave: l.Leave, Pair: l.Pair,
		Faults: ticksSeen(set, past), Tries: []PainTry{}, Ladder: [][]int{}, After: []string{}}
	if !hidden {
		first := slot.SetUpOf(0)
		out.Last = LastTime(eyes, first, uuid.Nil, past[first.Key()])
	}
	out.Pose.Handles = []figure.Handle{} // nothing is turned here
	out.Loads = loadsOf(eyes, slot.SetUpIn(0), l.Steps, hidden)
	for k := range slot.Rows {
		row := &slot.Rows[k]
		in := slot.SetUpIn(k)
		v := ReadyRow{
			ID:      row.ID,
			Sets:    row.Each(),
			Low:     row.RepsLow,
			High:    row.RepsHigh,
			Hold:    row.IsHold(),
			Reserve: row.Reserve,
			Effort:  row.EffortWords(),
			RestS:   p.RestAfter(i, k),
			Tempo:   row.TempoWords(),
			Word:    row.Word,
			Method:  row.Method.Words(),
			In: SetUpAt{
				in.Movement.ID,
				in.Turned(),
			},
			Loads:  l.Rows[k].Loads,
			Aim:    l.Rows[k].Aim,
			Stages: l.Rows[k].Stages,
			Taken:  l.Rows[k].Taken,
		}
		if v.Hold {
			v.Low, v.High = row.SecondsLow, row.SecondsHigh
		}
		if row.Tempo[0] >= slowFrom {
			v.DownS = row.Tempo[0]
		}
		if m := dose.MethodOf(row.Method.ID); m != nil {
			v.Caution = m.Caution
		}
		if row.SetUp != nil {
			v.Title = in.Title()
		}
		if v.Taken == nil {
			v.Taken = [][]floor.Expected{}
		}
		out.Rows = append(out.Rows, v)
	}
	for _, x := range l.Tries {
		out.Tries = append(
			out.Tries,
			PainTry{Kind: string(x.Kind), Words: x.Words, Title: x.SetUp.Title(), Details: x.SetUp.Details(),
				SetUp: append(
					[]string{},
					eyes.Room.SetUpWords(x.SetUp, eyes.Dossier.Body())...), In: SetUpAt{x.SetUp.Movement.ID, x.SetUp.Turned()},
				Sides: sideWords(
					log.SidesOf(x.SetUp),
				), Loads: loadsOf(eyes, x.SetUp, x.Steps, hidden), Start: x.Start, More: x.RepsMore, Reserve: x.Reserve},
		)
	}
	for k := range l.Ladder {
		out.Ladder = append(out.Ladder, l.Ladder[k][:])
		out.After = append(out.After, string(l.After[k]))
	}
	return out
}

// slowFrom is how long a lowering is that was chosen to be slow, s.
const slowFrom = 3.0

// loadsOf are the loads of a set-up in the client's room.
func loadsOf(eyes *Eyes, set movement.SetUp, steps []float64, hidden bool) []LoadView {
	out := []LoadView{}
	for _, whole := range steps {
		v := LoadView{WholeKg: TenGrams(whole), HandKg: person.CarryOf(set).PerHand(whole, eyes.rigging())}
		if !hidden {
			v.Words = eyes.Room.Words(whole, set)
		}
		out = append(out, v)
	}
	return out
}

// ticksSeen are what may be seen in a set-up, what was last seen in its family first.
func ticksSeen(set movement.SetUp, past floor.Past) []TickView {
	var all []entry.Entry
	for _, list := range past {
		all = append(all, list...)
	}
	slices.SortFunc(all, func(a, b entry.Entry) int { return b.DoneAt.Compare(a.DoneAt) })
	seen := entry.SeenLast(all, set)
	out := TicksOf(set)
	slices.SortStableFunc(out, func(a, b TickView) int {
		return rank(seen, a.ID) - rank(seen, b.ID)
	})
	return out
}

func rank(seen []string, id string) int {
	if i := slices.Index(seen, id); i >= 0 {
		return i
	}
	return len(seen)
}

// TicksOf lists what may be seen in a set-up, its family's own first.
func TicksOf(s movement.SetUp) []TickView {
	out := []TickView{}
	for _, f := range s.Movement.FaultsOf() {
		out = append(out, TickView{f.ID, f.Seen, f.View})
	}
	return out
}

// LastTime tells the last session of the same series but one.
func LastTime(eyes *Eyes, set movement.SetUp, but uuid.UUID, entries []entry.Entry) string {
	var last uuid.UUID
	reps := map[entry.Side][]string{}
	var maxima []float64
	words := ""
	for _, e := range entries {
		if e.SessionID == but || last != uuid.Nil && e.SessionID != last {
			continue
		}
		if last == uuid.Nil {
			last = e.SessionID
			words = day.At(e.DoneAt.In(eyes.Zone)).
				FromToday(eyes.Today) +
				": " + eyes.Room.Words(
				TenGrams(person.CarryOf(e.SetUp).Whole(e.LoadKg, eyes.rigging())),
				e.SetUp,
			)
		}
		reps[e.Side] = append([]string{fmt.Sprint(e.Reps)}, reps[e.Side]...)
		if max, ok := series.E1RM(e.LoadKg, e.Reps, e.Reserve); ok && !e.Technical && e.Hollow == "" {
			maxima = append(maxima, max)
		}
	}
	if last == uuid.Nil {
		return ""
	}
	for _, side := range []struct {
		side entry.Side
		lead string
	}{{entry.BothSides, " × "}, {entry.Left, " × left "}, {entry.Right, " and right "}} {
		if list := reps[side.side]; len(list) > 0 {
			words += side.lead + strings.Join(list, ", ")
		}
	}
	if len(maxima) > 0 {
		carry := person.CarryOf(set)
		words += ", e1RM " + eyes.Room.Words(
			math.Round(carry.Whole(series.Median(maxima), eyes.rigging())*10)/10,
			set,
		)
	}
	return words
}

// sideWords are sides as they are sent.
func sideWords(sides []entry.Side) (out []string) {
	for _, s := range sides {
		out = append(out, string(s))
	}
	return out
}

// LookedAt is a slot's figure, its heads filled by what they get; the left arm's alone is seen from
// the left.
func LookedAt(slot *plan.Slot, body arm.Body, counted *week.SlotCount) figure.Pose {
	out := figure.MakeLookedAt(slot.SetUp, body, counted.Profile, FillOf(counted.Reading))
	if slot.Starts == plan.LeftOnly {
		out.Mirror()
	}
	return out
}
