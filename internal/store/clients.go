package store

import (
	"context"
	"encoding/json"
	"fmt"
	"time"

	"github.com/google/uuid"

	"musculus/internal/core/arm"
	"musculus/internal/core/person"
	"musculus/internal/core/stance"
	"musculus/internal/store/db"
)

// Client is who is coached, as far as this is kept yet.
type Client struct {
	ID         uuid.UUID
	Name       string
	About      string
	Wish       string
	Minutes    int // for one session
	Body       arm.Body
	Stance     *stance.Stance // whose reading of the rules her numbers follow
	Caps       []person.CapID
	ScreenedOn *time.Time // nil: not screened
	RoomID     uuid.UUID
	Room       person.Room
}

// AddRoom adds a room to the current studio.
func (t *Tx) AddRoom(ctx context.Context, id uuid.UUID, r person.Room) error {
	b, err := json.Marshal(r)
	if err != nil {
		return err
	}
	return t.q.AddRoom(ctx, db.AddRoomParams{RoomID: id, Equipment: b})
}

// AddClient adds a client to the current studio; her room is given by its id.
func (t *Tx) AddClient(ctx context.Context, c Client) error {
	caps := make([]string, len(c.Caps))
	for i, id := range c.Caps {
		caps[i] = string(id)
	}
	return t.q.AddClient(ctx, db.AddClientParams{ClientID: c.ID, RoomID: c.RoomID, Name: c.Name, About: c.About, Wish: c.Wish,
		Minutes: c.Minutes, StatureM: c.Body.Stature, BodyMassKg: c.Body.BodyMass, Caps: caps, ScreenedOn: c.ScreenedOn})
}

// Clients returns every client of the studio by name.
func (t *Tx) Clients(ctx context.Context) ([]Client, error) {
	rows, err := t.q.Clients(ctx)
	if err != nil {
		return nil, err
	}
	out := make([]Client, len(rows))
	for i, r := range rows {
		if out[i], err = client(r.Client, r.Room); err != nil {
			return nil, err
		}
		if out[i].Stance, err = t.resolve(ctx, r.Client.Stance); err != nil {
			return nil, err
		}
	}
	return out, nil
}

// Client returns one client of the studio, ErrNotFound if there is none.
func (t *Tx) Client(ctx context.Context, id uuid.UUID) (Client, error) {
	r, err := t.q.ClientByID(ctx, id)
	if err != nil {
		return Client{}, err
	}
	c, err := client(r.Client, r.Room)
	if err != nil {
		return c, err
	}
	c.Stance, err = t.resolve(ctx, r.Client.Stance)
	return c, err
}

// SetStance changes the stance a client's numbers follow, ErrNotFound if there
// is no such client.
func (t *Tx) SetStance(ctx context.Context, client uuid.UUID, stance string) error {
	n, err := t.q.SetStance(ctx, db.SetStanceParams{ClientID: client, Stance: stance})
	if err == nil && n == 0 {
		return ErrNotFound
	}
	return err
}

func client(c db.Client, r db.Room) (Client, error) {
	out := Client{ID: c.ClientID, Name: c.Name, About: c.About, Wish: c.Wish, Minutes: c.Minutes,
		Body: arm.Body{Stature: c.StatureM, BodyMass: c.BodyMassKg}, ScreenedOn: c.ScreenedOn, RoomID: c.RoomID}
	for _, id := range c.Caps {
		out.Caps = append(out.Caps, person.CapID(id))
	}
	if err := json.Unmarshal(r.Equipment, &out.Room); err != nil {
		return out, fmt.Errorf("room %s: %w", r.RoomID, err)
	}
	return out, nil
}
