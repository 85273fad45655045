package movement

import (
	"errors"
	"fmt"
	"maps"
	"slices"
	"strings"

	"musculus/internal/core/arm"
	"musculus/internal/core/effort"
)

// SetUp is a movement with its settings fixed. Only settings turned away from
// their default are kept.
type SetUp struct {
	Movement *Movement
	turned   map[Key]Value
	hand     *float64 // forearm rotation held through the range, see InHand
	key      string   // see Key; "" until it is made
}

// leastRange is how far apart the two ends of a range must stay, degrees.
const leastRange = 30.0

// SetUp fixes the settings: unknown ones and values outside their limits are
// refused with a *FieldError, the rest is snapped to steps.
func (m *Movement) SetUp(turned Settings) (SetUp, error) {
	s := SetUp{Movement: m, turned: map[Key]Value{}}
	keys := make([]Key, 0, len(turned))
	for k := range turned {
		keys = append(keys, k)
	}
	slices.Sort(keys)
	for _, k := range keys {
		if err := s.put(k, turned[k]); err != nil {
			return s, err
		}
	}
	s.tidy()
	s.key = s.makeKey()
	return s, s.check()
}

// SetUp builds a set-up of the catalogue's by its movement's id; the error names the
// field behind at: at + "movement", at + "settings.bench".
func (c *Catalogue) SetUp(at, id string, settings Settings) (SetUp, *FieldError) {
	m := c.Get(id)
	if m == nil {
		return SetUp{}, &FieldError{Field: at + "movement", Reason: fmt.Sprintf("there is no movement %q", id)}
	}
	s, err := m.SetUp(settings)
	var field *FieldError
	switch {
	case errors.As(err, &field):
		return s, &FieldError{Field: at + "settings." + field.Field, Reason: field.Reason}
	case err != nil:
		return s, &FieldError{Field: at + "settings", Reason: err.Error()}
	}
	return s, nil
}

// put snaps one value into the set-up.
func (s *SetUp) put(k Key, v Value) error {
	setting := s.Movement.Setting(k)
	if setting == nil {
		return &FieldError{Field: string(k), Reason: "this movement has no such setting"}
	}
	v, err := setting.snap(v)
	if err != nil {
		return err
	}
	if v != setting.Default {
		s.turned[k] = v
	} else {
		delete(s.turned, k)
	}
	return nil
}

// Uses says whether a setting means anything in this set-up: both hands on one bar
// have no turns to take.
func (s SetUp) Uses(k Key) bool {
	switch k {
	case Hands:
		return s.Implement().oneHanded() || s.Implement() == Rope && s.Movement.Hands != Together
	case Hold:
		return s.Implement() != Shared
	case Bench:
		return s.Position() != OnFloor
	}
	return true
}

// tidy drops what was turned and means nothing, so that one set-up has one key.
func (s *SetUp) tidy() {
	maps.DeleteFunc(s.turned, func(k Key, _ Value) bool { return !s.Uses(k) })
}

// check refuses settings that do not go together.
func (s *SetUp) check() error {
	if off := s.Number(GripOffset); s.Movement.source.OneSided && s.Implement() == Dumbbell && !inLimits(off, dumbbellOff) {
		return &FieldError{Field: string(GripOffset), Reason: fmt.Sprintf(
			"%s cm off the middle: a dumbbell's handle gives %s…%s cm, a one-sided weight more", trim(off*100), trim(dumbbellOff[0]*100),
			trim(dumbbellOff[1]*100))}
	}
	return s.checkRange()
}

// dumbbellOff is how far from the middle of a dumbbell's handle a hand can hold it, m.
var dumbbellOff = [2]float64{-0.04, 0.05}

func inLimits(x float64, limits [2]float64) bool { return x >= limits[0]-1e-9 && x <= limits[1]+1e-9 }

