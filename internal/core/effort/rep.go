package effort

import "musculus/internal/core/arm"

// Rep is a repetition instant by instant: what each head does at every sample of the range, at
// the working load.
type Rep struct {
	Profile
	Tension [Samples][arm.HeadCount]float64 // over the head's force; 0 for a head that works against it
	Length  [Samples][arm.HeadCount]float64 // over its best
	Posture [Samples]arm.Posture
}

// RepOf computes a repetition, the way up; errors are those of a profile.
func RepOf(body arm.Body, setup *Setup) (*Rep, error) {
	out := &Rep{}
	r := raw{rep: out}
	if err := r.compute(body, setup, 0); err != nil {
		return nil, err
	}
	out.Profile = r.Profile
	out.lay(setup)
	return out, nil
}

// WayOf is the way of a repetition whose forces are not computed: postures and lengths, no tension.
func WayOf(setup *Setup) *Rep {
	out := &Rep{}
	out.lay(setup)
	for i := range out.Posture {
		out.Elbow[i] = out.Posture[i].ElbowFlexion
	}
	return out
}

// lay fills postures and lengths.
func (r *Rep) lay(setup *Setup) {
	for i := range r.Posture {
		r.Posture[i] = setup.From.Between(setup.To, float64(i)/(Samples-1))
		for m := range r.Length[i] {
			r.Length[i][m] = arm.Heads[m].Length(r.Posture[i])
		}
	}
}
