package store

import (
	"context"
	"encoding/json"
	"time"

	"github.com/google/uuid"

	"musculus/internal/core/checkin"
	"musculus/internal/store/db"
)

// CheckIn is an answer as it is kept, with what a coach said to it.
type CheckIn struct {
	checkin.Told
	At    time.Time
	Seen  bool
	By    string // who saw it
	Reply string
}

// AddCheckIn keeps an answer; sending it twice keeps it once, sending another under its id is
// ErrTaken.
func (t *Tx) AddCheckIn(ctx context.Context, client uuid.UUID, told *checkin.Told, link uuid.UUID, at time.Time) error {
	b, err := json.Marshal(told)
	if err != nil {
		return err
	}
	n, err := t.q.AddCheckIn(ctx, db.AddCheckInParams{CheckInID: told.ID, ClientID: client, SessionID: told.Session, Content: b,
		LinkID: link, ToldAt: at})
	return once(n, err, func() (bool, error) {
		return t.q.SameCheckIn(ctx, db.SameCheckInParams{CheckInID: told.ID, ClientID: client, SessionID: told.Session, Content: b})
	})
}

// CheckIns returns a client's last answers, the latest first.
func (t *Tx) CheckIns(ctx context.Context, client uuid.UUID) ([]CheckIn, error) {
	rows, err := t.q.CheckIns(ctx, client)
	if err != nil {
		return nil, err
	}
	out := make([]CheckIn, len(rows))
	for i, r := range rows {
		out[i] = CheckIn{At: r.ToldAt.In(t.zone), Seen: r.SeenAt != nil, By: r.SeenByName, Reply: r.Reply}
		if err := json.Unmarshal(r.Content, &out[i].Told); err != nil {
			return nil, err
		}
	}
	return out, nil
}

// SeeCheckIn keeps that an answer was seen, and what was said to it ("" for nothing more);
// ErrNotFound where there is none of the client's.
func (t *Tx) SeeCheckIn(ctx context.Context, client, id, by uuid.UUID, reply string, at time.Time) error {
	n, err := t.q.SeeCheckIn(ctx, db.SeeCheckInParams{CheckInID: id, ClientID: client, SeenBy: &by, At: &at, Reply: reply})
	if err == nil && n == 0 {
		return ErrNotFound
	}
	return err
}
