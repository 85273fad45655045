package movement

import (
	"slices"
	"strings"

	"github.com/goccy/go-yaml"

	"musculus/internal/core/arm"
	"musculus/internal/core/datafile"
	"musculus/internal/core/effort"
)

// This file reads one movement of the data.

// settingRow is a setting as data writes it: a bare key, or a key with limits.
type settingRow struct {
	Key     Key      `yaml:"key"`
	Min     *float64 `yaml:"min,omitempty"`
	Max     *float64 `yaml:"max,omitempty"`
	Default *float64 `yaml:"default,omitempty"`
}

// UnmarshalYAML accepts a bare key.
func (r *settingRow) UnmarshalYAML(b []byte) error {
	var key Key
	if err := yaml.Unmarshal(b, &key); err == nil {
		r.Key = key
		return nil
	}
	type plain settingRow
	return yaml.UnmarshalWithOptions(b, (*plain)(r), yaml.Strict())
}

// MarshalYAML writes a bare key where there are no limits.
func (r settingRow) MarshalYAML() (any, error) {
	if r.Min == nil {
		return r.Key, nil
	}
	type plain settingRow
	return plain(r), nil
}

// gripRow is a grip and the movement whose credits and hand it takes.
type gripRow struct {
	Grip string `yaml:"grip"`
	As   string `yaml:"as"`
}

type creditRow map[string][3]float64

type row struct {
	ID           string        `yaml:"id"`
	Name         string        `yaml:"name"`
	Action       Action        `yaml:"action"`
	Family       string        `yaml:"family"`
	Position     Position      `yaml:"position,omitempty"`
	Positions    []Position    `yaml:"positions,omitempty,flow"`
	ArmsKeep     bool          `yaml:"arms_keep,omitempty"`
	Anchor       string        `yaml:"anchor,omitempty"`
	Partner      string        `yaml:"partner,omitempty"`
	UpperArm     string        `yaml:"upper_arm,omitempty"`
	Stop         string        `yaml:"stop,omitempty"`
	Added        bool          `yaml:"added,omitempty"`
	TopRange     bool          `yaml:"top_range,omitempty"`
	Like         string        `yaml:"like,omitempty"` // the family whose joint scores and stop rule it has
	LowersAs     string        `yaml:"lowers_as,omitempty"`
	Joints       *jointsRow    `yaml:"joints,omitempty,flow"`
	TrunkLean    float64       `yaml:"trunk_lean,omitempty"`
	SafeAlone    Alone         `yaml:"safe_alone,omitempty"`
	Implements   []ImplementID `yaml:"implements,omitempty,flow"`
	Hands        []string      `yaml:"hands,omitempty,flow"`
	Holds        []string      `yaml:"holds,omitempty,flow"`
	Hold         string        `yaml:"hold,omitempty"`
	Thick        bool          `yaml:"thick_handle,omitempty"`
	Grips        []gripRow     `yaml:"grips,omitempty,flow"`
	OneSided     bool          `yaml:"one_sided,omitempty"` // may be done with a weight on one end only
	Wrist        string        `yaml:"wrist,omitempty"`
	From         arm.Posture   `yaml:"from,omitempty,flow"`
	To           arm.Posture   `yaml:"to,omitempty,flow"`
	Load         string        `yaml:"load,omitempty"`
	Pulley       arm.Vec       `yaml:"pulley,omitzero,flow"`
	GripOffset   float64       `yaml:"grip_offset,omitempty"`
	ArmSupported bool          `yaml:"arm_supported,omitempty"`
	Settings     []settingRow  `yaml:"settings,omitempty,flow"`
	Grade        string        `yaml:"grade,omitempty"`
	Credits      creditRow     `yaml:"credits,omitempty,flow"`
	Other        creditRow     `yaml:"other,omitempty,flow"`
	FromWidth    float64       `yaml:"from_width,omitempty"`
	ToWidth      float64       `yaml:"to_width,omitempty"`
	WideRow      string        `yaml:"wide_row,omitempty"`
}

// jointsRow overrides single joint scores of the family.
type jointsRow struct {
	Wrist         *int `yaml:"wrist,omitempty"`
	ElbowFront    *int `yaml:"elbow_front,omitempty"`
	ElbowBack     *int `yaml:"elbow_back,omitempty"`
	ShoulderFront *int `yaml:"shoulder_front,omitempty"`
	ShoulderTop   *int `yaml:"shoulder_top,omitempty"`
}

