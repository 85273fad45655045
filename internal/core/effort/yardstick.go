package effort

import (
	"fmt"
	"math"

	"musculus/internal/core/arm"
)

// The plain movements that every bias is told against.
var (
	// PlainCurl is the standing curl with palms up.
	PlainCurl = Setup{
		From: arm.Posture{ElbowFlexion: 10, ForearmRotation: 80},
		To:   arm.Posture{ShoulderElevation: 10, ElbowFlexion: 140, ForearmRotation: 80},
		Load: Load{Kind: Free},
	}
	// PlainPushDown is the push-down with a bar.
	PlainPushDown = Setup{
		TrunkLean: 10,
		From:      arm.Posture{ShoulderElevation: 12, ElbowFlexion: 120, ForearmRotation: -80},
		To:        arm.Posture{ShoulderElevation: 8, ElbowFlexion: 5, ForearmRotation: -80},
		Load:      Load{Kind: Cable, Pulley: arm.Vec{0.7, 0.5, 0}},
	}
)

// Yardstick computes profiles for one body, against that body's own plain
// movements. It is safe for concurrent use.
type Yardstick struct {
	body       arm.Body
	curl, push raw
}

// NewYardstick computes the plain movements of a body. It fails for bodies
// nobody has and for those whose plain movements cannot be computed.
func NewYardstick(body arm.Body) (*Yardstick, error) {
	if err := body.Check(); err != nil {
		return nil, err
	}
	y := &Yardstick{body: body}
	if err := y.curl.compute(body, &PlainCurl, 0); err != nil {
		return nil, fmt.Errorf("plain curl: %w", err)
	}
	if err := y.push.compute(body, &PlainPushDown, 0); err != nil {
		return nil, fmt.Errorf("plain push-down: %w", err)
	}
	return y, nil
}

// Body returns the body the yardstick was made for.
func (y *Yardstick) Body() arm.Body { return y.body }

// Profile computes what one repetition of the set-up gives. The error is a
// *Refused when the set-up cannot be done or loads nothing.
func (y *Yardstick) Profile(setup Setup) (*Profile, error) { return y.profile(&setup, 0) }

// Composite computes a movement that goes up one way and down another: both
// profiles at the smaller load, averaged.
func (y *Yardstick) Composite(lifting, lowering Setup) (*Profile, error) {
	up, err := y.profile(&lifting, 0)
	if err != nil {
		return nil, err
	}
	down, err := y.profile(&lowering, 0)
	if err != nil {
		return nil, err
	}
	load := min(up.Working, down.Working)
	if up, err = y.profile(&lifting, load); err != nil {
		return nil, err
	}
	if down, err = y.profile(&lowering, load); err != nil {
		return nil, err
	}
	out := *up
	out.Hardest, out.PullsBack = 0, up.PullsBack || down.PullsBack
	for i := range out.Curve {
		out.Curve[i] = (up.Curve[i] + down.Curve[i]) / 2
		if out.Curve[i] > out.Curve[out.Hardest] {
			out.Hardest = i
		}
	}
	out.Idle = idle(&out.Elbow, &out.Curve)
	for m := range out.Heads {
		h, a, b := &out.Heads[m], &up.Heads[m], &down.Heads[m]
		h.Share, h.Plain, h.Stretch, h.Squeeze = (a.Share+b.Share)/2, (a.Plain+b.Plain)/2, (a.Stretch+b.Stretch)/2, (a.Squeeze+b.Squeeze)/2
		h.Mean, h.Shortest, h.Longest = (a.Mean+b.Mean)/2, min(a.Shortest, b.Shortest), max(a.Longest, b.Longest)
		for z := range h.InZone {
			h.InZone[z] = (a.InZone[z] + b.InZone[z]) / 2
		}
		if h.Agonist {
			h.Zone = arm.Heads[m].Zone(h.Mean)
		}
	}
	return &out, nil
}

// profile computes a set-up at its working load, or at most if that is less.
func (y *Yardstick) profile(setup *Setup, most float64) (*Profile, error) {
	var r raw
	if err := r.compute(y.body, setup, most); err != nil {
		return nil, err
	}
	plain := &y.push
	if r.Flexion {
		plain = &y.curl
	}
	if r.Load != Cam {
		r.Ratio = r.Working / plain.Working
	}
	for m := range r.Heads {
		h := &r.Heads[m]
		if !h.Agonist {
			continue
		}
		h.Plain = math.Sqrt(h.Share / plain.Heads[m].Share)
		h.Stretch = h.Plain * r.stretchWeight[m] / plain.stretchWeight[m]
		h.Squeeze = h.Plain * r.squeezeWeight[m] / plain.squeezeWeight[m]
	}
	return &r.Profile, nil
}
