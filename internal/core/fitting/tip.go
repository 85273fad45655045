package fitting

import (
	"fmt"
	"math"
	"slices"

	"musculus/internal/core/arm"
	"musculus/internal/core/effort"
	"musculus/internal/core/movement"
	"musculus/internal/core/stance"
)

// Lever is a contrast that tips are about: one set-up against another.
type Lever struct {
	ID, Name string
	From, To func() movement.SetUp
	Dispute  string // the row of the book's disputes it belongs to, by lever
}

func built(id string, turned map[movement.Key]movement.Value) func() movement.SetUp {
	return func() movement.SetUp {
		s, err := movement.Shipped.Get(id).SetUp(turned)
		if err != nil {
			panic(err) // the table below; its test builds every row
		}
		return s
	}
}

func num(k movement.Key, x float64) map[movement.Key]movement.Value {
	return map[movement.Key]movement.Value{k: movement.Num(x)}
}

// Levers are the contrasts the tip checker knows.
var Levers = []Lever{
	{
		"bar_narrow",
		"a narrow bar grip",
		built("curl_standing_bar", nil),
		built("curl_standing_bar", num(movement.GripWidth, 0.7)),
		"bar width",
	},
	{"bar_wide", "a wide bar grip", built("curl_standing_bar", nil), built("curl_standing_bar", num(movement.GripWidth, 1.5)), "bar width"},
	{
		"arm_behind",
		"the upper arm behind the body",
		built("curl_standing_dumbbells", nil),
		built("curl_reclined", nil),
		"upper arm behind, at the side, in front",
	},
	{
		"arm_front",
		"the upper arm in front",
		built("curl_standing_bar", nil),
		built("curl_pad_bar", nil),
		"upper arm behind, at the side, in front",
	},
	{
		"elbow_forward",
		"letting the elbow come forward",
		built("curl_standing_dumbbells", nil),
		built("curl_standing_dumbbells", num(movement.ShoulderTo, 30)),
		"elbow coming forward",
	},
	{
		"arms_out",
		"the upper arms turned out",
		built("curl_reclined", num(movement.Bench, 65)),
		built("curl_reclined_outward", nil),
		"arm turned out, in, or across",
	},
	{
		"across",
		"curling across the body, thumb up",
		built("curl_neutral", nil),
		built("curl_neutral_across", nil),
		"arm turned out, in, or across",
	},
	{
		"thumb_up",
		"thumbs up instead of palms up",
		built("curl_standing_dumbbells", nil),
		built("curl_neutral", nil),
		"thumb-up, palms-down and turning curls",
	},
	{
		"palms_down",
		"palms down instead of palms up",
		built("curl_standing_bar", nil),
		built("curl_palms_down_bar", nil),
		"thumb-up, palms-down and turning curls",
	},
	{
		"turning",
		"turning the palm up on the way",
		built("curl_neutral", nil),
		built("curl_turning", nil),
		"thumb-up, palms-down and turning curls",
	},
	{
		"overhead",
		"extensions overhead instead of at the side",
		built("pushdown_rope", nil),
		built("overhead_cable_low", nil),
		"long triceps head: overhead or behind",
	},
	{
		"behind",
		"kick-backs instead of push-downs",
		built("pushdown_rope", nil),
		built("kickback_cable", nil),
		"long triceps head: overhead or behind",
	},
	{"rope", "the rope instead of the bar in push-downs", built("pushdown_bar", nil), built("pushdown_rope", nil), "hand in extensions"},
	{"underhand", "palms up in push-downs", built("pushdown_bar", nil), built("pushdown_underhand", nil), "hand in extensions"},
	{
		"press_close",
		"a close grip in the bench press",
		built("press_bench_wide", nil),
		built("press_bench_close", nil),
		"press and the long head",
	},
}

// Tip is what can be said of a tip heard somewhere.
type Tip struct {
	Lever              *Lever
	Plain, Stretch     float64 // change of the head's biases; graded: of the middle credit, in both
	Graded             bool
	Verdict            string
	SayingSo, Opposite []*stance.Rule
	Dispute            *stance.Dispute // nil where none is recorded
}

// nothingMuch is the change of a bias under which a lever hardly matters.
const nothingMuch = 0.05

// CheckTip holds a tip against mechanics and the rules: does the lever give the
// head more (up) or less?
func CheckTip(id string, head arm.HeadIndex, up bool, y *effort.Yardstick) (Tip, error) {
	i := slices.IndexFunc(Levers, func(l Lever) bool { return l.ID == id })
	if i < 0 {
		return Tip{}, fmt.Errorf("there is no lever %q", id)
	}
	l := &Levers[i]
	out := Contrast(l.From(), l.To(), head, up, y)
	out.Lever = l
	for i := range stance.Shipped.Disputes {
		if stance.Shipped.Disputes[i].Lever == l.Dispute {
			out.Dispute = &stance.Shipped.Disputes[i]
		}
	}
	return out, nil
}

// Contrast holds going from one set-up to another against mechanics and the rules: does
// it give a head more (up) or less?
func Contrast(from, to movement.SetUp, head arm.HeadIndex, up bool, y *effort.Yardstick) Tip {
	out := Tip{}
	a, ok := ShapeOf(from, y, stance.ByID("leverage"))
	b, also := ShapeOf(to, y, stance.ByID("leverage"))
	if !ok || !also {
		out.Verdict = "One of the two cannot be done like this by this body."
		return out
	}
	if a.Profile != nil && b.Profile != nil {
		out.Plain = b.Profile.Heads[head].Plain - a.Profile.Heads[head].Plain
		out.Stretch = b.Profile.Heads[head].Stretch - a.Profile.Heads[head].Stretch
	} else {
		out.Graded = true
		out.Plain = b.Bias[head] - a.Bias[head]
		out.Stretch = out.Plain
	}
	was := stance.Shipped.Fired(stance.FieldsOf(from, a.Profile))
	for _, r := range stance.Shipped.Fired(stance.FieldsOf(to, b.Profile)) {
		if slices.Contains(was, r) || r.Tilt[head] == 1 {
			continue
		}
		if (r.Tilt[head] > 1) == up {
			out.SayingSo = append(out.SayingSo, r)
		} else {
			out.Opposite = append(out.Opposite, r)
		}
	}
	for _, r := range out.SayingSo { // whom a rule disputes says the opposite, in words
		for _, d := range r.Disputes {
			if rule := stance.Shipped.Rule(d); rule != nil && !slices.Contains(out.Opposite, rule) && !slices.Contains(out.SayingSo, rule) {
				out.Opposite = append(out.Opposite, rule)
			}
		}
	}
	out.Verdict = verdict(&out, head, up)
	return out
}

func verdict(t *Tip, head arm.HeadIndex, up bool) string {
	sign := 1.0
	if !up {
		sign = -1
	}
	best := math.Max(sign*t.Plain, sign*t.Stretch)
	worst := math.Min(sign*t.Plain, sign*t.Stretch)
	source := "Mechanics"
	if t.Graded {
		source = "The graded table"
	}
	switch {
	case best < nothingMuch && worst > -nothingMuch:
		return source + " hardly notices: the change is under 0.05."
	case worst >= nothingMuch:
		return source + " agrees."
	case best >= nothingMuch && worst > -nothingMuch:
		return source + " agrees in part: it depends on whether length counts."
	case best < nothingMuch:
		return source + " says the opposite."
	}
	return source + " is of two minds: plain leverage and length point apart."
}
