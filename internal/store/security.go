package store

import (
	"context"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"

	"musculus/internal/core/day"
	"musculus/internal/store/db"
)

// SecurityEvent is something that concerns a studio's safety; it says nothing of health.
type SecurityEvent struct {
	Account *uuid.UUID
	Name    string // whose account it is
	What    string
	About   string
	Address string
	At      time.Time
}

// NoteSecurity keeps one.
func (t *Tx) NoteSecurity(ctx context.Context, e SecurityEvent) error {
	return t.q.NoteSecurity(
		ctx,
		db.NoteSecurityParams{AccountID: e.Account, What: e.What, About: e.About, Address: e.Address, HappenedAt: e.At},
	)
}

// SecurityEvents are the latest of the studio.
func (t *Tx) SecurityEvents(ctx context.Context, most int) ([]SecurityEvent, error) {
	rows, err := t.q.SecurityEvents(ctx, int32(most))
	out := make([]SecurityEvent, len(rows))
	for i, r := range rows {
		out[i] = SecurityEvent{r.AccountID, r.Name, r.What, r.About, r.Address, r.HappenedAt}
	}
	return out, err
}

// NoteRead notes that an account opened something of a client: a line a day.
func (t *Tx) NoteRead(ctx context.Context, client, account uuid.UUID, on day.Day, what string) error {
	return t.q.NoteRead(ctx, db.NoteReadParams{ClientID: client, AccountID: account, ReadOn: on, What: what})
}

// Read is a line of a client's read trail.
type Read struct {
	On    day.Day
	Name  string
	What  string
	Times int
}

// ReadTrail is who opened what of a client lately.
func (t *Tx) ReadTrail(ctx context.Context, client uuid.UUID) ([]Read, error) {
	rows, err := t.q.ReadTrail(ctx, client)
	out := make([]Read, len(rows))
	for i, r := range rows {
		out[i] = Read{r.ReadOn, r.Name, r.What, r.Times}
	}
	return out, err
}

// Letter is one on its way.
type Letter struct {
	ID      uuid.UUID
	To      string
	Subject string
	Says    string
	Sent    *time.Time
}

// AddLetter keeps a letter until it has left, and says whether it was not there before.
func AddLetter(ctx context.Context, tx pgx.Tx, l Letter, now time.Time) (bool, error) {
	n, err := db.New(tx).AddLetter(
		ctx,
		db.AddLetterParams{LetterID: l.ID, ToAddress: l.To, Subject: l.Subject, Says: l.Says, MadeAt: now},
	)
	return n == 1, err
}

// Letter is one that was kept.
func (s *Store) Letter(ctx context.Context, id uuid.UUID) (Letter, error) {
	l, err := db.New(s.Pool).LetterByID(ctx, id)
	return Letter{l.LetterID, l.ToAddress, l.Subject, l.Says, l.SentAt}, classify(err)
}

// LetterSent notes that it has left, and forgets what it said and to whom.
func (s *Store) LetterSent(ctx context.Context, id uuid.UUID, now time.Time) error {
	return classify(db.New(s.Pool).LetterSent(ctx, db.LetterSentParams{LetterID: id, SentAt: &now}))
}

// Raw is the transaction itself, for what keeps its own tables beside ours.
func (t *Tx) Raw() pgx.Tx { return t.tx }

// Raw is the transaction itself, for what keeps its own tables beside ours.
func (t *LoginTx) Raw() pgx.Tx { return t.tx }
