package store

import (
	"context"
	"encoding/json"
	"fmt"
	"time"

	"github.com/google/uuid"

	"musculus/internal/core/day"
	"musculus/internal/core/person"
	"musculus/internal/core/stance"
	"musculus/internal/store/db"
)

// Client is who is coached, with everything caps and verdicts come from.
type Client struct {
	Zone      *time.Location // of the studio: in which her days are counted
	Prefer    person.Preferred
	ID        uuid.UUID
	Dossier   person.Dossier
	Stance    *stance.Stance    // whose reading of the rules her numbers follow
	Screening *person.Screening // the last round, nil: not screened
	Joints    []person.JointReport
	Rooms     []Room            // the first is the usual one
	Overrides map[string]string // movements whose verdict is overridden, with the reason
	Mark      Mark              // changes with all of it but the stance
}

// Room is a room of the studio.
type Room struct {
	ID   uuid.UUID
	Mark string // changes with its content; "" with a client
	person.Room
}

// noRoom is where a client trains who has no room yet.
var noRoom = person.Room{Name: "no room yet"}

// Room is the usual one.
func (c *Client) Room() *person.Room {
	if len(c.Rooms) == 0 {
		return &noRoom
	}
	return &c.Rooms[0].Room
}

// Standing is where the client stands on a day.
func (c *Client) Standing(today day.Day) person.Standing {
	return person.StandingOf(&c.Dossier, c.Screening, c.Joints, today)
}

// AddRoom adds a room to the current studio; sending it twice adds it once, another
// under its id is ErrTaken.
func (t *Tx) AddRoom(ctx context.Context, id uuid.UUID, r person.Room) error {
	b, err := json.Marshal(r)
	if err != nil {
		return err
	}
	n, err := t.q.AddRoom(ctx, db.AddRoomParams{RoomID: id, Equipment: b})
	return once(n, err, func() (bool, error) { return t.q.SameRoom(ctx, db.SameRoomParams{RoomID: id, Equipment: b}) })
}

// PutRoom writes a room over the mark it was read with; false when somebody
// changed it in between.
func (t *Tx) PutRoom(ctx context.Context, r Room) (bool, error) {
	b, err := json.Marshal(r.Room)
	if err != nil {
		return false, err
	}
	n, err := t.q.PutRoom(ctx, db.PutRoomParams{RoomID: r.ID, Equipment: b, Was: r.Mark})
	return n == 1, err
}

// Rooms returns the studio's rooms by name.
func (t *Tx) Rooms(ctx context.Context) ([]Room, error) {
	rows, err := t.q.Rooms(ctx)
	if err != nil {
		return nil, err
	}
	out := make([]Room, len(rows))
	for i, r := range rows {
		out[i] = Room{ID: r.RoomID, Mark: r.Mark}
		if err := json.Unmarshal(r.Equipment, &out[i].Room); err != nil {
			return nil, fmt.Errorf("room %s: %w", r.RoomID, err)
		}
	}
	return out, nil
}

// AddClient adds a client to the current studio; sending it twice adds it once,
// another of that id is ErrTaken.
func (t *Tx) AddClient(ctx context.Context, id uuid.UUID, d person.Dossier, coach uuid.UUID) error {
	b, err := json.Marshal(d)
	if err != nil {
		return err
	}
	n, err := t.q.AddClient(ctx, db.AddClientParams{ClientID: id, Dossier: b, CoachID: &coach})
	return once(n, err, func() (bool, error) { return t.q.SameClient(ctx, db.SameClientParams{ClientID: id, Name: d.Name}) })
}

// Clients returns every client of the studio by name. What they hold is shared with
// others who read them: not to be changed.
func (t *Tx) Clients(ctx context.Context) ([]Client, error) {
	rows, err := t.q.Clients(ctx)
	if err != nil {
		return nil, err
	}
	out := make([]Client, len(rows))
	stances := map[string]*stance.Stance{}
	for i, r := range rows {
		if out[i], err = t.record(r); err != nil {
			return nil, err
		}
		if stances[r.Stance] == nil {
			if stances[r.Stance], err = t.resolve(ctx, r.Stance); err != nil {
				return nil, err
			}
		}
		out[i].Stance = stances[r.Stance]
	}
	return out, nil
}

