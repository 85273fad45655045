package store

import (
	"context"
	"time"
)

type zoneKey struct{}

// InZone says in which zone the days of a context's transactions are counted.
func InZone(ctx context.Context, zone *time.Location) context.Context {
	return context.WithValue(ctx, zoneKey{}, zone)
}

// ZoneOf is the zone of a context, UTC where none was said.
func ZoneOf(ctx context.Context) *time.Location {
	if zone, ok := ctx.Value(zoneKey{}).(*time.Location); ok && zone != nil {
		return zone
	}
	return time.UTC
}

// Studio is the current studio.
type Studio struct {
	Name         string
	Zone         string // as the zones' database names it
	SecondFactor bool   // asked of everybody
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
	return Studio{s.Name, s.Zone, s.SecondFactor}, err
}

// SetZone says in which zone a studio's days are counted.
func (t *Tx) SetZone(ctx context.Context, zone string) error {
	_, err := t.q.SetZone(ctx, zone)
	return err
}
