package block

import (
	"encoding/json"

	"github.com/google/uuid"

	"musculus/internal/core/day"
	"musculus/internal/core/plan"
)

// kept is a session as it is kept within a block: its plan in whichever version it was written.
type kept struct {
	ID    uuid.UUID       `json:"id"`
	Name  string          `json:"name"`
	After int             `json:"after,omitempty"`
	On    day.Day         `json:"on,omitempty"`
	Plan  json.RawMessage `json:"plan"`
}

// MarshalJSON writes a day with its plan's version.
func (d Day) MarshalJSON() ([]byte, error) {
	p, err := d.Write()
	if err != nil {
		return nil, err
	}
	return json.Marshal(kept{ID: d.ID, Name: d.Name, After: d.After, Plan: p})
}

// UnmarshalJSON reads a day in any version of a plan there was; it is to be resolved.
func (d *Day) UnmarshalJSON(b []byte) error {
	var k kept
	if err := json.Unmarshal(b, &k); err != nil {
		return err
	}
	s, err := plan.Read(k.Plan)
	*d = Day{ID: k.ID, Name: k.Name, After: k.After, Session: s}
	return err
}

// Write writes a session as a block keeps it.
func Write(s *plan.Planned) ([]byte, error) {
	p, err := s.Write()
	if err != nil {
		return nil, err
	}
	return json.Marshal(kept{ID: s.ID, Name: s.Name, On: s.On, Plan: p})
}

// Read reads what Write wrote; it is to be resolved.
func Read(b []byte) (plan.Planned, error) {
	var k kept
	if err := json.Unmarshal(b, &k); err != nil {
		return plan.Planned{}, err
	}
	s, err := plan.Read(k.Plan)
	return plan.Planned{ID: k.ID, Name: k.Name, On: k.On, Session: s}, err
}
