package movement

import (
	"bytes"
	"embed"
	"errors"
	"fmt"
	"slices"

	"github.com/goccy/go-yaml"

	"musculus/internal/core/arm"
	"musculus/internal/core/effort"
)

//go:embed data/*.yaml
var data embed.FS

// Catalogue is every movement, in the order of the data.
type Catalogue struct {
	Movements []*Movement
	byID      map[string]*Movement
}

// Get returns the movement of an id, nil when there is none.
func (c *Catalogue) Get(id string) *Movement { return c.byID[id] }

// Shipped is the catalogue that comes with the program. It panics when the
// embedded data is wrong, which the tests of this package rule out.
var Shipped = func() *Catalogue {
	read := func(name string) []byte {
		b, err := data.ReadFile("data/" + name)
		if err != nil {
			panic(err)
		}
		return b
	}
	c, err := load(read("families.yaml"), read("faults.yaml"), map[string][]byte{
		"flexors.yaml":        read("flexors.yaml"),
		"extensors.yaml":      read("extensors.yaml"),
		"several_joints.yaml": read("several_joints.yaml"),
	}, "flexors.yaml", "extensors.yaml", "several_joints.yaml")
	if err != nil {
		panic(err)
	}
	return c
}()

// settingRow is a setting as data writes it: a bare key, or a key with limits.
type settingRow struct {
	Key     Key      `yaml:"key"`
	Min     *float64 `yaml:"min"`
	Max     *float64 `yaml:"max"`
	Default *float64 `yaml:"default"`
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

type creditRow map[string][3]float64

type row struct {
	ID           string        `yaml:"id"`
	Name         string        `yaml:"name"`
	Action       Action        `yaml:"action"`
	Family       string        `yaml:"family"`
	Position     Position      `yaml:"position"`
	Positions    []Position    `yaml:"positions"`
	ArmsKeep     bool          `yaml:"arms_keep"`
	Anchor       string        `yaml:"anchor"`
	Partner      string        `yaml:"partner"`
	UpperArm     string        `yaml:"upper_arm"`
	Like         string        `yaml:"like"` // the family whose joint scores and stop rule it has
	LowersAs     string        `yaml:"lowers_as"`
	Joints       *jointsRow    `yaml:"joints"`
	TrunkLean    float64       `yaml:"trunk_lean"`
	SafeAlone    Alone         `yaml:"safe_alone"`
	Implements   []ImplementID `yaml:"implements"`
	Hands        []string      `yaml:"hands"`
	Holds        []string      `yaml:"holds"`
	From         arm.Posture   `yaml:"from"`
	To           arm.Posture   `yaml:"to"`
	Load         string        `yaml:"load"`
	Pulley       arm.Vec       `yaml:"pulley"`
	ArmSupported bool          `yaml:"arm_supported"`
	Settings     []settingRow  `yaml:"settings"`
	Grade        string        `yaml:"grade"`
	Credits      creditRow     `yaml:"credits"`
	Other        creditRow     `yaml:"other"`
	FromWidth    float64       `yaml:"from_width"`
	ToWidth      float64       `yaml:"to_width"`
	WideRow      string        `yaml:"wide_row"`
}

// jointsRow overrides single joint scores of the family.
type jointsRow struct {
	Wrist         *int `yaml:"wrist"`
	ElbowFront    *int `yaml:"elbow_front"`
	ElbowBack     *int `yaml:"elbow_back"`
	ShoulderFront *int `yaml:"shoulder_front"`
	ShoulderTop   *int `yaml:"shoulder_top"`
}

func (r *jointsRow) over(j JointScores) JointScores {
	if r == nil {
		return j
	}
	for _, one := range []struct {
		to   *int
		from *int
	}{{&j.Wrist, r.Wrist}, {&j.ElbowFront, r.ElbowFront}, {&j.ElbowBack, r.ElbowBack}, {&j.ShoulderFront, r.ShoulderFront}, {&j.ShoulderTop, r.ShoulderTop}} {
		if one.from != nil {
			*one.to = *one.from
		}
	}
	return j
}

type familyRow struct {
	ID         string      `yaml:"id"`
	Label      string      `yaml:"label"`
	Stop       string      `yaml:"stop"`
	Alone      string      `yaml:"alone"`
	Partner    string      `yaml:"partner"`
	Joints     JointScores `yaml:"joints"`
	UpperArm   string      `yaml:"upper_arm"`
	Exceptions string      `yaml:"exceptions"`
}

type faultRow struct {
	ID     string             `yaml:"id"`
	Family string             `yaml:"family"`
	View   string             `yaml:"view"`
	Seen   string             `yaml:"seen"`
	Cause  string             `yaml:"cause"`
	Cue    string             `yaml:"cue"`
	Joint  string             `yaml:"joint"`
	Remedy string             `yaml:"remedy"`
	Only   string             `yaml:"only"`
	Change map[string]float64 `yaml:"change"`
	Costs  string             `yaml:"costs"`
}

// longestCue is how long a cue may be, in characters.
const longestCue = 60

// decode reads YAML strictly; errors name the file, the line and the field.
func decode(file string, b []byte, into any) error {
	if err := yaml.NewDecoder(bytes.NewReader(b), yaml.Strict()).Decode(into); err != nil {
		return fmt.Errorf("%s: %w", file, err)
	}
	return nil
}

// load reads the whole catalogue. Faults of entries are listed all at once, each
// with file, line, entry and field.
func load(families, faults []byte, files map[string][]byte, order ...string) (*Catalogue, error) {
	byFamily, err := loadFamilies(families, faults)
	if err != nil {
		return nil, err
	}
	var wrong []error
	c := &Catalogue{byID: map[string]*Movement{}}
	lowers := map[string]string{}
	for _, file := range order {
		var rows []row
		if err := decode(file, files[file], &rows); err != nil {
			wrong = append(wrong, err)
			continue
		}
		for i := range rows {
			m, err := rows[i].build(byFamily)
			if err == nil && c.byID[m.ID] != nil {
				err = fmt.Errorf("id: %s is taken", m.ID)
			}
			if err != nil {
				wrong = append(wrong, fmt.Errorf("%s:%d: entry %d (%s): %w", file, lineOf(files[file], i), i+1, rows[i].ID, err))
				continue
			}
			c.byID[m.ID] = m
			if as := rows[i].LowersAs; as != "" {
				lowers[m.ID] = as
			}
			c.Movements = append(c.Movements, m)
		}
	}
	for id, as := range lowers { // once every id is known
		if c.byID[id].lowersAs = c.byID[as]; c.byID[as] == nil {
			wrong = append(wrong, fmt.Errorf("%s: lowers_as: there is no movement %q", id, as))
		}
	}
	return c, errors.Join(wrong...)
}

// lineOf is the line on which a list's entry begins, counted from 1.
func lineOf(file []byte, entry int) int {
	for i, line := range bytes.Split(file, []byte("\n")) {
		if bytes.HasPrefix(line, []byte("- ")) {
			if entry == 0 {
				return i + 1
			}
			entry--
		}
	}
	return 0
}

func loadFamilies(families, faults []byte) (map[string]*Family, error) {
	var rows []familyRow
	if err := decode("families.yaml", families, &rows); err != nil {
		return nil, err
	}
	out := map[string]*Family{}
	for _, r := range rows {
		out[r.ID] = &Family{ID: r.ID, Label: r.Label, Stop: r.Stop, UpperArm: r.UpperArm, Joints: r.Joints}
	}
	var faultRows []faultRow
	if err := decode("faults.yaml", faults, &faultRows); err != nil {
		return nil, err
	}
	var common []Fault
	for i, r := range faultRows {
		if n := len([]rune(r.Cue)); n == 0 || n > longestCue {
			return nil, fmt.Errorf("faults.yaml: entry %d (%s): cue: %d characters, not 1…%d", i+1, r.ID, n, longestCue)
		}
		f := Fault{r.ID, r.Seen, r.View, r.Cause, r.Cue, r.Joint, r.Remedy, r.Only, r.Change, r.Costs}
		if r.Family == "any" {
			common = append(common, f)
		} else if family := out[r.Family]; family != nil {
			family.Faults = append(family.Faults, f)
		} else {
			return nil, fmt.Errorf("faults.yaml: entry %d (%s): family: there is no %q", i+1, r.ID, r.Family)
		}
	}
	for _, family := range out {
		family.Faults = append(family.Faults, common...)
	}
	return out, nil
}

func (r *row) build(families map[string]*Family) (*Movement, error) {
	m := &Movement{
		ID: r.ID, Action: r.Action, Family: families[r.Family], Position: r.Position, ArmsKeep: r.ArmsKeep,
		Anchor: r.Anchor, Partner: r.Partner, SafeAlone: r.SafeAlone, lead: r.Name,
		base: effort.Setup{TrunkLean: r.TrunkLean, From: r.From, To: r.To, ArmSupported: r.ArmSupported, Load: effort.Load{Kind: effort.LoadKind(r.Load), Pulley: r.Pulley}},
	}
	switch {
	case r.ID == "":
		return nil, fmt.Errorf("id: missing")
	case r.Name == "":
		return nil, fmt.Errorf("name: missing")
	case m.Family == nil:
		return nil, fmt.Errorf("family: there is no %q", r.Family)
	case len(r.Implements) == 0:
		return nil, fmt.Errorf("implements: missing")
	}
	if m.SafeAlone == "" {
		m.SafeAlone = AloneYes
	}
	m.Implement = r.Implements[0]
	m.Hands = Together
	if len(r.Hands) > 0 {
		m.Hands = r.Hands[0]
	} else if m.Implement.oneHanded() {
		m.Hands = BothArms
	}
	as := m.Family // whose joints and upper arm it shares
	if r.Like != "" {
		if as = families[r.Like]; as == nil {
			return nil, fmt.Errorf("like: there is no family %q", r.Like)
		}
	}
	m.Joints, m.UpperArm = r.Joints.over(as.Joints), r.UpperArm
	if m.UpperArm == "" {
		m.UpperArm = as.UpperArm
	}
	if r.Credits != nil {
		g := &Graded{Grade: r.Grade, fromW: r.FromWidth, toW: r.ToWidth, hasOther: r.Other != nil, wideIsUsual: r.WideRow == "usual"}
		var err error
		if g.usual, err = r.Credits.credits(); err != nil {
			return nil, fmt.Errorf("credits: %w", err)
		}
		if g.other, err = r.Other.credits(); err != nil {
			return nil, fmt.Errorf("other: %w", err)
		}
		m.Graded = g
	}
	rows := r.Settings
	if m.Computed() {
		for _, k := range []Key{ElbowFrom, ElbowTo} { // every computed movement has them
			if !slices.ContainsFunc(rows, func(s settingRow) bool { return s.Key == k }) {
				lo, hi := 0.0, 150.0
				rows = append(rows, settingRow{Key: k, Min: &lo, Max: &hi})
			}
		}
	}
	for _, s := range rows {
		setting, err := r.setting(m, s)
		if err != nil {
			return nil, fmt.Errorf("settings.%s: %w", s.Key, err)
		}
		m.Settings = append(m.Settings, setting)
	}
	slices.SortStableFunc(m.Settings, func(a, b Setting) int {
		return slices.Index(keyOrder, a.Key) - slices.Index(keyOrder, b.Key)
	})
	return m, nil
}

func (c creditRow) credits() (out Credits, err error) {
	for id, v := range c {
		h, ok := arm.HeadByID(id)
		if !ok {
			return out, fmt.Errorf("there is no head %q", id)
		}
		if !(0 <= v[0] && v[0] <= v[1] && v[1] <= v[2]) {
			return out, fmt.Errorf("%s: low, middle and high must rise", id)
		}
		out[h] = Credit{v[0], v[1], v[2]}
	}
	return out, nil
}
