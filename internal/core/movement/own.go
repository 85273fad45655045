package movement

import (
	"maps"
	"slices"
	"strings"

	"github.com/goccy/go-yaml"

	"musculus/internal/core/arm"
	"musculus/internal/core/datafile"
)

// Own is a movement of a studio's own: the text of one entry, as in the data.
type Own struct {
	ID      string
	Text    string
	Retired bool // no longer offered; what was planned and logged with it still reads
}

// OwnPrefix begins the ids of a studio's own movements, so that they never meet
// those of a later catalogue.
const OwnPrefix = "own_"

// With is the catalogue with a studio's own movements after the shipped ones.
// An entry with a fault is left out, the others are kept.
func (c *Catalogue) With(own []Own) (*Catalogue, []*datafile.Fault) {
	if len(own) == 0 {
		return c, nil
	}
	out := &Catalogue{Movements: slices.Clone(c.Movements), byID: maps.Clone(c.byID), families: c.families}
	var wrong []*datafile.Fault
	for _, o := range own {
		before := len(out.Movements)
		wrong = append(wrong, out.addOwn(o)...)
		if o.Retired {
			out.Movements = out.Movements[:before]
		}
	}
	return out, wrong
}

// CheckOwn says what is wrong with one entry of a studio's own.
func (c *Catalogue) CheckOwn(o Own) (*Movement, []*datafile.Fault) {
	try := &Catalogue{byID: maps.Clone(c.byID), families: c.families}
	delete(try.byID, o.ID) // it may take its own place
	if wrong := try.addOwn(o); len(wrong) > 0 {
		return nil, wrong
	}
	return try.byID[o.ID], nil
}

func (c *Catalogue) addOwn(o Own) []*datafile.Fault {
	// Read once to see that it is this one entry and nothing else.
	entries, wrong := datafile.Read[row](o.ID, []byte(o.Text))
	switch {
	case len(entries) == 0 && len(wrong) > 0:
		return wrong
	case len(entries) != 1:
		return []*datafile.Fault{{File: o.ID, Line: 1, Reason: "must be one entry, beginning with “- id:”"}}
	case entries[0].ID != o.ID || !strings.HasPrefix(o.ID, OwnPrefix) || !plainID(o.ID):
		return []*datafile.Fault{entries[0].Fault("id", "must be %s: own_ and then small letters, digits and _ only", o.ID)}
	}
	wrong = c.add(o.ID, []byte(o.Text))
	m := c.byID[o.ID]
	if len(wrong) == 0 && m.Computed() {
		if err := m.Default().Reach(arm.DefaultBody); err != nil {
			delete(c.byID, o.ID)
			c.Movements = slices.DeleteFunc(c.Movements, func(x *Movement) bool { return x == m })
			return []*datafile.Fault{entries[0].Fault("from", "%s", err)}
		}
	}
	return wrong
}

// plainID says whether an id can stand in addresses and file names.
func plainID(id string) bool {
	return len(id) <= 60 && !strings.ContainsFunc(id, func(r rune) bool { return (r < 'a' || r > 'z') && (r < '0' || r > '9') && r != '_' })
}

// OwnID makes an id of a name.
func OwnID(name string) string {
	id := strings.Map(func(r rune) rune {
		switch {
		case r >= 'a' && r <= 'z', r >= '0' && r <= '9':
			return r
		}
		return '_'
	}, strings.ToLower(name))
	for strings.Contains(id, "__") {
		id = strings.ReplaceAll(id, "__", "_")
	}
	id = OwnPrefix + strings.Trim(id, "_")
	return strings.TrimRight(id[:min(len(id), 60)], "_")
}

// OwnText writes a set-up as an entry of a studio's own: what was turned becomes
// the default. A turned grip width stays a setting, since it is counted from the
// movement's own turn of the arm.
func OwnText(s SetUp, id, name string) (string, error) {
	r := s.Movement.source
	r.Grips = slices.Clone(r.Grips)
	base := SetUp{Movement: s.Movement, turned: s.Turned()}
	if s.Movement.Computed() {
		delete(base.turned, GripWidth)
	}
	e := base.Effort()
	r.ID, r.Name = id, name
	r.TrunkLean, r.From, r.To, r.Pulley, r.GripOffset = e.TrunkLean, e.From, e.To, e.Load.Pulley, e.GripOffset
	r.Position = s.Position()
	r.Implements = first(r.Implements, s.Implement())
	r.Positions = first(r.Positions, s.Position())
	if v, ok := s.Value(Hands); ok {
		r.Hands = first(r.Hands, v.Word)
	}
	r.Hold, r.Wrist, r.Thick = s.HoldWord(), s.WristWord(), s.word(ThickHandle) == yes
	if i := slices.IndexFunc(r.Grips, func(g gripRow) bool { return g.Grip == s.word(Grip) }); i > 0 {
		r.Grips[0], r.Grips[i] = r.Grips[i], r.Grips[0]
	}
	if v, ok := s.Value(PositionKey); ok {
		r.Position = Position(v.Word)
	}
	r.Settings = slices.Clone(r.Settings)
	for i := range r.Settings {
		row := &r.Settings[i]
		if setting := s.Movement.Setting(row.Key); setting != nil && !setting.IsWord() && !s.Movement.Computed() {
			x := s.Number(row.Key)
			row.Default = &x
		}
	}
	text, err := yaml.MarshalWithOptions([]row{r}, yaml.Indent(2), yaml.OmitZero(), yaml.AutoInt())
	return string(text), err
}

// first moves a word to the front, where the default stands.
func first[T comparable](words []T, w T) []T {
	at := slices.Index(words, w)
	if at <= 0 {
		return words
	}
	return append([]T{w}, slices.Delete(slices.Clone(words), at, at+1)...)
}