// checkRange refuses ends of the elbow's range that are too close together.
func (s *SetUp) checkRange() error {
	if !s.Movement.Computed() {
		return nil
	}
	from, to := s.Number(ElbowFrom), s.Number(ElbowTo)
	if s.Movement.Action == Extension {
		from, to = to, from
	}
	if to-from >= leastRange {
		return nil
	}
	field := ElbowTo
	if _, ok := s.turned[ElbowTo]; !ok {
		field = ElbowFrom
	}
	return &FieldError{
		Field:  string(field),
		Reason: fmt.Sprintf("start and end of the elbow must stay at least %.0f° apart, in the movement's own direction", leastRange),
	}
}

// With is the set-up with one setting turned; errors are those of
// Movement.SetUp.
func (s SetUp) With(k Key, v Value) (SetUp, error) {
	out := SetUp{Movement: s.Movement, turned: make(map[Key]Value, len(s.turned)+1)}
	maps.Copy(out.turned, s.turned)
	if err := out.put(k, v); err != nil {
		return out, err
	}
	out.tidy()
	out.key = out.makeKey()
	return out, out.check()
}

// InHand is the set-up with the forearm held at a rotation through the whole range,
// degrees, whatever its settings allow: a phase of a set, counted but never logged.
func (s SetUp) InHand(phi float64) SetUp {
	s.hand = &phi
	s.key = s.makeKey()
	return s
}

// Default is the movement's default set-up.
func (m *Movement) Default() SetUp { return SetUp{Movement: m, key: m.ID} }

// Turned returns the settings that differ from the default.
func (s SetUp) Turned() Settings {
	out := Settings(maps.Clone(s.turned))
	if out == nil {
		out = Settings{}
	}
	return out
}

// Against returns the settings in which a set-up differs from another one's, as far
// as it has them; nil for none.
func (s SetUp) Against(o SetUp) Settings {
	var out Settings
	put := func(k Key) {
		is, _ := s.Value(k)
		was, turned := o.turned[k]
		if !turned {
			was = s.Movement.Setting(k).Default
		}
		if is != was {
			if out == nil {
				out = Settings{}
			}
			out[k] = is
		}
	}
	for k := range s.turned {
		put(k)
	}
	for k := range o.turned {
		if s.Movement.Setting(k) != nil {
			put(k)
		}
	}
	return out
}

// Value returns the value of a setting; false when the movement has none.
func (s SetUp) Value(k Key) (Value, bool) {
	if v, ok := s.turned[k]; ok {
		return v, true
	}
	if setting := s.Movement.Setting(k); setting != nil {
		return setting.Default, true
	}
	return Value{}, false
}

// Number returns the value of a number setting, 0 when the movement has none.
func (s SetUp) Number(k Key) float64 {
	v, _ := s.Value(k)
	return v.Number
}

// Key identifies the series the set-up's log belongs to: the movement and every
// turned setting in a fixed order.
func (s SetUp) Key() string {
	if s.key == "" {
		return s.makeKey()
	}
	return s.key
}

func (s SetUp) makeKey() string {
	var parts []string
	for _, k := range keyOrder {
		if v, ok := s.turned[k]; ok {
			parts = append(parts, string(k)+"="+v.String())
		}
	}
	if s.hand != nil {
		parts = append(parts, "hand="+trim(*s.hand))
	}
	if len(parts) == 0 {
		return s.Movement.ID
	}
	return s.Movement.ID + "?" + strings.Join(parts, "&")
}

// Implement is what the hand holds in this set-up.
func (s SetUp) Implement() ImplementID {
	if v, ok := s.turned[Implement]; ok {
		return ImplementID(v.Word)
	}
	return s.Movement.Implement
}

// Hands is the laterality: together (one implement in both hands), both,
// alternate or one.
func (s SetUp) Hands() string {
	i := s.Implement()
	if !i.oneHanded() && (i != Rope || s.Movement.Hands == Together) {
		return Together
	}
	if v, ok := s.turned[Hands]; ok {
		return v.Word
	}
	if s.Movement.Hands == Together { // turned from a bar to dumbbells
		return BothArms
	}
	return s.Movement.Hands
}

