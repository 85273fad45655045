package person

import (
	"encoding/json"
	"slices"

	"musculus/internal/core/movement"
)

// RoomVersion is that of the rooms written now. Version 1 had no number and a field
// for each kind of thing; it is read for ever.
const RoomVersion = 2

// roomV1 is a room as version 1 kept it.
type roomV1 struct {
	Dumbbells []struct {
		Kg    float64 `json:"kg"`
		Count int     `json:"count"`
	} `json:"dumbbells"`
	Bars []struct {
		Kind  movement.ImplementID `json:"kind"`
		OwnKg float64              `json:"own_kg"`
		Loads []float64            `json:"loads_kg"`
	} `json:"bars"`
	Cable *struct {
		Columns     int                    `json:"columns"`
		Stack       []float64              `json:"stack_kg"`
		Ratio       float64                `json:"ratio"`
		Attachments []movement.ImplementID `json:"attachments"`
		LowM        float64                `json:"low_m"`
		HighM       float64                `json:"high_m"`
	} `json:"cable"`
	DipBars  bool                   `json:"dip_bars"`
	DipLoads []float64              `json:"dip_loads_kg"`
	Others   []movement.ImplementID `json:"others"`
}

// things are those of a room of version 1.
func (o *roomV1) things() (out []Thing) {
	var pairs, singles []float64
	for _, d := range o.Dumbbells {
		if d.Count >= 2 {
			pairs = append(pairs, d.Kg)
		} else {
			singles = append(singles, d.Kg)
		}
	}
	if slices.Sort(pairs); len(pairs) > 0 {
		out = append(out, Pairs(pairs...))
	}
	if slices.Sort(singles); len(singles) > 0 {
		out = append(out, Singles(singles...))
	}
	for _, b := range o.Bars {
		out = append(out, BarOf(b.Kind, b.OwnKg, b.Loads...))
	}
	if c := o.Cable; c != nil {
		t := Columns(c.Columns, c.Ratio, c.Stack...)
		t.Low, t.High = c.LowM, c.HighM
		out = append(out, t)
		for _, a := range c.Attachments {
			out = append(out, There(OnCable(a)))
		}
	}
	if o.DipBars {
		out = append(out, There(movement.DipBars))
	}
	if len(o.DipLoads) > 0 {
		out = append(out, BeltOf(o.DipLoads...))
	}
	for _, id := range o.Others {
		out = append(out, There(id))
	}
	return out
}

// plainRoom is a room without a way of its own to be written.
type plainRoom Room

// MarshalJSON writes a room in the version of today.
func (r Room) MarshalJSON() ([]byte, error) {
	return json.Marshal(struct {
		Version int `json:"version"`
		plainRoom
	}{RoomVersion, plainRoom(r)})
}

// UnmarshalJSON reads a room of any version.
func (r *Room) UnmarshalJSON(b []byte) error {
	var read struct {
		Version int `json:"version"`
		plainRoom
	}
	if err := json.Unmarshal(b, &read); err != nil {
		return err
	}
	*r = Room(read.plainRoom)
	if read.Version < RoomVersion {
		var old roomV1
		if err := json.Unmarshal(b, &old); err != nil {
			return err
		}
		r.Things = old.things()
	}
	return nil
}
