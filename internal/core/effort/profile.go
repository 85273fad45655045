package effort

import (
	"math"

	"musculus/internal/core/arm"
)

// Profile is what one repetition of a set-up gives.
type Profile struct {
	Load      LoadKind
	Working   float64 // the load whose hardest sample asks 0.75 of capacity: N, for a cam N·m
	Ratio     float64 // Working over that of the plain movement of its side; 0 for a cam
	Flexion   bool
	Elbow     [Samples]float64 // elbow angle of each sample, degrees
	Curve     [Samples]float64 // demand over capacity at each sample
	Hardest   int              // index of the hardest sample
	Idle      [][2]float64     // stretches of the range with hardly any demand, elbow angles in lifting order
	PullsBack bool             // somewhere the load pulls the other way, harder than the working effort
	Heads     [arm.HeadCount]HeadProfile
}

// HeadProfile is what one head gets of a repetition.
type HeadProfile struct {
	Agonist                 bool
	Share                   float64 // of the hardest-working head's mean tension
	Plain, Stretch, Squeeze float64 // biases against the plain movement; 0 for a non-agonist
	Mean                    float64 // tension-weighted mean length over optimal length; agonists only
	Shortest, Longest       float64 // over the samples
	Zone                    arm.Zone
	InZone                  [3]float64 // part of the tension at short, middle and long length; sums to 1 for a loaded agonist
}

// HardestAt is the sampled elbow angle at which the set-up is hardest, degrees.
func (p *Profile) HardestAt() float64 { return p.Elbow[p.Hardest] }

// IdleFraction is the part of the travelled elbow range that is idle, 0…1.
func (p *Profile) IdleFraction() float64 {
	var idle float64
	for _, stretch := range p.Idle {
		idle += math.Abs(stretch[1] - stretch[0])
	}
	return idle / math.Abs(p.Elbow[Samples-1]-p.Elbow[0])
}

// Bias is the geometric mean of the plain and the stretch bias: what mechanics
// says before any rule.
func (h *HeadProfile) Bias() float64 { return math.Sqrt(h.Plain * h.Stretch) }

// leastTension is the mean tension under which nothing is really loaded.
const leastTension = 0.05

// Greatest working loads; beyond them the line of pull hardly crosses the joint.
const (
	mostNewton      = 1000.0
	mostNewtonMetre = 300.0
)

// raw is a profile before it is told against the plain movement.
type raw struct {
	Profile
	stretchWeight, squeezeWeight [arm.HeadCount]float64 // ⟨τ·w⟩ / ⟨τ⟩

	rep *Rep // filled where somebody asks for every instant
}

// compute fills r at the working load, or at most (0: no limit) if that is
// less. It does not allocate but for idle stretches.
func (r *raw) compute(body arm.Body, setup *Setup, most float64) error {
	if err := setup.check(); err != nil {
		return err
	}
	rig := newRig(body, setup)
	var samples [Samples]sample
	for i := range samples {
		p := setup.From.Between(setup.To, float64(i)/(Samples-1))
		if !samples[i].take(&rig, p) {
			return refuse("the hand comes within 5 cm of the pulley at %.0f° of elbow bend", p.ElbowFlexion)
		}
	}
	r.Load, r.Flexion = setup.Load.Kind, rig.direction > 0
	if err := r.fitLoad(&samples, rig.direction); err != nil {
		return err
	}
	if most > 0 {
		r.Working = min(r.Working, most)
	}
	r.readDemand(&samples, rig.direction)
	return r.shareOut(&samples, setup)
}

// fitLoad finds the working load. Torques are affine in the load, so it is the
// least of the loads that bring one sample to the working effort.
func (r *raw) fitLoad(samples *[Samples]sample, direction float64) error {
	working := math.Inf(1)
	for i := range samples {
		s := &samples[i]
		room := WorkingEffort*s.capacity - direction*s.limbs[arm.Elbow]
		if room <= 0 {
			return refuse("the limbs alone are already over the effort at %.0f° of elbow bend", s.elbow)
		}
		if per := direction * s.perUnit[arm.Elbow]; per > 0 {
			working = min(working, room/per)
		}
	}
	if math.IsInf(working, 1) {
		return refuse("no positive demand anywhere: the load never resists the movement")
	}
	most, unit := mostNewton, "N"
	if r.Load == Cam {
		most, unit = mostNewtonMetre, "N·m"
	}
	if working > most {
		return refuse("the working load would be %.0f %s, over %.0f: the line of pull hardly crosses the joint", working, unit, most)
	}
	r.Working = working
	return nil
}

