package plan

import (
	"encoding/json"
	"fmt"
	"maps"

	"github.com/google/uuid"

	"musculus/internal/core/dose"
	"musculus/internal/core/movement"
)

// Version is that of the plans written now.
const Version = 2

// SlotJSON is a slot as it is written: the movement's id and the settings that were
// turned, so that it outlives changes of the catalogue's defaults.
type SlotJSON struct {
	ID       uuid.UUID         `json:"id"`
	Movement string            `json:"movement" maxLength:"60"`
	Settings movement.Settings `json:"settings"`
	Rows     []RowJSON         `json:"rows" maxItems:"40"`
	Cues     []string          `json:"cues"`
	Starts   Starts            `json:"starts,omitempty" enum:",left,right,left_only,right_only" doc:"the arm that begins, or does it alone; absent: in turn"`
	Combo    string            `json:"combo,omitempty" maxLength:"40" doc:"of the session's combos"`
	Locked   bool              `json:"locked,omitempty" doc:"no fix and no draft touches it"`
	// CueReason answers what is asked back about a cue.
	CueReason string `json:"cue_reason,omitempty" maxLength:"200" doc:"why a cue stays that asks for what a cap forbids"`
}

// RowJSON is a row as it is written, with the settings in which its sets differ from
// the slot's.
type RowJSON struct {
	ID uuid.UUID `json:"id"`
	dose.Dose
	Movement string            `json:"movement,omitempty" maxLength:"60" doc:"where only the hand differs; absent: the slot's"`
	Settings movement.Settings `json:"settings,omitempty" doc:"in which these sets differ from the slot's"`

	Whole bool `json:"-"` // the settings are all of them, as version 1 wrote them
}

// asked is a set-up as it was read: what stands in it is not known before it is
// resolved. The zero value is nothing.
type asked struct {
	movement string
	settings movement.Settings
	whole    bool // the settings are all of them, not only what differs from the slot's
}

// JSON is the slot as it is written.
func (s *Slot) JSON() SlotJSON {
	out := SlotJSON{ID: s.ID, Movement: s.own.movement, Settings: s.own.settings, Rows: make([]RowJSON, len(s.Rows)), Cues: s.Cues,
		Starts: s.Starts, Combo: s.Combo, Locked: s.Locked, CueReason: s.CueReason}
	if s.SetUp.Movement != nil {
		out.Movement, out.Settings = s.SetUp.Movement.ID, s.SetUp.Turned()
	}
	if out.Settings == nil {
		out.Settings = movement.Settings{}
	}
	if out.Cues == nil {
		out.Cues = []string{}
	}
	for i := range s.Rows {
		r := &s.Rows[i]
		out.Rows[i] = RowJSON{ID: r.ID, Dose: r.Dose, Movement: r.own.movement, Settings: r.own.settings, Whole: r.own.whole}
		if r.SetUp != nil {
			if r.SetUp.Movement.ID != out.Movement {
				out.Rows[i].Movement = r.SetUp.Movement.ID
			}
			out.Rows[i].Settings = r.SetUp.Against(s.SetUp)
		}
	}
	return out
}

// MarshalJSON writes a SlotJSON.
func (s Slot) MarshalJSON() ([]byte, error) { return json.Marshal(s.JSON()) }

// UnmarshalJSON reads a SlotJSON; it is to be resolved before it is counted.
func (s *Slot) UnmarshalJSON(b []byte) error {
	var in SlotJSON
	if err := json.Unmarshal(b, &in); err != nil {
		return err
	}
	*s = in.Slot()
	return nil
}

// Slot is what was written, to be resolved before it is counted.
func (in *SlotJSON) Slot() Slot {
	out := Slot{ID: in.ID, Cues: in.Cues, Starts: in.Starts, Combo: in.Combo, Locked: in.Locked, CueReason: in.CueReason,
		own: asked{movement: in.Movement, settings: in.Settings}}
	for _, r := range in.Rows {
		out.Rows = append(out.Rows, Row{ID: r.ID, Dose: r.Dose, own: asked{r.Movement, r.Settings, r.Whole}})
	}
	return out
}

// Resolve builds the set-ups of everything that was read from a catalogue. Slots
// whose movement is unknown or whose settings are wrong are told, one error a
// field, in the paths in which the session is written; the session can be counted
// only when there are none.
func (s *Session) Resolve(c *movement.Catalogue) []*movement.FieldError {
	var out []*movement.FieldError
	for i := range s.Slots {
		out = append(out, s.Slots[i].resolve(c, fmt.Sprintf("slots[%d].", i))...)
	}
	return out
}

func (s *Slot) resolve(c *movement.Catalogue, at string) []*movement.FieldError {
	if s.SetUp.Movement == nil {
		set, fault := c.SetUp(at, s.own.movement, s.own.settings)
		if fault != nil {
			return []*movement.FieldError{fault}
		}
		s.SetUp, s.own = set, asked{}
	}
	var out []*movement.FieldError
	for i := range s.Rows {
		r := &s.Rows[i]
		if r.own.movement == "" && len(r.own.settings) == 0 {
			continue
		}
		id := r.own.movement
		if id == "" {
			id = s.SetUp.Movement.ID
		}
		settings := r.own.settings
		if m := c.Get(id); m != nil && !r.own.whole { // the slot's first, as far as it has them, then its own
			settings = movement.Settings{}
			for k, v := range s.SetUp.Turned() {
				if m.Setting(k) != nil {
					settings[k] = v
				}
			}
			maps.Copy(settings, r.own.settings)
		}
		set, fault := c.SetUp(fmt.Sprintf("%srows[%d].", at, i), id, settings)
		if fault != nil {
			out = append(out, fault)
			continue
		}
		r.SetUp, r.own = &set, asked{}
		if set.Movement == s.SetUp.Movement && set.Key() == s.SetUp.Key() {
			r.SetUp = nil
		}
	}
	return out
}

// Write writes a session as it is kept.
func (s *Session) Write() ([]byte, error) {
	return json.Marshal(struct {
		Version int `json:"version"`
		Session
	}{Version, *s})
}

// Read reads a session as it was kept in any version there was; it is to be
// resolved before it is counted.
func Read(b []byte) (Session, error) {
	var kept struct {
		Version int `json:"version"`
	}
	if err := json.Unmarshal(b, &kept); err != nil {
		return Session{}, err
	}
	switch kept.Version {
	case 0, 1:
		return readOld(b)
	case Version:
		var out Session
		err := json.Unmarshal(b, &out)
		return out, err
	}
	return Session{}, fmt.Errorf("a plan of version %d is not read here, only up to %d", kept.Version, Version)
}