func (r *jointsRow) over(j JointScores) JointScores {
	if r == nil {
		return j
	}
	for _, one := range []struct {
		to   *int
		from *int
	}{{&j.Wrist, r.Wrist}, {&j.ElbowFront, r.ElbowFront}, {&j.ElbowBack, r.ElbowBack}, {&j.ShoulderFront, r.ShoulderFront},
		{&j.ShoulderTop, r.ShoulderTop}} {
		if one.from != nil {
			*one.to = *one.from
		}
	}
	return j
}

// what a row's words may be.
var (
	actions    = []Action{Flexion, Extension, Press, Dip, PushUp, Pull, Turn}
	positions  = []Position{Standing, Kneeling, Seated, Reclined, ChestSupported, OnBench, OnFloor, OnBars, Hanging, Plank}
	implements = []ImplementID{
		BarStraight,
		BarCambered,
		BarV,
		Dumbbell,
		Shared,
		Rope,
		Handle,
		DipBars,
		BarParallel,
		BarRail,
		BarFixed,
		PullBar,
		DipMachine,
		Band,
		BenchEdge,
		Machine,
		Lever,
		Ground,
	}
	loads   = []string{string(effort.Free), string(effort.Cable), string(effort.Cam), "body", "machine"}
	holds   = []string{"middle", "against_plate", "thumb_over", "loose", bothHands}
	wrists  = []string{"level", "cupped", "tilted_up"}
	anchors = []string{"", "side", "pad", "thigh", "knee", "bench", "floor", "brace"}
	grades  = []string{"A", "B", "C", "D", "E"}
)

// build makes a movement of its row; every fault of the row is listed.
func build(e *datafile.Entry[row], families map[string]*Family) (*Movement, []*datafile.Fault) {
	r := &e.Row
	var wrong []*datafile.Fault
	check := func(ok bool, field, format string, args ...any) {
		if !ok {
			wrong = append(wrong, e.Fault(field, format, args...))
		}
	}
	m := &Movement{
		ID: r.ID, Action: r.Action, Family: families[r.Family], Position: r.Position, ArmsKeep: r.ArmsKeep,
		Anchor: r.Anchor, Partner: r.Partner, SafeAlone: r.SafeAlone, HoldWord: r.Hold, Wrist: r.Wrist, lead: r.Name,
		base: effort.Setup{
			TrunkLean:    r.TrunkLean,
			From:         r.From,
			To:           r.To,
			GripOffset:   r.GripOffset,
			ArmSupported: r.ArmSupported,
			Load:         effort.Load{Kind: effort.LoadKind(r.Load), Pulley: r.Pulley},
		},
	}
	if m.SafeAlone == "" {
		m.SafeAlone = AloneYes
	}
	if m.HoldWord == "" {
		m.HoldWord = "middle"
		if len(r.Implements) > 0 && r.Implements[0] == Shared {
			m.HoldWord = bothHands
		}
	}
	if m.Wrist == "" {
		m.Wrist = "level"
	}
	check(r.ID != "", "id", "missing")
	check(r.Name != "", "name", "missing")
	check(slices.Contains(actions, r.Action), "action", "%q is none of %s", r.Action, list(actions))
	check(m.Family != nil, "family", "there is no %q", r.Family)
	check(r.Position == "" || slices.Contains(positions, r.Position), "position", "%q is none of %s", r.Position, list(positions))
	check(slices.Contains(loads, r.Load), "load", "%q is none of %s", r.Load, list(loads))
	check(len(r.Implements) > 0, "implements", "missing")
	for _, i := range r.Implements {
		check(slices.Contains(implements, i), "implements", "%q is none of %s", i, list(implements))
	}
	for _, h := range r.Hands {
		check(slices.Contains([]string{BothArms, Alternate, OneArm}, h), "hands", "%q is none of both, alternate, one", h)
	}
	check(slices.Contains([]Alone{AloneYes, AloneNo, AloneWithPins}, m.SafeAlone), "safe_alone", "%q is none of yes, no, pins", m.SafeAlone)
	check(slices.Contains(anchors, r.Anchor), "anchor", "%q is none of %s", r.Anchor, list(anchors[1:]))
	check(slices.Contains(holds, m.HoldWord), "hold", "%q is none of %s", m.HoldWord, list(holds))
	for _, h := range r.Holds {
		check(slices.Contains(holds, h), "holds", "%q is none of %s", h, list(holds))
	}
	check(slices.Contains(wrists, m.Wrist), "wrist", "%q is none of %s", m.Wrist, list(wrists))
	if r.Credits == nil { // graded movements only place the figure
		check(r.From.Check() == nil, "from", "%v", r.From.Check())
		check(r.To.Check() == nil, "to", "%v", r.To.Check())
	} else {
		m.Graded = r.graded(check)
	}
	m.source = *r
	as := m.Family // whose joints, cautions, stop rule and upper arm it shares
	if r.Like != "" {
		as = families[r.Like]
		check(as != nil, "like", "there is no family %q", r.Like)
	}
	if len(wrong) > 0 || !e.Whole {
		return nil, wrong
	}
	m.Implement = r.Implements[0]
	m.Hands = Together
	if len(r.Hands) > 0 {
		m.Hands = r.Hands[0]
	} else if m.Implement.oneHanded() {
		m.Hands = BothArms
	}
	m.Joints, m.UpperArm, m.Stop, m.safety, m.Added, m.TopRange = r.Joints.over(as.Joints), r.UpperArm, r.Stop, as, r.Added, r.TopRange
	if m.Stop == "" {
		m.Stop = as.Stop
	}
	if m.UpperArm == "" {
		m.UpperArm = as.UpperArm
	}
	r.settings(m, check)
	if len(wrong) == 0 && m.Computed() {
		s := m.Default()
		err := s.checkRange()
		check(err == nil, "to", "%v", err)
	}
	return m, wrong
}

