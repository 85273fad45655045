package store

import (
	"context"
	"encoding/json"
	"errors"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"

	"musculus/internal/core/day"
	"musculus/internal/core/measure"
	"musculus/internal/core/movement"
	"musculus/internal/core/priority"
	"musculus/internal/store/db"
)

// Measuring is a measuring session with its id.
type Measuring struct {
	ID uuid.UUID `json:"id"`
	measure.Session
}

// PutMeasuring keeps a session, or what was corrected in it; sending it twice
// keeps it once. ErrNotFound: the id is another client's.
func (t *Tx) PutMeasuring(ctx context.Context, client uuid.UUID, m Measuring, by uuid.UUID) error {
	b, err := json.Marshal(m.Session)
	if err != nil {
		return err
	}
	n, err := t.q.PutMeasuring(ctx, db.PutMeasuringParams{MeasuringID: m.ID, ClientID: client, MeasuredOn: dateOf(m.On), Content: b, MadeBy: by})
	if err == nil && n == 0 {
		err = ErrNotFound
	}
	return err
}

// WithdrawMeasuring takes a session away, ErrNotFound if there is none.
func (t *Tx) WithdrawMeasuring(ctx context.Context, client, id uuid.UUID) error {
	n, err := t.q.WithdrawMeasuring(ctx, db.WithdrawMeasuringParams{MeasuringID: id, ClientID: client})
	if err == nil && n == 0 {
		err = ErrNotFound
	}
	return err
}

// Measurings returns a client's sessions, oldest first.
func (t *Tx) Measurings(ctx context.Context, client uuid.UUID) ([]Measuring, error) {
	rows, err := t.q.Measurings(ctx, client)
	if err != nil {
		return nil, err
	}
	out := make([]Measuring, len(rows))
	for i, r := range rows {
		out[i].ID = r.MeasuringID
		if err := json.Unmarshal(r.Content, &out[i].Session); err != nil {
			return nil, err
		}
	}
	return out, nil
}

// Photo is a picture of a client; the picture itself is a file.
type Photo struct {
	ID     uuid.UUID `json:"id"`
	On     day.Day   `json:"on"`
	Pose   string    `json:"pose"`
	Width  int       `json:"width"`
	Height int       `json:"height"`
}

// AddPhoto keeps a photo's line; sending it twice keeps it once.
func (t *Tx) AddPhoto(ctx context.Context, client uuid.UUID, p Photo, by uuid.UUID) error {
	return t.q.AddPhoto(ctx, db.AddPhotoParams{PhotoID: p.ID, ClientID: client, TakenOn: dateOf(p.On), Pose: p.Pose, Width: p.Width, Height: p.Height, MadeBy: by})
}

// Photos returns a client's photos, the latest first.
func (t *Tx) Photos(ctx context.Context, client uuid.UUID) ([]Photo, error) {
	rows, err := t.q.Photos(ctx, client)
	if err != nil {
		return nil, err
	}
	out := make([]Photo, len(rows))
	for i, r := range rows {
		out[i] = Photo{r.PhotoID, DayOf(r.TakenOn), r.Pose, r.Width, r.Height}
	}
	return out, nil
}

// Photo returns one, ErrNotFound if there is none.
func (t *Tx) Photo(ctx context.Context, client, id uuid.UUID) (Photo, error) {
	r, err := t.q.PhotoByID(ctx, db.PhotoByIDParams{ClientID: client, PhotoID: id})
	return Photo{r.PhotoID, DayOf(r.TakenOn), r.Pose, r.Width, r.Height}, err
}

// DropPhoto forgets a photo's line, ErrNotFound if there is none.
func (t *Tx) DropPhoto(ctx context.Context, client, id uuid.UUID) error {
	n, err := t.q.DropPhoto(ctx, db.DropPhotoParams{ClientID: client, PhotoID: id})
	if err == nil && n == 0 {
		err = ErrNotFound
	}
	return err
}

// AddRating keeps a pose rating; sending it twice keeps it once.
func (t *Tx) AddRating(ctx context.Context, id, client uuid.UUID, r priority.Rating, by uuid.UUID) error {
	b, err := json.Marshal(r)
	if err != nil {
		return err
	}
	return t.q.AddRating(ctx, db.AddRatingParams{RatingID: id, ClientID: client, RatedOn: dateOf(r.On), Content: b, RatedBy: by})
}