// Client returns one client of the studio, ErrNotFound if there is none. What she
// holds is shared with others who read her: not to be changed.
func (t *Tx) Client(ctx context.Context, id uuid.UUID) (Client, error) {
	r, err := t.q.ClientByID(ctx, id)
	if err != nil {
		return Client{}, err
	}
	out, err := t.record(r)
	if err == nil {
		out.Stance, err = t.resolve(ctx, r.Stance)
	}
	return out, err
}

// record is a client as she is kept, without her stance.
func (t *Tx) record(r db.ClientWhole) (Client, error) {
	prefers, err := json.Marshal(t.prefers)
	if err != nil {
		return Client{}, err
	}
	mark := markOf(r.ClientID[:], r.Dossier, r.Screening, r.Joints, r.Rooms, r.Overrides, prefers)
	known, ok := t.read.clients.Get(mark)
	if !ok {
		if known, err = readClient(r); err != nil {
			return Client{}, fmt.Errorf("client %s: %w", r.ClientID, err)
		}
		known.Mark = mark
		t.read.clients.Add(mark, known)
	}
	out := *known
	out.Zone, out.Prefer = t.zone, person.PreferredOf(out.Dossier.Preferences, t.prefers)
	return out, nil
}

func readClient(r db.ClientWhole) (*Client, error) {
	out := &Client{ID: r.ClientID}
	rooms := map[string]person.Room{}
	for _, part := range []struct {
		from json.RawMessage
		to   any
	}{{r.Dossier, &out.Dossier}, {r.Screening, &out.Screening}, {r.Joints, &out.Joints}, {r.Rooms, &rooms}, {r.Overrides, &out.Overrides}} {
		if err := json.Unmarshal(part.from, part.to); err != nil {
			return nil, err
		}
	}
	out.Dossier = out.Dossier.Seen()
	if out.Dossier.HealthConsent == nil { // out of sight until it is erased or allowed again
		out.Screening, out.Joints, out.Overrides = nil, nil, nil
	}
	for _, id := range out.Dossier.Rooms {
		if room, ok := rooms[id]; ok {
			if out.Dossier.Units == "imperial" { // of two marks that are one step, hers goes first
				room.Prefer = person.Pound
			}
			out.Rooms = append(out.Rooms, Room{ID: uuid.MustParse(id), Room: room})
		}
	}
	return out, nil
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

// ChangedBy says who changed a field last, and when.
type ChangedBy struct {
	Name string
	At   time.Time
}

// ChangeDossier makes changes field by field (person.Dossier.Apply) and keeps
// them. With clashes or faults nothing is changed.
func (t *Tx) ChangeDossier(
	ctx context.Context,
	client uuid.UUID,
	changes []person.Change,
	by uuid.UUID,
	today day.Day,
	at time.Time,
) ([]person.Clash, []person.FieldError, error) {
	b, err := t.q.LockDossier(ctx, client)
	if err != nil {
		return nil, nil, err
	}
	var d person.Dossier
	if err := json.Unmarshal(b, &d); err != nil {
		return nil, nil, err
	}
	next, clashes, faults := d.Apply(changes, today)
	if len(clashes) > 0 || len(faults) > 0 {
		return clashes, faults, nil
	}
	if b, err = json.Marshal(next); err != nil {
		return nil, nil, err
	}
	if err := t.q.SaveDossier(ctx, db.SaveDossierParams{ClientID: client, Dossier: b}); err != nil {
		return nil, nil, err
	}
	for _, c := range changes {
		if err := t.q.AddDossierChange(ctx, db.AddDossierChangeParams{ClientID: client, Field: c.Field, Was: c.Was, Value: c.Value,
			ChangedBy: by, ChangedAt: at}); err != nil {
			return nil, nil, err
		}
	}
	return nil, nil, nil
}

// LastChange says who changed a field last; the zero value when nobody did.
func (t *Tx) LastChange(ctx context.Context, client uuid.UUID, field string) (ChangedBy, error) {
	r, err := t.q.LastDossierChange(ctx, db.LastDossierChangeParams{ClientID: client, Field: field})
	if classify(err) == ErrNotFound {
		return ChangedBy{}, nil
	}
	return ChangedBy{r.Name, r.ChangedAt}, err
}