// graded reads the credits of a movement that uses several joints.
func (r *row) graded(check func(bool, string, string, ...any)) *Graded {
	g := &Graded{Grade: r.Grade, fromW: r.FromWidth, toW: r.ToWidth, hasOther: r.Other != nil, wideIsUsual: r.WideRow == "usual"}
	check(slices.Contains(grades, r.Grade), "grade", "%q is none of A to E", r.Grade)
	read := func(field string, c creditRow) (out Credits) {
		for id, v := range c {
			h, ok := arm.HeadByID(id)
			check(ok, field, "there is no head %q", id)
			check(
				0 <= v[0] && v[0] <= v[1] && v[1] <= v[2] && v[2] <= mostCredit,
				field,
				"%s: low, middle and high must rise, from 0 to %g",
				id,
				mostCredit,
			)
			out[h] = Credit{v[0], v[1], v[2]}
		}
		return out
	}
	g.usual, g.other = read("credits", r.Credits), read("other", r.Other)
	return g
}

// mostCredit is the most one hard set can count for a head.
const mostCredit = 1.5

// settings reads the row's settings and adds the elbow's range.
func (r *row) settings(m *Movement, check func(bool, string, string, ...any)) {
	rows := r.Settings
	if m.Computed() {
		for _, k := range []Key{ElbowFrom, ElbowTo} { // every computed movement has them
			if !slices.ContainsFunc(rows, func(s settingRow) bool { return s.Key == k }) {
				lo, hi := 0.0, 150.0
				rows = append(rows, settingRow{Key: k, Min: &lo, Max: &hi})
			}
		}
	}
	for _, k := range r.inTheHand() {
		if !slices.ContainsFunc(rows, func(s settingRow) bool { return s.Key == k }) {
			rows = append(rows, settingRow{Key: k})
		}
	}
	for _, s := range rows {
		setting, err := r.setting(m, s)
		check(err == nil, "settings."+string(s.Key), "%v", err)
		check(m.Setting(s.Key) == nil, "settings."+string(s.Key), "is there twice")
		m.Settings = append(m.Settings, setting)
	}
	slices.SortStableFunc(m.Settings, func(a, b Setting) int {
		return slices.Index(keyOrder, a.Key) - slices.Index(keyOrder, b.Key)
	})
}

// inTheHand are the settings that every curl and extension held in a hand has: they
// move no head, but what is logged with them is a series of its own.
func (r *row) inTheHand() []Key {
	held := slices.ContainsFunc(r.Implements, func(i ImplementID) bool { return i != Shared })
	if r.Credits != nil || r.Action != Flexion && r.Action != Extension || !held {
		return nil
	}
	return []Key{Hold, WristKey, ThickHandle}
}

// overTheBody are the families in which what the hand holds is over the body: a thumb
// that does not go round it could let it roll out.
var overTheBody = []string{"overhead", "lying", "press"}

// list writes words one after the other.
func list[T ~string](words []T) string {
	out := make([]string, len(words))
	for i, w := range words {
		out[i] = string(w)
	}
	return strings.Join(out, ", ")
}
