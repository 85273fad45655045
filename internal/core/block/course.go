package block

import (
	"cmp"
	"slices"
	"strconv"

	"github.com/google/uuid"

	"musculus/internal/core/arm"
	"musculus/internal/core/dose"
	"musculus/internal/core/plan"
	"musculus/internal/core/priority"
	"musculus/internal/core/week"
)

// Carry writes what was decided since the turn was planned into a session of it.
type Carry func(d *Day, s *plan.Session)

// SessionID is the id of what is made of a day in a turn: the same each time.
func (b *Block) SessionID(turn int, d *Day) uuid.UUID {
	return uuid.NewSHA1(b.ID, []byte(strconv.Itoa(turn)+":"+d.ID.String()))
}

// All is what the block plans, turn by turn: the turn as planned, with what was decided since,
// its effort, sets and rests as they are in that turn. Locked slots stay as they are. carry may
// be nil.
func (b *Block) All(t *week.Trainee, carry Carry) [][]plan.Planned {
	out := make([][]plan.Planned, b.Turns)
	grown := b.base(carry)
	for k := range out {
		if k > b.At && k < b.hard() && b.Sets != 0 {
			grown = grow(t, grown, b.Sets)
		}
		out[k] = make([]plan.Planned, len(grown))
		for i := range grown {
			out[k][i] = b.dated(t, k, &b.Days[i], &grown[i].Session)
		}
	}
	return out
}

// base is the turn as it is planned, with what was decided since.
func (b *Block) base(carry Carry) []plan.Planned {
	out := make([]plan.Planned, len(b.Days))
	for i := range b.Days {
		d := &b.Days[i]
		out[i] = plan.Planned{ID: d.ID, Name: d.Name, On: b.Date(0, d.After), Session: copyOf(&d.Session)}
		if carry != nil && !d.Locked {
			carry(d, &out[i].Session)
		}
	}
	return out
}

// copyOf is a session whose slots and rows can be changed without changing the other's.
func copyOf(s *plan.Session) plan.Session {
	out := *s
	out.Combos, out.Slots = slices.Clone(s.Combos), slices.Clone(s.Slots)
	for i := range out.Slots {
		out.Slots[i].Rows = slices.Clone(s.Slots[i].Rows)
	}
	return out
}

// dated is a day's session in a turn.
func (b *Block) dated(t *week.Trainee, turn int, d *Day, grown *plan.Session) plan.Planned {
	out := plan.Planned{ID: b.SessionID(turn, d), Name: d.Name, On: b.Date(turn, d.After), Session: copyOf(grown)}
	for i := range out.Slots {
		slot := &out.Slots[i]
		slot.ID = uuid.NewSHA1(out.ID, slot.ID[:])
		slot.Each(func(r *plan.Row) { r.ID = uuid.NewSHA1(out.ID, r.ID[:]) })
		if slot.Locked || out.Locked {
			continue
		}
		was := slices.Clone(slot.Rows)
		before := len(t.Check(&out.Session))
		switch {
		case b.IsLighter(turn):
			slot.Lighten()
		default:
			b.effort(t, turn, &d.Slots[i], slot)
			if b.IsDense(turn) {
				denser(t, &out.Session, i)
			}
		}
		if len(t.Check(&out.Session)) > before { // what cannot be planned so stays as it was
			slot.Rows = was
		}
	}
	return out
}

// effort brings a slot's plain hard sets to what the turn leaves in reserve; how they differ from
// each other stays, and what was decided to be kept further from the limit keeps its distance.
func (b *Block) effort(t *week.Trainee, turn int, planned, slot *plan.Slot) {
	base, found := 0, false
	for i := range planned.Rows {
		if r := &planned.Rows[i]; plain(r) && r.IsHard() {
			base, found = r.Reserve, true
			break
		}
	}
	if !found {
		return
	}
	safe := t.Room != nil && t.Room.CanFailAlone(slot.SetUp)
	least := max(1, t.Caps.MinReserve)
	if safe {
		least = t.Caps.MinReserve
	}
	slot.Each(func(r *plan.Row) {
		if plain(r) && r.IsHard() {
			r.Reserve = min(max(b.Reserve(turn)+r.Reserve-base, least), max(dose.MostHard, least))
		}
	})
	if b.touches(turn) && safe && slot.SetUp.Movement.Computed() && least == 0 && slot.Sets() >= toLimitFrom {
		toLimit(slot)
	}
}

// toLimitFrom are the sets of a slot from which the last one may go to the limit.
const toLimitFrom = 3

