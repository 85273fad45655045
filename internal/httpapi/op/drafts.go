package op

import (
	"context"
	"fmt"

	"musculus/internal/core/day"
	"musculus/internal/core/dose"
	"musculus/internal/core/movement"
	"musculus/internal/core/plan"
	"musculus/internal/core/week"
	"musculus/internal/store"
)

// The days a session may be planned on.
var firstDay, lastDay = day.Of(2000, 1, 1), day.Of(2100, 12, 31)

// Floor is what a client's loads are worked out for.
func Floor(c *store.Client) *plan.Floor {
	return &plan.Floor{Room: c.Room(), BodyMass: c.Dossier.Body().BodyMass}
}

// fill gives new slots what the client prefers.
func (s *Server) fill(c *store.Client) func(*plan.Slot) {
	return func(slot *plan.Slot) {
		if t, err := s.Trainee(c); err == nil && slot.SetUp.Movement != nil {
			t.Fill(slot)
			return
		}
		slot.Rows = []plan.Row{{Dose: dose.Usual(s.caps(c))}}
	}
}

// Read turns what is edited into what would be kept: slots without rows get the
// usual one, loads are those of the client's room. What cannot be read is told.
func (s *Server) Read(ctx context.Context, c *store.Client, d *plan.Planned) (store.Session, []*movement.FieldError) {
	out := store.Session{ClientID: c.ID, Planned: *d}
	unknown := out.Resolve(Movements(ctx)) // what is new is filled by what it is
	out.Tidy(s.fill(c))
	wrong := out.Says()
	if out.On < firstDay || out.On > lastDay {
		wrong = append(wrong, &movement.FieldError{Field: "planned_on", Reason: "not a date between 2000 and 2100"})
	}
	if len(unknown) == 0 {
		out.Settle(Floor(c))
	}
	return out, append(wrong, unknown...)
}

// ReadBoard reads the sessions of a week as they are edited; only what cannot be read at all
// is refused.
func (s *Server) ReadBoard(ctx context.Context, c *store.Client, edited []store.Session) ([]store.Session, error) {
	slots := 0
	for i := range edited {
		slots += len(edited[i].Slots)
	}
	if err := WeekFits(slots); err != nil {
		return nil, err
	}
	var wrong []*movement.FieldError
	out := make([]store.Session, len(edited))
	for i := range edited {
		kept, faults := s.Read(ctx, c, &edited[i].Planned)
		for _, f := range faults {
			f.Field = fmt.Sprintf("sessions[%d].%s", i, f.Field)
			wrong = append(wrong, f)
		}
		kept.Version = edited[i].Version
		out[i] = kept
	}
	return out, Faults("body.", wrong)
}

// WeekFits refuses more slots than a week holds.
func WeekFits(slots int) error {
	if slots > week.MostWeekSlots {
		return FieldProblem("body.sessions", "%d slots are more than the %d of a week", slots, week.MostWeekSlots)
	}
	return nil
}

// Checked reads a draft and refuses whatever is wrong with it.
func (s *Server) Checked(ctx context.Context, c *store.Client, d *plan.Planned) (store.Session, error) {
	draft, wrong := s.Read(ctx, c, d)
	if len(wrong) == 0 {
		t, err := s.Trainee(c)
		if err != nil {
			return draft, err
		}
		wrong = t.Check(&draft.Session)
		for i := range draft.Slots {
			if err := draft.Slots[i].SetUpIn(0).Reach(c.Dossier.Body()); err != nil {
				wrong = append(wrong, &movement.FieldError{Field: fmt.Sprintf("slots[%d].settings", i), Reason: err.Error()})
			}
		}
	}
	return draft, Faults("body.", wrong)
}
