package draft

import (
	"cmp"
	"math"
	"runtime"
	"slices"
	"sync"

	"musculus/internal/core/arm"
	"musculus/internal/core/effort"
	"musculus/internal/core/fitting"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/plan"
	"musculus/internal/core/priority"
	"musculus/internal/core/stance"
	"musculus/internal/core/week"
)

// Client is whom a week is composed for.
type Client struct {
	Trainee   *week.Trainee
	Catalogue *movement.Catalogue
	// Comfort is how comfortable a set-up was when it was tried, 0–10, and whether it was
	// dropped; nil: nothing was tried.
	Comfort func(movement.SetUp) (comfort int, dropped bool)
}

// What leaves a set-up out, and where nothing is known of it.
const (
	leastComfort   = 4
	unknownComfort = 5
	mostPooled     = 80
	swung          = "kickback_swing_start" // begins with a swing: only for who wants one
)

// Pool is what may be used for a client: candidates, and which of them are one idea.
type Pool struct {
	Candidates []Candidate
	Twins      [][2]int
	Cut        int // so many more could not be kept

	shapes []*fitting.Shape
}

// pooled is a candidate on its way into the pool.
type pooled struct {
	Candidate
	shape *fitting.Shape
	worth float64 // of a set, by what the heads are aimed at
}

// Stock looks every movement over that the client may do, as it comes and, for the heads
// that are to grow, tuned for them at short and at long length, and keeps at most 80 that
// differ. It works out hundreds of set-ups and may be kept for as long as the client's body,
// room, joints, caps, preferences, aims and series stay as they are.
func Stock(cl *Client) *Pool {
	cl.Trainee.Remember()
	found := make([][]pooled, len(cl.Catalogue.Movements))
	next := make(chan int)
	var wait sync.WaitGroup
	for range runtime.GOMAXPROCS(0) {
		wait.Go(func() {
			for i := range next {
				found[i] = cl.of(cl.Catalogue.Movements[i])
			}
		})
	}
	for i := range found {
		next <- i
	}
	close(next)
	wait.Wait()
	return pool(slices.Concat(found...))
}

// of are the candidates of one movement.
func (cl *Client) of(m *movement.Movement) (out []pooled) {
	if m.Action == movement.Turn || m.TopRange {
		return nil // the one trains no head, the other goes along a course of its own
	}
	t := cl.Trainee
	if m.ID == swung && !t.Prefer.Is(person.AxisSwing, "after") {
		return nil
	}
	seen := map[string]bool{}
	add := func(s movement.SetUp) {
		if seen[s.Key()] || !t.May(s) {
			return
		}
		seen[s.Key()] = true
		if c, ok := cl.candidate(s); ok {
			out = append(out, c)
		}
	}
	var first *movement.SetUp
	for _, way := range m.Default().Ways() {
		s, ok := t.Bent(t.Preferred(way))
		if !ok {
			if s, ok = t.Bent(way); !ok {
				continue
			}
		}
		if first == nil {
			first = &s
		}
		add(s)
	}
	if first == nil || !m.Computed() {
		return out
	}
	type looked struct {
		p *effort.Profile
		r *stance.Reading
	}
	known, allowed := map[string]looked{}, map[string]bool{}
	look := func(s movement.SetUp) (*effort.Profile, *stance.Reading) {
		key := s.Key()
		if k, ok := known[key]; ok {
			return k.p, k.r
		}
		var k looked
		if p, err := s.Profile(t.Yardstick); err == nil {
			r := stance.Shipped.Read(t.Stance, s, p)
			k = looked{p, &r}
		}
		known[key] = k
		return k.p, k.r
	}
	may := func(s movement.SetUp, p *effort.Profile) bool {
		key := s.Key()
		ok, asked := allowed[key]
		if !asked {
			ok = t.MayWith(s, p)
			allowed[key] = ok
		}
		return ok
	}
	p, _ := look(*first)
	for h, level := range cl.levels() {
		if level == priority.Maintain || p == nil || !p.Heads[h].Agonist {
			continue
		}
		for _, zone := range []arm.Zone{arm.Short, arm.Long} {
			aim := fitting.Aim{Head: arm.HeadIndex(h), Zone: zone, Stance: t.Stance, KeepRange: true, Allowed: may, Look: look}
			if tuned := fitting.Tune(*first, t.Yardstick, aim); len(tuned) > 0 {
				add(tuned[0].SetUp)
			}
		}
	}
	return out
}

func (cl *Client) levels() (out [arm.HeadCount]priority.Level) {
	for h := range out {
		out[h] = priority.Maintain
		if a := cl.Trainee.Aims; a != nil && a.Levels[h] != "" {
			out[h] = a.Levels[h]
		}
	}
	return out
}

func perMyriad(x float64) int { return int(math.Round(x * Per)) }

// givesFrom reads what sets give as the ledger counts it.
func givesFrom(heads *[arm.HeadCount]week.Effective, zones *[arm.HeadCount][3]float64) (out Gives) {
	for h := range heads {
		out.Mid[h] = perMyriad(heads[h].Mid)
		for k := range out.Under {
			out.Under[k][h] = perMyriad(heads[h].Under(k))
		}
		if zones != nil {
			out.Short[h], out.Long[h] = perMyriad(zones[h][0]), perMyriad(zones[h][2])
		}
	}
	return out
}