// plain says whether a row's sets are straight ones: a method has an effort of its own.
func plain(r *plan.Row) bool { return r.Method.ID == "" || r.Method.ID == "straight" }

// toLimit lets the last set go to the limit.
func toLimit(slot *plan.Slot) {
	rows := slices.Clone(slot.Rows)
	last := &rows[len(rows)-1]
	if !plain(last) || last.Reserve == 0 {
		return
	}
	if last.Sets > 1 {
		last.Sets--
		one := *last
		one.ID, one.Load = uuid.NewSHA1(last.ID, []byte("limit")), nil
		rows = append(rows, one)
		last = &rows[len(rows)-1]
	}
	last.Sets, last.Reserve = 1, 0
	slot.Rows = rows
}

// denser shortens a slot's rests to the least its bands take, and starts it a mark lighter.
func denser(t *week.Trainee, s *plan.Session, i int) {
	slot := &s.Slots[i]
	slot.Each(func(r *plan.Row) { r.RestS = min(r.RestS, t.LeastRest(r.RepsLow)) })
	l := slot.First().Load
	hand := s.Hand(i, 0, t.Floor())
	if l == nil || l.Kg == nil && l.AddedKg == nil || hand == nil {
		return
	}
	rack := t.Floor().Rack(slot.SetUpIn(0))
	if lighter, ok := rack.Off(*hand, -1); ok {
		slot.Rows[0].Load = dose.Carried(rack, lighter)
	}
}

// Bounds of a slot's sets while a block's sets climb or fall.
const (
	mostSets   = 5
	fewestSets = 2
)

// atOnce is the most a head may change by from one turn to the next, effective sets.
const atOnce = 1.0 + 1e-6

// grow is a turn with a set more, or less, for every head that is built and has room inside its
// target; the one that has least goes first. Nothing goes over what the week's audit would find.
func grow(t *week.Trainee, turn []plan.Planned, by int) []plan.Planned {
	at := week.Week{Sessions: turn}
	first := at.Count(t)
	now := first
	changed := map[[2]int]bool{}
	heads := make([]int, arm.HeadCount)
	for h := range heads {
		heads[h] = h
	}
	filled := func(h int) float64 { return first.Heads[h].Total.Mid / max(first.Heads[h].Target.High, 1) }
	slices.SortStableFunc(heads, func(a, b int) int { return by * cmp.Compare(filled(a), filled(b)) })
	for _, h := range heads {
		line := &now.Heads[h]
		has := now.Heads[h].Total.Mid - first.Heads[h].Total.Mid
		if line.Level == priority.Maintain || by > 0 && has > atOnce/2 || by < 0 && has < -atOnce/2 {
			continue
		}
		best, most := [2]int{-1, -1}, 0.0
		var next week.Week
		var counted week.Ledger
		for i := range at.Sessions {
			for j := range at.Sessions[i].Slots {
				slot := &at.Sessions[i].Slots[j]
				gives, _ := t.Gives(slot.SetUp)
				if changed[[2]int{i, j}] || slot.Locked || at.Sessions[i].Locked || gives[h].Mid <= most ||
					by > 0 && slot.Sets() >= mostSets || by < 0 && slot.Sets() <= fewestSets {
					continue
				}
				w := week.Week{Sessions: slices.Clone(at.Sessions)}
				w.Sessions[i].Session = copyOf(&at.Sessions[i].Session)
				if by > 0 {
					w.Sessions[i].Slots[j].Add(1)
				} else {
					w.Sessions[i].Slots[j].Less()
				}
				l := w.Count(t)
				if within(t, &first, &now, &l) && len(t.Check(&w.Sessions[i].Session)) <= len(t.Check(&at.Sessions[i].Session)) {
					best, most, next, counted = [2]int{i, j}, gives[h].Mid, w, l
				}
			}
		}
		if best[0] >= 0 {
			changed[best], at, now = true, next, counted
		}
	}
	return at.Sessions
}

// within says whether a turn after a change keeps what the one before it kept.
func within(t *week.Trainee, first, was, is *week.Ledger) bool {
	for h := range is.Heads {
		a, b, f := &was.Heads[h], &is.Heads[h], &first.Heads[h]
		if d := b.Total.Mid - f.Total.Mid; d > atOnce || d < -atOnce {
			return false
		}
		if b.Level != priority.Maintain &&
			(b.Total.Mid > max(b.Target.High, a.Total.Mid) || b.Total.Mid < min(b.Target.Low, a.Total.Mid)) {
			return false
		}
	}
	return holds(t, was, is)
}
