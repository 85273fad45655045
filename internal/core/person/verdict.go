package person

import (
	"fmt"
	"slices"

	"musculus/internal/core/effort"
	"musculus/internal/core/movement"
	"musculus/internal/core/text"
)

// Ruling is what a client may do with a set-up.
type Ruling string

// The rulings, each stricter than the one before.
const (
	Allowed Ruling = "allowed"
	Modify  Ruling = "modify"
	Avoid   Ruling = "avoid"
)

func stricter(a, b Ruling) Ruling {
	order := []Ruling{Allowed, Modify, Avoid}
	return order[max(slices.Index(order, a), slices.Index(order, b))]
}

// Reason is one thing that speaks against a set-up.
type Reason struct {
	Ruling Ruling
	Words  string
	Limits []Limit // what to change; none where nothing can be
}

// Verdict is a ruling with its reasons, the gravest first.
type Verdict struct {
	Ruling     Ruling
	Reasons    []Reason
	ByCaps     bool   // caps cannot be overridden
	Overridden string // the coach's reason, "" where she let it stand
}

// Barred says whether the set-up is not to be offered.
func (v *Verdict) Barred() bool { return v.Ruling == Avoid && (v.Overridden == "" || v.ByCaps) }

// Fence is what keeps a client from set-ups.
type Fence struct {
	Scores    Scores
	Mobility  Mobility
	Caps      Caps
	Overrides map[string]string // movements, with the coach's reason
}

// Judge rules on a set-up; see the function Judge. A nil fence allows everything.
func (f *Fence) Judge(s movement.SetUp, p *effort.Profile) Verdict {
	if f == nil {
		return Verdict{Ruling: Allowed}
	}
	v := Judge(s, p, f.Scores, f.Mobility, f.Caps)
	v.Overridden = f.Overrides[s.Movement.ID]
	return v
}

// Mobility is what the checks showed; "" is not checked.
type Mobility struct {
	OneWeight  string `json:"one_weight"`  // elbows stay forward overhead with one weight in two hands: yes, no
	TwoWeights string `json:"two_weights"` // with two weights
	DipLevel   string `json:"dip_level"`   // assisted, bars, loaded
	CleanDips  int    `json:"clean_dips"`  // reps on the bars at a level upper arm, without pain, swing or dropping; 0: none recorded
	CleanPulls int    `json:"clean_pulls"` // pull-ups from a quiet hang, without added load; 0: none recorded
}

// Soreness is what a joint's score counts as: nothing, "sore" from where set-ups begin to be questioned, "bad" from where
// what loads the joint most is avoided.
func Soreness(score int) string {
	switch {
	case score > overScore:
		return "bad"
	case score >= soreFrom:
		return "sore"
	}
	return ""
}

// Where a set-up's own numbers speak against it (from a joint score of 2 on).
const (
	soreFrom      = 2
	wristFrom     = 3
	overScore     = 3
	behindFrom    = -30.0 // shoulder elevation under which the front of the shoulder is loaded behind the body
	deepBend      = 110.0 // elbow angle of a deep bend
	deepDemand    = 0.45
	overheadFrom  = 140.0
	driftFrom     = -20.0 // rotation away from the movement's own: elbows that drift outward
	narrowGrip    = 0.8
	tendonElbow   = 40.0
	tendonDemand  = 0.6 * 0.75 // 60 % of the peak
	supinatedFrom = 45.0
	cleanDips     = 4
)

// Judge rules on a set-up for a client from the joint record, the mobility
// checks, the caps and the set-up's own numbers (p nil for graded work).
func Judge(s movement.SetUp, p *effort.Profile, scores Scores, mob Mobility, caps Caps) Verdict {
	v := &Verdict{Ruling: Allowed}
	scored := s.Joints()
	for _, j := range movement.Joints {
		if score := scores.Worse(j); score >= soreFrom {
			v.byFamily(s, j, score, scored.Of(j))
			v.byNumbers(s, p, j, score)
		}
	}
	v.byMobility(s, mob)
	if why := caps.Lying(s); why != "" {
		v.ByCaps = true
		v.add(Avoid, text.Capital(why)+".")
	}
	slices.SortStableFunc(v.Reasons, func(a, b Reason) int {
		if a.Ruling == b.Ruling {
			return 0
		}
		if stricter(a.Ruling, b.Ruling) == a.Ruling {
			return -1
		}
		return 1
	})
	return *v
}

func (v *Verdict) add(r Ruling, words string, limits ...Limit) {
	v.Ruling = stricter(v.Ruling, r)
	v.Reasons = append(v.Reasons, Reason{r, words, limits})
}

// lighter is how what hurts a little may still be done.
var lighter = fmt.Sprintf(": lighter, at least %d in reserve, stop over %d.", capsOf[Cautious].MinReserve, overScore)