// Ratings returns a client's pose ratings, the latest first.
func (t *Tx) Ratings(ctx context.Context, client uuid.UUID) ([]priority.Rating, error) {
	rows, err := t.q.Ratings(ctx, client)
	if err != nil {
		return nil, err
	}
	out := make([]priority.Rating, len(rows))
	for i, b := range rows {
		if err := json.Unmarshal(b, &out[i]); err != nil {
			return nil, err
		}
	}
	return out, nil
}

// Emphasis returns what the coach set, nil and version 0 when nothing is set yet.
func (t *Tx) Emphasis(ctx context.Context, client uuid.UUID) (*priority.Emphasis, int, error) {
	r, err := t.q.EmphasisOf(ctx, client)
	if errors.Is(err, pgx.ErrNoRows) {
		return nil, 0, nil
	}
	if err != nil {
		return nil, 0, err
	}
	var e priority.Emphasis
	return &e, r.Version, json.Unmarshal(r.Content, &e)
}

// SetEmphasis writes over the version that was read (0: none yet); false when
// somebody set another in between.
func (t *Tx) SetEmphasis(ctx context.Context, client uuid.UUID, e priority.Emphasis, version int, by uuid.UUID) (bool, error) {
	b, err := json.Marshal(e)
	if err != nil {
		return false, err
	}
	if version == 0 {
		n, err := t.q.AddEmphasis(ctx, db.AddEmphasisParams{ClientID: client, Content: b, SetBy: by})
		return n == 1, err
	}
	n, err := t.q.SaveEmphasis(ctx, db.SaveEmphasisParams{ClientID: client, Version: version, Content: b, SetBy: by})
	return n == 1, err
}

// PutPresentAnswer keeps which movement a line of the present list is.
func (t *Tx) PutPresentAnswer(ctx context.Context, client uuid.UUID, words, movement string) error {
	return t.q.PutPresentAnswer(ctx, db.PutPresentAnswerParams{ClientID: client, Words: words, Movement: movement})
}

// PresentAnswers returns the answers by a line's words.
func (t *Tx) PresentAnswers(ctx context.Context, client uuid.UUID) (map[string]string, error) {
	rows, err := t.q.PresentAnswers(ctx, client)
	if err != nil {
		return nil, err
	}
	out := map[string]string{}
	for _, r := range rows {
		out[r.Words] = r.Movement
	}
	return out, nil
}

// TryOut is a set-up that was tried, and what the client said.
type TryOut struct {
	ID       uuid.UUID                       `json:"id"`
	On       day.Day                         `json:"on"`
	Movement string                          `json:"movement"`
	Settings map[movement.Key]movement.Value `json:"settings"`
	Comfort  int                             `json:"comfort"` // 0–10
	Felt     string                          `json:"felt"`    // where
	Outcome  string                          `json:"outcome"` // kept, dropped, open
	Note     string                          `json:"note"`
}

// AddTryOut keeps a try-out; sending it twice keeps it once.
func (t *Tx) AddTryOut(ctx context.Context, client uuid.UUID, o TryOut, by uuid.UUID) error {
	b, err := json.Marshal(keptSetUp{o.Movement, o.Settings})
	if err != nil {
		return err
	}
	return t.q.AddTryOut(ctx, db.AddTryOutParams{TryID: o.ID, ClientID: client, TriedOn: dateOf(o.On), SetUp: b, Comfort: o.Comfort, Felt: o.Felt, Outcome: o.Outcome, Note: o.Note, MadeBy: by})
}

// TryOuts returns a client's try-outs, the latest first.
func (t *Tx) TryOuts(ctx context.Context, client uuid.UUID) ([]TryOut, error) {
	rows, err := t.q.TryOuts(ctx, client)
	if err != nil {
		return nil, err
	}
	out := make([]TryOut, len(rows))
	for i, r := range rows {
		var kept keptSetUp
		if err := json.Unmarshal(r.SetUp, &kept); err != nil {
			return nil, err
		}
		out[i] = TryOut{r.TryID, DayOf(r.TriedOn), kept.Movement, kept.Settings, r.Comfort, r.Felt, r.Outcome, r.Note}
	}
	return out, nil
}