// readDemand fills the demand curve and what follows from it.
func (r *raw) readDemand(samples *[Samples]sample, direction float64) {
	r.Hardest, r.PullsBack = 0, false
	for i := range samples {
		s := &samples[i]
		d := direction * (s.limbs[arm.Elbow] + r.Working*s.perUnit[arm.Elbow]) / s.capacity
		r.Elbow[i], r.Curve[i] = s.elbow, d
		if d > r.Curve[r.Hardest] {
			r.Hardest = i
		}
		if d < -WorkingEffort {
			r.PullsBack = true
		}
	}
	r.Idle = idle(&r.Elbow, &r.Curve)
}

// shortestIdle is the least idle stretch worth telling, degrees.
const shortestIdle = 2.0

// idle returns the stretches of the range with demand under IdleBelow, their
// ends interpolated between samples.
func idle(elbow, curve *[Samples]float64) [][2]float64 {
	var out [][2]float64
	var open bool
	var from float64
	finish := func(to float64) {
		if math.Abs(to-from) >= shortestIdle {
			out = append(out, [2]float64{from, to})
		}
		open = false
	}
	for i := range curve {
		below := curve[i] < IdleBelow
		if below == open {
			continue
		}
		at := elbow[i]
		if i > 0 {
			t := (IdleBelow - curve[i-1]) / (curve[i] - curve[i-1])
			at = elbow[i-1] + t*(elbow[i]-elbow[i-1])
		}
		if below {
			open, from = true, at
		} else {
			finish(at)
		}
	}
	if open {
		finish(elbow[Samples-1])
	}
	return out
}

// average is the time average of one value over a repetition.
type average struct{ sum, start, end float64 }

func (a *average) add(i int, x float64) {
	a.sum += x
	switch i {
	case 0:
		a.start = x
	case Samples - 1:
		a.end = x
	}
}

func (a *average) over(t Tempo) float64 {
	mean := a.sum / Samples
	if total := t.Total(); total > 0 {
		return ((t[0]+t[2])*mean + t[1]*a.start + t[3]*a.end) / total
	}
	return mean
}

// shareOut solves every sample at the working load and averages what each head
// does.
func (r *raw) shareOut(samples *[Samples]sample, setup *Setup) error {
	var tension, tensionLength, stretched, squeezed [arm.HeadCount]average
	var sharing sharer
	var inZone [arm.HeadCount][3]float64
	for m := range r.Heads {
		r.Heads[m] = HeadProfile{Shortest: math.Inf(1), Longest: math.Inf(-1), Agonist: arm.HeadIndex(m).Flexor() == r.Flexion}
	}
	for i := range samples {
		s := &samples[i]
		var torque [arm.Axes]float64
		for j := range torque {
			torque[j] = s.limbs[j] + r.Working*s.perUnit[j]
		}
		for m, passive := range s.passive {
			if passive == 0 {
				continue
			}
			for j := range torque {
				torque[j] -= passive * headPull[m] * s.pulls[m].arms[j]
			}
		}
		support := supports(s.forearm, setup.ArmSupported)
		a := sharing.split(&s.pulls, &support, &torque)
		for m := range r.Heads {
			h := &r.Heads[m]
			l := s.lengths[m]
			h.Shortest, h.Longest = min(h.Shortest, l), max(h.Longest, l)
			if !h.Agonist {
				continue
			}
			tau := a[m]*s.active[m] + s.passive[m]
			if r.rep != nil {
				r.rep.Tension[i][m] = tau
			}
			z := arm.Reaches[m].Stretch(l)
			tension[m].add(i, tau)
			inZone[m][arm.Heads[m].Zone(l).Index()] += tau
			tensionLength[m].add(i, tau*l)
			stretched[m].add(i, tau*stretchWeight(z))
			squeezed[m].add(i, tau*squeezeWeight(z))
		}
	}
	var most float64
	for m := range r.Heads {
		most = max(most, tension[m].over(setup.Tempo))
	}
	if !(most >= leastTension) {
		return refuse("nothing is really loaded: the hardest-working head averages %.3f of its force", most)
	}
	for m := range r.Heads {
		h := &r.Heads[m]
		mean := tension[m].over(setup.Tempo)
		h.Share = mean / most
		if mean > 0 {
			h.Mean = tensionLength[m].over(setup.Tempo) / mean
			r.stretchWeight[m] = stretched[m].over(setup.Tempo) / mean
			r.squeezeWeight[m] = squeezed[m].over(setup.Tempo) / mean
		} else if h.Agonist {
			h.Mean = (h.Shortest + h.Longest) / 2
		}
		if h.Agonist {
			h.Zone = arm.Heads[m].Zone(h.Mean)
		}
		if all := tension[m].sum; all > 0 {
			for z := range h.InZone {
				h.InZone[z] = inZone[m][z] / all
			}
		}
	}
	return nil
}

// stretchWeight and squeezeWeight favour long and short lengths; z is the place
// in the head's reach, −1…1.
func stretchWeight(z float64) float64 { return 1 + 0.6*min(max(z, -0.5), 1) }
func squeezeWeight(z float64) float64 { return 1 + 0.4*min(max(-z, -0.5), 1) }