// byFamily is the rule of the joint score j against the family's score k.
func (v *Verdict) byFamily(s movement.SetUp, j movement.Joint, score, k int) {
	what := fmt.Sprintf("%s %d of 10; this set-up loads it %d of 3", text.Capital(j.Words()), score, k)
	eased, relief := relief(s, j, k)
	switch {
	case score > overScore && k >= 2 && !(len(relief) > 0 && eased < 2):
		v.add(Avoid, what+".")
	case score > overScore && k >= 2:
		v.add(Avoid, what+"; "+limitWords(s, relief)+" would spare it.", relief...)
	case score > overScore && k == 1:
		v.add(Modify, what+lighter, gentler(s, j)...)
	case score <= overScore && k >= 3 && len(relief) > 0 && eased < k:
		v.add(Modify, what+"; "+limitWords(s, relief)+".", relief...)
	case score <= overScore && k >= 3:
		v.add(Avoid, what+".")
	case score <= overScore && k == 2:
		limits := relief
		if len(limits) == 0 {
			limits = gentler(s, j)
		}
		words := lighter
		if len(limits) > 0 {
			words = "; " + limitWords(s, limits) + "."
		}
		v.add(Modify, what+words, limits...)
	}
}

// relief finds the settings that undo what makes this set-up harder on a joint
// than its movement need be, and the score that is left then.
func relief(s movement.SetUp, j movement.Joint, k int) (int, []Limit) {
	eased := s.Movement.Joints.Of(j)
	var out []Limit
	for i := range s.Movement.Family.Harder {
		h := &s.Movement.Family.Harder[i]
		if h.Joint != j || !h.Applies(s) || h.Score <= eased {
			continue
		}
		if h.Word != "" {
			if other := otherWord(s, h.Setting, h.Word); other != "" {
				out = append(out, Limit{Key: h.Setting, Word: other})
			}
		} else if setting := s.Movement.Setting(h.Setting); setting != nil && setting.Max >= h.Under {
			out = append(out, least(h.Setting, h.Under))
		}
	}
	if len(out) == 0 {
		return k, nil
	}
	return eased, out
}

// gentler is what usually spares a joint, where the set-up has the setting and is
// not there already.
func gentler(s movement.SetUp, j movement.Joint) []Limit {
	has := func(k movement.Key) bool { return s.Movement.Setting(k) != nil }
	from := movement.ElbowFrom
	if s.Movement.Action == movement.Extension {
		from = movement.ElbowTo // the straight end
	}
	switch {
	case j == movement.Wrist && s.Implement() == movement.BarStraight:
		if w := otherWord(s, movement.Implement, string(movement.BarStraight)); w != "" {
			return []Limit{{Key: movement.Implement, Word: w}}
		}
	case j == movement.ElbowFront && has(from) && s.Number(from) < 20:
		return []Limit{least(from, 20)}
	case j == movement.ElbowBack && s.Movement.Action == movement.Extension && has(movement.ElbowFrom) &&
		s.Number(movement.ElbowFrom) > deepBend:
		return []Limit{most(movement.ElbowFrom, deepBend)}
	case j == movement.ShoulderFront && has(movement.Depth) && s.Number(movement.Depth) > -15:
		return []Limit{most(movement.Depth, -15)}
	case j == movement.ShoulderFront && has(movement.Tuck) && s.Number(movement.Tuck) > 45:
		return []Limit{most(movement.Tuck, 45)}
	}
	return nil
}