// HoldWord is where on the implement the hand is: the setting, or the movement's own.
func (s SetUp) HoldWord() string {
	v, ok := s.Value(Hold)
	switch {
	case s.Implement() == Shared:
		return bothHands
	case ok:
		return v.Word
	}
	return s.Movement.HoldWord
}

// bothHands is the hold of one weight in two hands; it is the only one there.
const bothHands = "both_hands"

// WristWord is how the wrist is kept: the setting, or the movement's own.
func (s SetUp) WristWord() string {
	if v, ok := s.Value(WristKey); ok {
		return v.Word
	}
	return s.Movement.Wrist
}

// SafeAlone says whether a set may be failed without help. On a pad it takes a free
// hand.
func (s SetUp) SafeAlone() Alone {
	if m := s.Movement; m.Anchor == "pad" && m.SafeAlone != AloneWithPins {
		if s.Hands() == OneArm || s.Hands() == Alternate && s.Pulls() == effort.Cable {
			return AloneYes
		}
		return AloneNo
	}
	return s.Movement.SafeAlone
}

// oneHanded says whether each hand may hold one of its own.
func (i ImplementID) oneHanded() bool { return i == Dumbbell || i == Handle || i == Lever }

// The lateralities.
const (
	Together  = "together"
	BothArms  = "both"
	Alternate = "alternate"
	OneArm    = "one"
)

// ArmsInTurn is how many times a set is done: 2 where each arm has its own turn.
func (s SetUp) ArmsInTurn() int {
	switch s.Hands() {
	case Alternate, OneArm:
		return 2
	}
	return 1
}

// Position is how the body is held.
func (s SetUp) Position() Position {
	if v, ok := s.turned[PositionKey]; ok {
		return Position(v.Word)
	}
	return s.Movement.Position
}

// Profile computes the set-up for a body, after the checks of Reach. It fails
// for graded movements, which have no profile.
func (s SetUp) Profile(y *effort.Yardstick) (*effort.Profile, error) {
	if !s.Movement.Computed() {
		return nil, fmt.Errorf("%s uses several joints and is graded, not computed", s.Movement.ID)
	}
	if err := s.Reach(y.Body()); err != nil {
		return nil, err
	}
	if down := s.Movement.lowersAs; down != nil {
		return y.Composite(s.EffortFor(y.Body().Stature), down.base)
	}
	return y.Profile(s.EffortFor(y.Body().Stature))
}

// Credits returns the graded credits of the set-up; false for computed ones.
//
// A press between the close and the wide width mixes the two rows, elbows more
// than 60° from the ribs count as wide, and a dip leaning more than 15° takes
// the leaning row.
func (s SetUp) Credits() (Credits, bool) {
	g := s.Movement.Graded
	if as := s.Movement.gripAs[s.word(Grip)]; as != nil {
		g = as.Graded
	}
	if g == nil {
		return Credits{}, false
	}
	var other float64
	if g.fromW != g.toW {
		other = min(max((s.Number(GripWidth)-g.fromW)/(g.toW-g.fromW), 0), 1)
	}
	if g.hasOther && s.Number(Tuck) > tuckWide {
		other = 1
		if g.wideIsUsual {
			other = 0
		}
	}
	if g.hasOther && s.Movement.Action == Dip && s.Number(Lean) > leanChest {
		other = 1
	}
	var out Credits
	for i := range arm.HeadCount {
		mix := func(a, b float64) float64 { return a + (b-a)*other }
		a, b := g.usual[i], g.other[i]
		out[i] = Credit{mix(a.Low, b.Low), mix(a.Mid, b.Mid), mix(a.High, b.High)}
	}
	return out, true
}