func jointsOf(s movement.SetUp, sets int) (out Joints) {
	scores := s.Joints()
	for i, j := range movement.Joints {
		out[i] = sets * scores.Of(j)
	}
	return out
}

// candidate is a set-up as it would be done; false for what she dropped, disliked or has
// only too heavy a load for.
func (cl *Client) candidate(s movement.SetUp) (pooled, bool) {
	t := cl.Trainee
	comfort := unknownComfort
	if cl.Comfort != nil {
		known, dropped := cl.Comfort(s)
		if dropped || known >= 0 && known < leastComfort {
			return pooled{}, false
		}
		if known >= 0 {
			comfort = known
		}
	}
	if t.TooHeavy(s) {
		return pooled{}, false
	}
	heads, zones := t.Gives(s)
	set, ramp := t.SetSeconds(s)
	most := mostSets
	if t.Caps.MostSets > 0 {
		most = min(most, t.Caps.MostSets)
	}
	c := Candidate{ID: s.Key(), Name: s.Title(), Movement: s.Movement.ID, Settings: s.Turned(), Group: plan.GroupOf(s),
		Gives: givesFrom(&heads, &zones), Joints: jointsOf(s, 1), SetS: int(math.Ceil(set)), RampS: int(math.Ceil(ramp)), Most: most,
		Comfort: comfort, Series: t.Own[s.Key()].Logged > 0, Ideas: ideasOf(s), setUp: s}
	out := pooled{Candidate: c, shape: t.Shape(s)}
	levels := cl.levels()
	w := Usual()
	for h := range heads {
		counts := w.Under[levels[h]]
		if levels[h] == priority.Maintain {
			counts /= 2 // what rides along is seldom short
		}
		out.worth += counts * heads[h].Mid
		if levels[h] == priority.Prioritise {
			out.worth += w.Length * max(zones[h][0], zones[h][2]) / 2
		}
	}
	return out, out.worth > 0 && out.shape != nil
}

// noWorse says whether a candidate could stand for another in everything but what it gives.
func (o *pooled) noWorse(than *pooled) bool {
	for j := range o.Joints {
		if o.Joints[j] > than.Joints[j] {
			return false
		}
	}
	return o.SetS <= than.SetS && o.RampS <= than.RampS && (o.Series || !than.Series) && o.Comfort >= than.Comfort && o.Group == than.Group
}

// pool keeps what differs, what could add most first.
func pool(all []pooled) *Pool {
	slices.SortStableFunc(all, func(a, b pooled) int {
		return cmp.Or(cmp.Compare(b.worth, a.worth), cmp.Compare(a.ID, b.ID))
	})
	var kept []pooled
	ids := map[string]bool{}
	for i := range all {
		o := &all[i]
		if ids[o.ID] || slices.ContainsFunc(kept, func(k pooled) bool {
			return k.noWorse(o) && fitting.Distance(k.shape, o.shape) < fitting.SameIdea
		}) {
			continue
		}
		ids[o.ID] = true
		kept = append(kept, *o)
	}
	out := &Pool{}
	kept = out.cut(kept)
	for i := range kept {
		out.Candidates = append(out.Candidates, kept[i].Candidate)
		out.shapes = append(out.shapes, kept[i].shape)
		for j := range i {
			if fitting.Distance(kept[i].shape, kept[j].shape) < fitting.SameIdea {
				out.Twins = append(out.Twins, [2]int{j, i})
			}
		}
	}
	return out
}

// cut keeps 80 at most: the groups in turn, each idea's best in any case.
func (p *Pool) cut(kept []pooled) []pooled {
	if len(kept) <= mostPooled {
		return kept
	}
	in := map[int]bool{}
	for i := range ideas {
		for k := range kept {
			if slices.Contains(kept[k].Ideas, ideas[i].id) {
				in[k] = true
				break
			}
		}
	}
	at := [2]int{}
	for group := 0; len(in) < mostPooled; group = 1 - group {
		for at[group] < len(kept) && (groupIndex(kept[at[group]].Group) != group || in[at[group]]) {
			at[group]++
		}
		if at[group] < len(kept) {
			in[at[group]] = true
		}
	}
	var out []pooled
	for i := range kept {
		if in[i] {
			out = append(out, kept[i])
		}
	}
	p.Cut = len(kept) - len(out)
	return out
}

// With is the pool with more set-ups: those of a week somebody wants to start from. What she
// may not do, and what is there already, is left out.
func (p *Pool) With(cl *Client, sets []movement.SetUp) *Pool {
	out := &Pool{Candidates: slices.Clone(p.Candidates), Twins: slices.Clone(p.Twins), Cut: p.Cut, shapes: slices.Clone(p.shapes)}
	for _, s := range sets {
		if slices.ContainsFunc(out.Candidates, func(c Candidate) bool { return c.ID == s.Key() }) || !cl.Trainee.May(s) {
			continue
		}
		c, ok := cl.candidate(s)
		if !ok {
			continue
		}
		n := len(out.Candidates)
		for i, shape := range out.shapes {
			if fitting.Distance(shape, c.shape) < fitting.SameIdea {
				out.Twins = append(out.Twins, [2]int{i, n})
			}
		}
		out.Candidates, out.shapes = append(out.Candidates, c.Candidate), append(out.shapes, c.shape)
	}
	return out
}
