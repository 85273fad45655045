package stance

import (
	"strings"

	"musculus/internal/core/effort"
	"musculus/internal/core/movement"
)

// FieldNames are the fields a predicate may ask for; every other word in a
// predicate is a name to compare with.
var FieldNames = func() map[string]bool {
	out := map[string]bool{}
	for _, n := range strings.Fields(`s psi rho phi e s_from s_to psi_from psi_to rho_from rho_to phi_from phi_to e_from e_to
		lambda bench grip_width grip_offset load pulley_x pulley_y implement arm_supported hardest_part demand_from demand_to
		tuck lean depth action family movement
		order reps reserve rest_s t_ecc t_start t_con t_end method safe_alone target days_week sets_head weeks_same
		same_day_press_after press_sets_week pull_sets_week grip_plan
		joint_wrist joint_elbow_front joint_elbow_back joint_shoulder_front joint_shoulder_top`) {
		out[n] = true
	}
	return out
}()

// HardestPart is the third of the travelled elbow range, from the long end, in
// which a set-up is hardest: long, middle or short.
func HardestPart(p *effort.Profile) string {
	switch t := (p.HardestAt() - p.Elbow[0]) / (p.Elbow[effort.Samples-1] - p.Elbow[0]); {
	case t > 2.0/3:
		return "short"
	case t > 1.0/3:
		return "middle"
	}
	return "long"
}

// FieldsOf are the fields of a set-up; p may be nil for graded movements. What
// a slot or a week adds is put in by the caller.
func FieldsOf(s movement.SetUp, p *effort.Profile) Fields {
	m, e := s.Movement, s.Effort()
	f := Fields{
		"action":        Name(string(m.Action)),
		"family":        Name(m.Family.ID),
		"movement":      Name(m.ID),
		"implement":     Name(string(s.Implement())),
		"load":          Name(string(e.Load.Kind)),
		"arm_supported": Yes(e.ArmSupported),
		"grip_offset":   Num(e.GripOffset),
		"safe_alone":    Yes(s.SafeAlone() == movement.AloneYes),
	}
	if m.Computed() {
		for name, ends := range map[string][2]float64{
			"s": {e.From.ShoulderElevation, e.To.ShoulderElevation}, "psi": {e.From.ElevationPlane, e.To.ElevationPlane},
			"rho": {e.From.ShoulderRotation, e.To.ShoulderRotation}, "phi": {e.From.ForearmRotation, e.To.ForearmRotation},
			"e": {e.From.ElbowFlexion, e.To.ElbowFlexion}} {
			from, to := ends[0], ends[1]
			if name == "rho" && m.Family.ID == "overhead" { // drift overhead is counted from the movement's own
				own := m.Default().Effort().From.ShoulderRotation
				from, to = from-own, to-own
			}
			f[name+"_from"], f[name+"_to"], f[name] = Num(from), Num(to), Num((from+to)/2)
		}
	} else if _, has := s.Value(movement.ElbowFrom); has {
		f["e_from"] = Num(s.Number(movement.ElbowFrom))
	}
	f["lambda"] = Num(e.TrunkLean)
	if e.TrunkLean < 0 {
		f["bench"] = Num(e.TrunkLean + 90)
	}
	if v, has := s.Value(movement.GripWidth); has {
		f["grip_width"] = Num(v.Number)
	} else if i := s.Implement(); m.Computed() && (i == movement.BarStraight || i == movement.BarCambered) {
		f["grip_width"] = Num(1)
	}
	if e.Load.Kind == effort.Cable && m.Computed() {
		f["pulley_x"], f["pulley_y"] = Num(e.Load.Pulley[0]), Num(e.Load.Pulley[1])
	}
	for name, key := range map[string]movement.Key{"tuck": movement.Tuck, "lean": movement.Lean, "depth": movement.Depth} {
		if v, has := s.Value(key); has && !m.Computed() {
			f[name] = Num(v.Number)
		}
	}
	if p != nil {
		f["hardest_part"] = Name(HardestPart(p))
		f["demand_from"], f["demand_to"] = Num(p.Curve[0]), Num(p.Curve[effort.Samples-1])
	}
	return f
}