// byNumbers are the rules that look at the set-up's own numbers.
func (v *Verdict) byNumbers(s movement.SetUp, p *effort.Profile, j movement.Joint, score int) {
	e := s.Effort()
	switch j {
	case movement.ShoulderFront:
		switch {
		case s.Movement.Action == movement.Dip && s.Implement() == movement.BenchEdge:
			v.add(Avoid, "Bench dips load the front of the shoulder far behind the body.")
		case s.Movement.Action == movement.Dip && s.Number(movement.Depth) > 0:
			v.add(Avoid, "Dips below a level upper arm load the front of the shoulder behind the body.", most(movement.Depth, 0))
		case s.Movement.Computed() && e.From.ShoulderElevation <= behindFrom:
			var limits []Limit
			if b := s.Movement.Setting(movement.Bench); b != nil && s.Movement.ArmsKeep && b.Max-90 > behindFrom {
				limits = append(limits, least(movement.Bench, min(b.Max, behindFrom+90+5)))
			}
			v.add(
				Avoid,
				fmt.Sprintf(
					"The loaded arm starts %.0f° behind the body, from %.0f° on too much for a sore shoulder.",
					-e.From.ShoulderElevation,
					-behindFrom,
				),
				limits...)
		}
	case movement.ElbowFront, movement.ElbowBack:
		if p != nil && deepDemandOf(p) > deepDemand {
			key := movement.ElbowTo
			if s.Movement.Action == movement.Extension {
				key = movement.ElbowFrom
			}
			v.add(
				Modify,
				fmt.Sprintf(
					"Bent past %.0f° it asks for %.0f %% of what the elbow can: cut the range there.",
					deepBend,
					100*deepDemandOf(p),
				),
				most(key, deepBend),
			)
		}
		if j == movement.ElbowFront && p != nil && tendonLoaded(s, p) {
			v.add(
				Modify,
				"Palm up on a pad, nearly straight and heavy: the lower biceps tendon carries it. Start more bent, no bounce.",
				least(movement.ElbowFrom, tendonElbow),
			)
		}
	case movement.ShoulderTop:
		own := s.Movement.Default().Effort().From.ShoulderRotation
		if s.Movement.Computed() && max(e.From.ShoulderElevation, e.To.ShoulderElevation) >= overheadFrom &&
			e.From.ShoulderRotation-own <= driftFrom {
			v.add(Avoid, "Overhead with elbows that drift outward pinches the top of the shoulder.", least(movement.Rho, own))
		}
		if overheadExtension(s) && s.Implement() == movement.Shared {
			v.add(
				Modify,
				"One weight in two hands turns the arms in: with a sore shoulder top two weights, one arm or a cable come first.",
			)
		}
	case movement.Wrist:
		if score < wristFrom {
			return
		}
		if s.Implement() == movement.BarStraight {
			var limits []Limit
			if w := otherWord(s, movement.Implement, string(movement.BarStraight)); w != "" {
				limits = append(limits, Limit{Key: movement.Implement, Word: w})
			}
			v.add(Modify, "A straight bar holds the wrist where it complains: cambered bar, dumbbells or rope.", limits...)
		}
		if width, ok := s.Value(movement.GripWidth); ok && width.Number < narrowGrip {
			v.add(
				Modify,
				"A grip narrower than 0.8 of the shoulders bends the wrist sideways.",
				least(movement.GripWidth, narrowGrip),
			)
		}
	}
}

// deepDemandOf is the most a set-up asks for in a deep bend.
func deepDemandOf(p *effort.Profile) float64 {
	out := 0.0
	for i, e := range p.Elbow {
		if e > deepBend+1e-9 {
			out = max(out, p.Curve[i])
		}
	}
	return out
}

// tendonLoaded says whether the lower biceps tendon is loaded hard: over 60 % of
// the peak at under 40°, palm up, the upper arm supported.
func tendonLoaded(s movement.SetUp, p *effort.Profile) bool {
	e := s.Effort()
	if s.Movement.Action != movement.Flexion || !e.ArmSupported || e.From.ForearmRotation < supinatedFrom {
		return false
	}
	for i, elbow := range p.Elbow {
		if elbow < tendonElbow-1e-9 && p.Curve[i] > tendonDemand {
			return true
		}
	}
	return false
}

// overheadExtension says whether a set-up straightens the elbows overhead with the
// trunk up, where they tend to drift apart.
func overheadExtension(s movement.SetUp) bool {
	e := s.Effort()
	return s.Movement.Computed() && s.Movement.Action == movement.Extension &&
		max(e.From.ShoulderElevation, e.To.ShoulderElevation) >= overheadFrom &&
		e.TrunkLean > -30
}

// byMobility is what the checks allow. One weight in two hands and two weights are
// checks of their own: neither speaks for the other.
func (v *Verdict) byMobility(s movement.SetUp, mob Mobility) {
	switch overhead := overheadExtension(s); {
	case overhead && s.Implement() == movement.Shared && mob.OneWeight == "no":
		v.add(
			Avoid,
			"Elbows do not stay forward overhead with one weight in two hands. A cable or one arm leaves them free; a tilted "+
				"lying extension keeps the length.",
		)
	case overhead && s.Implement() == movement.Dumbbell && s.Hands() == movement.BothArms && mob.TwoWeights == "no":
		v.add(
			Avoid,
			"Elbows do not stay forward overhead with two weights. A cable or one arm asks for less control; a tilted lying "+
				"extension keeps the length.",
		)
	}
	if s.Movement.ID == "dip_bars" && mob.DipLevel == "assisted" && mob.CleanDips < cleanDips {
		v.add(
			Avoid,
			fmt.Sprintf(
				"Not on the bars yet: assisted dips or close push-ups until a level upper arm is reached without pain, swing or dropping for %d reps.",
				cleanDips,
			),
		)
	}
	if s.Movement.Added {
		v.byLadder(s, mob)
	}
}

func abs(x float64) float64 { return max(x, -x) }

func lower(s string) string {
	if s[0] >= 'A' && s[0] <= 'Z' {
		return string(s[0]-'A'+'a') + s[1:]
	}
	return s
}
