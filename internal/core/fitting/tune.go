package fitting

import (
	"sort"

	"musculus/internal/core/arm"
	"musculus/internal/core/effort"
	"musculus/internal/core/movement"
	"musculus/internal/core/stance"
)

// Aim is what a set-up is tuned for.
type Aim struct {
	Head   arm.HeadIndex
	Zone   arm.Zone // "" for any length
	Stance *stance.Stance
	// KeepRange leaves both ends of the elbow's range as they are.
	KeepRange bool
	// Allowed says whether a set-up may be offered; nil allows all.
	Allowed func(movement.SetUp, *effort.Profile) bool
	// Look profiles and reads a set-up where that is remembered, nil for what cannot be
	// done; nil: everything is worked out here.
	Look func(movement.SetUp) (*effort.Profile, *stance.Reading)
}

// look profiles and reads a set-up; nil for what cannot be done.
func (a *Aim) look(s movement.SetUp, y *effort.Yardstick) (*effort.Profile, *stance.Reading) {
	if a.Look != nil {
		return a.Look(s)
	}
	p, err := s.Profile(y)
	if err != nil {
		return nil, nil
	}
	r := stance.Shipped.Read(a.Stance, s, p)
	return p, &r
}

// Tuned is one set-up found, with what it scores and what each changed setting
// is worth.
type Tuned struct {
	SetUp   movement.SetUp
	Profile *effort.Profile
	Bias    float64 // of the head under the stance
	InZone  float64 // part of the head's tension in the zone
	Score   float64 // bias × part in the zone × (1 − idle)
	Worth   []Worth
}

// Worth is what a setting's change adds to the score, the others staying.
type Worth struct {
	Key      movement.Key
	From, To movement.Value
	Score    float64
}

// tuner searches one movement's settings.
type tuner struct {
	y    *effort.Yardstick
	aim  *Aim
	seen map[string]Tuned
}

// evaluate scores a set-up; −1 for what cannot be done or is not allowed.
func (t *tuner) evaluate(s movement.SetUp) Tuned {
	key := s.Key()
	if got, ok := t.seen[key]; ok {
		return got
	}
	out := Tuned{SetUp: s, Score: -1}
	if p, r := t.aim.look(s, t.y); p != nil && p.Heads[t.aim.Head].Agonist {
		if t.aim.Allowed == nil || t.aim.Allowed(s, p) {
			out.Profile = p
			out.Bias = r[t.aim.Head].Bar
			out.InZone = 1
			if t.aim.Zone != "" {
				out.InZone = p.Heads[t.aim.Head].InZone[t.aim.Zone.Index()]
			}
			out.Score = out.Bias * out.InZone * (1 - p.IdleFraction())
		}
	}
	t.seen[key] = out
	return out
}

// matters says whether a setting is searched: not those that cannot change the
// computation, and not the range's ends when they are to stay.
func (a *Aim) matters(k movement.Key) bool {
	if k.IsHeld() {
		return false
	}
	switch k {
	case movement.Hands, movement.Implement, movement.PositionKey:
		return false
	case movement.ElbowFrom, movement.ElbowTo:
		return !a.KeepRange
	}
	return true
}

// Tune searches a movement's free settings for the best set-ups for an aim,
// starting from the given one: steps along one setting at a time, from several
// starts, until none helps. It returns up to three, the best first; none when
// the movement is graded or does not work the head.
func Tune(from movement.SetUp, y *effort.Yardstick, aim Aim) []Tuned {
	t := &tuner{y: y, aim: &aim, seen: map[string]Tuned{}}
	m := from.Movement
	if !m.Computed() {
		return nil
	}
	base := m.Default()
	if aim.KeepRange {
		base = from
	}
	starts := []movement.SetUp{from, base}
	for i := range m.Settings { // both ends of each setting, as further starts
		setting := &m.Settings[i]
		if !aim.matters(setting.Key) {
			continue
		}
		all := setting.Values()
		for _, v := range []movement.Value{all[0], all[len(all)-1]} {
			if s, err := base.With(setting.Key, v); err == nil {
				starts = append(starts, s)
			}
		}
	}
	sort.SliceStable(starts, func(i, j int) bool { return t.evaluate(starts[i]).Score > t.evaluate(starts[j]).Score })
	best := t.evaluate(starts[0])
	for _, s := range starts[:min(len(starts), 3)] {
		if e := t.climb(t.evaluate(s)); e.Score > best.Score {
			best = e
		}
	}
	// What single steps cannot reach: both ends of the range together, then
	// another setting with the range sliding after it.
	best = t.climb(t.bothEnds(best))
	t.climb(t.askew(best))
	return t.best(from)
}

// Score is what Tune maximises, of one set-up; 0 when it cannot be done or does
// not work the head.
func Score(s movement.SetUp, y *effort.Yardstick, aim Aim) float64 {
	if !s.Movement.Computed() {
		return 0
	}
	t := &tuner{y: y, aim: &aim, seen: map[string]Tuned{}}
	return max(t.evaluate(s).Score, 0)
}

// climb improves one setting at a time until no single one helps.
func (t *tuner) climb(here Tuned) Tuned {
	for range 12 {
		better := here
		for i := range here.SetUp.Movement.Settings {
			setting := &here.SetUp.Movement.Settings[i]
			if !t.aim.matters(setting.Key) {
				continue
			}
			for _, v := range setting.Values() {
				if next, err := better.SetUp.With(setting.Key, v); err == nil {
					if e := t.evaluate(next); e.Score > better.Score+1e-12 {
						better = e
					}
				}
			}
		}
		if better.Score <= here.Score+1e-12 {
			break
		}
		here = better
	}
	return here
}

