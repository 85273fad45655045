package store

import (
	"context"
	"encoding/json"
	"time"

	"musculus/internal/core/person"
)

type settingKey struct{}

// setting is what of a studio every transaction of a context is told.
type setting struct {
	zone    *time.Location
	prefers person.Preferences
}

// Under says in which zone the days of a context's transactions are counted, and how
// its studio likes to train.
func Under(ctx context.Context, zone *time.Location, prefers person.Preferences) context.Context {
	return context.WithValue(ctx, settingKey{}, setting{zone, prefers})
}

func settingOf(ctx context.Context) setting {
	s, _ := ctx.Value(settingKey{}).(setting)
	if s.zone == nil {
		s.zone = time.UTC
	}
	return s
}

// ZoneOf is the zone of a context, UTC where none was said.
func ZoneOf(ctx context.Context) *time.Location { return settingOf(ctx).zone }

// Studio is the current studio.
type Studio struct {
	Name         string
	Zone         string // as the zones' database names it
	SecondFactor bool   // asked of everybody
	Preferences  person.Preferences
}

// Location is the studio's zone; UTC where its name is no longer known.
func (s *Studio) Location() *time.Location {
	if zone, err := time.LoadLocation(s.Zone); err == nil {
		return zone
	}
	return time.UTC
}

// Studio returns the current studio.
func (t *Tx) Studio(ctx context.Context) (Studio, error) {
	s, err := t.q.GetStudio(ctx)
	if err != nil {
		return Studio{}, err
	}
	out := Studio{Name: s.Name, Zone: s.Zone, SecondFactor: s.SecondFactor}
	return out, json.Unmarshal(s.Preferences, &out.Preferences)
}

// SetZone says in which zone a studio's days are counted.
func (t *Tx) SetZone(ctx context.Context, zone string) error {
	_, err := t.q.SetZone(ctx, zone)
	return err
}

// SetPreferences says how a studio likes to train where a client says nothing.
func (t *Tx) SetPreferences(ctx context.Context, p person.Preferences) error {
	b, err := json.Marshal(p)
	if err != nil {
		return err
	}
	return t.q.SetPreferences(ctx, b)
}
