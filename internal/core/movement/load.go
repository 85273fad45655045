package movement

import (
	"embed"

	"musculus/internal/core/datafile"
)

//go:embed data/*.yaml
var data embed.FS

// Catalogue is every movement, in the order of the data.
type Catalogue struct {
	Movements []*Movement
	byID      map[string]*Movement
	families  map[string]*Family
}

// Get returns the movement of an id, nil when there is none. Retired movements
// are found here, though they are not among Movements.
func (c *Catalogue) Get(id string) *Movement { return c.byID[id] }

// files hold the movements, in the order they are listed.
var files = []string{"flexors.yaml", "extensors.yaml", "several_joints.yaml"}

// Shipped is the catalogue that comes with the program. It panics when the
// embedded data is wrong, which the tests of this package rule out.
var Shipped = func() *Catalogue {
	texts := map[string][]byte{}
	for _, file := range files {
		texts[file] = embedded(file)
	}
	c, wrong := load(embedded("families.yaml"), embedded("faults.yaml"), texts, files...)
	if err := datafile.Join(wrong); err != nil {
		panic(err)
	}
	return c
}()

func embedded(name string) []byte {
	b, err := data.ReadFile("data/" + name)
	if err != nil {
		panic(err)
	}
	return b
}

// load reads the whole catalogue. Every fault is listed, with file, line, entry
// and field; entries without one are in the catalogue all the same.
func load(families, faults []byte, texts map[string][]byte, order ...string) (*Catalogue, []*datafile.Fault) {
	byFamily, wrong := loadFamilies(families, faults)
	c := &Catalogue{byID: map[string]*Movement{}, families: byFamily}
	for _, file := range order {
		wrong = append(wrong, c.add(file, texts[file])...)
	}
	for _, m := range c.Movements {
		for _, f := range m.Family.Faults {
			if f.Only != "" && c.byID[f.Only] == nil {
				wrong = append(wrong, &datafile.Fault{File: "faults.yaml", Entry: f.ID, Field: "only", Reason: "there is no movement " + f.Only})
			}
		}
	}
	return c, wrong
}

// add reads one file's movements into the catalogue.
func (c *Catalogue) add(file string, text []byte) []*datafile.Fault {
	entries, wrong := datafile.Read[row](file, text)
	type later struct {
		*datafile.Entry[row]
		m *Movement
	}
	var lowers, grips []later
	for i := range entries {
		e := &entries[i]
		m, faults := build(e, c.families)
		if c.byID[e.Row.ID] != nil {
			faults = append(faults, e.Fault("id", "%s is taken", e.Row.ID))
		}
		wrong = append(wrong, faults...)
		if len(faults) > 0 || !e.Whole {
			continue
		}
		if e.Row.LowersAs != "" {
			lowers = append(lowers, later{e, m})
		}
		if len(e.Row.Grips) > 0 {
			grips = append(grips, later{e, m})
		}
		c.byID[m.ID] = m
		c.Movements = append(c.Movements, m)
	}
	for _, l := range lowers { // once every id is known
		if l.m.lowersAs = c.byID[l.Row.LowersAs]; l.m.lowersAs == nil {
			wrong = append(wrong, l.Fault("lowers_as", "there is no movement %q", l.Row.LowersAs))
		}
	}
	for _, g := range grips {
		g.m.gripAs = map[string]*Movement{}
		for _, one := range g.Row.Grips {
			if g.m.gripAs[one.Grip] = c.byID[one.As]; g.m.gripAs[one.Grip] == nil || g.m.gripAs[one.Grip].Computed() {
				wrong = append(wrong, g.Fault("grips", "there is no graded movement %q", one.As))
			}
		}
	}
	return wrong
}