// bothEnds tries pairs of ends of the elbow's range, every other step, and
// slides on from the best.
func (t *tuner) bothEnds(best Tuned) Tuned {
	if t.aim.KeepRange {
		return best
	}
	from, to := best.SetUp.Movement.Setting(movement.ElbowFrom), best.SetUp.Movement.Setting(movement.ElbowTo)
	wide := best.SetUp // with the end out of the way, so that every start can be set
	limit := to.Steps()[len(to.Steps())-1]
	if best.SetUp.Movement.Action == movement.Extension {
		limit = to.Steps()[0]
	}
	if w, err := wide.With(movement.ElbowTo, movement.Num(limit)); err == nil {
		wide = w
	}
	starts, ends := from.Values(), to.Values()
	for i := 0; i < len(starts); i += 2 {
		start, err := wide.With(movement.ElbowFrom, starts[i])
		if err != nil {
			continue
		}
		for j := 0; j < len(ends); j += 2 {
			if s, err := start.With(movement.ElbowTo, ends[j]); err == nil {
				if e := t.evaluate(s); e.Score > best.Score+1e-12 {
					best = e
				}
			}
		}
	}
	if slid := t.slide(best.SetUp); slid.Score > best.Score {
		best = slid
	}
	return best
}

// askew turns one setting to other values and slides the range after it, which
// single steps cannot do when both must move to gain.
func (t *tuner) askew(best Tuned) Tuned {
	here := best.SetUp
	for i := range here.Movement.Settings {
		setting := &here.Movement.Settings[i]
		if !t.aim.matters(setting.Key) || setting.IsWord() || setting.Key == movement.ElbowFrom || setting.Key == movement.ElbowTo {
			continue
		}
		all := setting.Values()
		every := 1 + len(all)/13 // rules begin at thresholds, so far steps count too
		for i := 0; i < len(all); i += every {
			if s, err := here.With(setting.Key, all[i]); err == nil {
				if e := t.slide(s); e.Score > best.Score+1e-12 {
					best = e
				}
			}
		}
	}
	return best
}

// slide moves the ends of the range by a step, alone or together, while it
// helps.
func (t *tuner) slide(s movement.SetUp) Tuned {
	here := t.evaluate(s)
	if t.aim.KeepRange {
		return here
	}
	from, to := s.Movement.Setting(movement.ElbowFrom), s.Movement.Setting(movement.ElbowTo)
	for range 8 {
		better := here
		for a := -1.0; a <= 1; a++ {
			for b := -1.0; b <= 1; b++ {
				moved, err := here.SetUp.With(movement.ElbowFrom, movement.Num(here.SetUp.Number(movement.ElbowFrom)+a*from.Step))
				if err != nil {
					continue
				}
				if moved, err = moved.With(movement.ElbowTo, movement.Num(here.SetUp.Number(movement.ElbowTo)+b*to.Step)); err != nil {
					continue
				}
				if e := t.evaluate(moved); e.Score > better.Score {
					better = e
				}
			}
		}
		if better.Score <= here.Score {
			break
		}
		here = better
	}
	return here
}

// best picks up to three set-ups that differ visibly, and says what each
// setting of theirs is worth against where the search began.
func (t *tuner) best(from movement.SetUp) []Tuned {
	var all []Tuned
	for _, e := range t.seen {
		if e.Score > 0 {
			all = append(all, e)
		}
	}
	sort.Slice(all, func(i, j int) bool {
		if all[i].Score != all[j].Score {
			return all[i].Score > all[j].Score
		}
		return all[i].SetUp.Key() < all[j].SetUp.Key()
	})
	free := 0 // settings searched: with few of them, one step apart is apart enough
	for i := range from.Movement.Settings {
		if t.aim.matters(from.Movement.Settings[i].Key) {
			free++
		}
	}
	apart := 2
	if free < 3 {
		apart = 1
	}
	var out []Tuned
	for _, e := range all {
		distinct := true
		for _, o := range out {
			if differing(e.SetUp, o.SetUp) < apart {
				distinct = false
			}
		}
		if distinct || len(out) == 0 {
			out = append(out, e)
		}
		if len(out) == 3 {
			break
		}
	}
	for i := range out {
		out[i].Worth = t.worth(from, out[i])
	}
	return out
}

// differing counts the settings two set-ups of a movement differ in.
func differing(a, b movement.SetUp) (n int) {
	for i := range a.Movement.Settings {
		k := a.Movement.Settings[i].Key
		va, _ := a.Value(k)
		vb, _ := b.Value(k)
		if va != vb {
			n++
		}
	}
	return
}

// worth takes back each change on its own and sees what it costs.
func (t *tuner) worth(from movement.SetUp, to Tuned) []Worth {
	var out []Worth
	for i := range from.Movement.Settings {
		k := from.Movement.Settings[i].Key
		a, _ := from.Value(k)
		b, _ := to.SetUp.Value(k)
		if a == b {
			continue
		}
		w := Worth{Key: k, From: a, To: b, Score: to.Score}
		if back, err := to.SetUp.With(k, a); err == nil {
			w.Score = to.Score - max(t.evaluate(back).Score, 0)
		}
		out = append(out, w)
	}
	sort.SliceStable(out, func(i, j int) bool { return out[i].Score > out[j].Score })
	return out
}
