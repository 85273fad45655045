package store

import (
	"context"
	"encoding/json"
	"errors"
	"reflect"
	"time"

	"github.com/google/uuid"
	"github.com/jackc/pgx/v5"

	"musculus/internal/core/day"
	"musculus/internal/core/measure"
	"musculus/internal/core/movement"
	"musculus/internal/core/priority"
	"musculus/internal/store/db"
)

// Measuring is a measuring session with its id, its version and who made that.
type Measuring struct {
	ID uuid.UUID `json:"id"`
	measure.Session
	Version int       `json:"version"`
	By      string    `json:"by"`
	At      time.Time `json:"at"`
}

// MeasuringVersion is one writing of a measuring session.
type MeasuringVersion struct {
	Measuring
	Withdrawn bool `json:"withdrawn"`
}

// StaleMeasuring says who wrote a measuring session in between; nothing was
// written.
type StaleMeasuring struct {
	By        string
	Withdrawn bool
}

func (s *StaleMeasuring) Error() string {
	if s.Withdrawn {
		return "withdrawn by " + s.By + " in between"
	}
	return "corrected by " + s.By + " in between"
}

// PutMeasuring keeps a session (version 0: a new one), or what was corrected in the
// version that was read; every version is kept with its author. Sending it twice
// keeps it once. *StaleMeasuring: somebody wrote or withdrew it in between;
// ErrTaken: the id is another client's, or was sent with something else.
func (t *Tx) PutMeasuring(ctx context.Context, client uuid.UUID, m Measuring, by uuid.UUID, at time.Time) error {
	b, err := json.Marshal(m.Session)
	if err != nil {
		return err
	}
	if m.Version == 0 {
		n, err := t.q.AddMeasuring(
			ctx,
			db.AddMeasuringParams{MeasuringID: m.ID, ClientID: client, MeasuredOn: m.On, Content: b, MadeBy: by, MadeAt: at},
		)
		if err == nil && n == 1 {
			return t.q.AddMeasuringVersion(ctx, m.ID)
		}
		return once(n, err, func() (bool, error) { return t.sameMeasuring(ctx, client, m, 1, false) })
	}
	return t.saveMeasuring(ctx, client, m, b, false, by, at)
}

// WithdrawMeasuring takes a session away as it was read; it stays among the
// versions. Errors are those of PutMeasuring, ErrNotFound if there is none.
func (t *Tx) WithdrawMeasuring(ctx context.Context, client, id uuid.UUID, version int, by uuid.UUID, at time.Time) error {
	r, err := t.q.MeasuringByID(ctx, db.MeasuringByIDParams{MeasuringID: id, ClientID: client})
	if err != nil {
		return err
	}
	m := Measuring{ID: id, Version: version}
	if err := json.Unmarshal(r.Content, &m.Session); err != nil {
		return err
	}
	return t.saveMeasuring(ctx, client, m, r.Content, true, by, at)
}

func (t *Tx) saveMeasuring(
	ctx context.Context,
	client uuid.UUID,
	m Measuring,
	content json.RawMessage,
	withdrawn bool,
	by uuid.UUID,
	at time.Time,
) error {
	n, err := t.q.SaveMeasuring(
		ctx,
		db.SaveMeasuringParams{
			MeasuringID: m.ID,
			ClientID:    client,
			Version:     m.Version,
			MeasuredOn:  m.On,
			Content:     content,
			Withdrawn:   withdrawn,
			MadeBy:      by,
			MadeAt:      at,
		},
	)
	if err != nil {
		return err
	}
	if n == 1 {
		return t.q.AddMeasuringVersion(ctx, m.ID)
	}
	if same, err := t.sameMeasuring(ctx, client, m, m.Version+1, withdrawn); err != nil || same {
		return err
	}
	r, err := t.q.MeasuringByID(ctx, db.MeasuringByIDParams{MeasuringID: m.ID, ClientID: client})
	if err != nil {
		return err
	}
	return &StaleMeasuring{r.MadeByName, r.Withdrawn}
}

// sameMeasuring says whether a session stands at a version with this content.
func (t *Tx) sameMeasuring(ctx context.Context, client uuid.UUID, m Measuring, version int, withdrawn bool) (bool, error) {
	r, err := t.q.MeasuringByID(ctx, db.MeasuringByIDParams{MeasuringID: m.ID, ClientID: client})
	if classify(err) == ErrNotFound {
		return false, nil
	}
	if err != nil || r.Version != version || r.Withdrawn != withdrawn {
		return false, err
	}
	var was measure.Session
	if err := json.Unmarshal(r.Content, &was); err != nil {
		return false, err
	}
	return reflect.DeepEqual(was, m.Session), nil
}

// Measurings returns a client's sessions, oldest first.
func (t *Tx) Measurings(ctx context.Context, client uuid.UUID) ([]Measuring, error) {
	rows, err := t.q.Measurings(ctx, client)
	if err != nil {
		return nil, err
	}
	out := make([]Measuring, len(rows))
	for i, r := range rows {
		out[i] = Measuring{ID: r.MeasuringID, Version: r.Version, By: r.MadeByName, At: r.MadeAt}
		if err := json.Unmarshal(r.Content, &out[i].Session); err != nil {
			return nil, err
		}
	}
	return out, nil
}

// MeasuringHistory returns every version of a client's sessions, the latest session
// first, of each the latest version first.
func (t *Tx) MeasuringHistory(ctx context.Context, client uuid.UUID) ([]MeasuringVersion, error) {
	rows, err := t.q.MeasuringVersions(ctx, client)
	if err != nil {
		return nil, err
	}
	out := make([]MeasuringVersion, len(rows))
	for i, r := range rows {
		out[i] = MeasuringVersion{Measuring{ID: r.MeasuringID, Version: r.Version, By: r.MadeByName, At: r.MadeAt}, r.Withdrawn}
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
	Digest string    `json:"-"` // of what was uploaded; "" for one kept before digests were
}

// AddPhoto keeps a photo's line; sending it twice keeps it once, another under its
// id is ErrTaken.
func (t *Tx) AddPhoto(ctx context.Context, client uuid.UUID, p Photo, by uuid.UUID) error {
	n, err := t.q.AddPhoto(
		ctx,
		db.AddPhotoParams{
			PhotoID:  p.ID,
			ClientID: client,
			TakenOn:  p.On,
			Pose:     p.Pose,
			Width:    p.Width,
			Height:   p.Height,
			MadeBy:   by,
			Digest:   p.Digest,
		},
	)
	return once(n, err, func() (bool, error) {
		was, err := t.Photo(ctx, client, p.ID)
		if classify(err) == ErrNotFound {
			return false, nil
		}
		return was == p, err
	})
}

// Photos returns a client's photos, the latest first.
func (t *Tx) Photos(ctx context.Context, client uuid.UUID) ([]Photo, error) {
	rows, err := t.q.Photos(ctx, client)
	if err != nil {
		return nil, err
	}
	out := make([]Photo, len(rows))
	for i, r := range rows {
		out[i] = Photo{r.PhotoID, r.TakenOn, r.Pose, r.Width, r.Height, ""}
	}
	return out, nil
}

// Photo returns one, ErrNotFound if there is none.
func (t *Tx) Photo(ctx context.Context, client, id uuid.UUID) (Photo, error) {
	r, err := t.q.PhotoByID(ctx, db.PhotoByIDParams{ClientID: client, PhotoID: id})
	return Photo{r.PhotoID, r.TakenOn, r.Pose, r.Width, r.Height, r.Digest}, err
}

// DropPhoto forgets a photo's line, ErrNotFound if there is none.
func (t *Tx) DropPhoto(ctx context.Context, client, id uuid.UUID) error {
	n, err := t.q.DropPhoto(ctx, db.DropPhotoParams{ClientID: client, PhotoID: id})
	if err == nil && n == 0 {
		err = ErrNotFound
	}
	return err
}

// AddRating keeps a pose rating; sending it twice keeps it once, another under its
// id is ErrTaken.
func (t *Tx) AddRating(ctx context.Context, id, client uuid.UUID, r priority.Rating, by uuid.UUID) error {
	b, err := json.Marshal(r)
	if err != nil {
		return err
	}
	n, err := t.q.AddRating(ctx, db.AddRatingParams{RatingID: id, ClientID: client, RatedOn: r.On, Content: b, RatedBy: by})
	return once(n, err, func() (bool, error) {
		return t.q.SameRating(ctx, db.SameRatingParams{RatingID: id, ClientID: client, Content: b})
	})
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

// Emphases returns what is set for each client of the studio.
func (t *Tx) Emphases(ctx context.Context) (map[uuid.UUID]*priority.Emphasis, error) {
	rows, err := t.q.Emphases(ctx)
	if err != nil {
		return nil, err
	}
	out := map[uuid.UUID]*priority.Emphasis{}
	for _, r := range rows {
		var e priority.Emphasis
		if err := json.Unmarshal(r.Content, &e); err != nil {
			return nil, err
		}
		out[r.ClientID] = &e
	}
	return out, nil
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

// AddTryOut keeps a try-out; sending it twice keeps it once, another under its id
// is ErrTaken.
func (t *Tx) AddTryOut(ctx context.Context, client uuid.UUID, o TryOut, by uuid.UUID) error {
	b, err := json.Marshal(keptSetUp{o.Movement, o.Settings})
	if err != nil {
		return err
	}
	n, err := t.q.AddTryOut(
		ctx,
		db.AddTryOutParams{
			TryID:    o.ID,
			ClientID: client,
			TriedOn:  o.On,
			SetUp:    b,
			Comfort:  o.Comfort,
			Felt:     o.Felt,
			Outcome:  o.Outcome,
			Note:     o.Note,
			MadeBy:   by,
		},
	)
	return once(n, err, func() (bool, error) {
		return t.q.SameTryOut(
			ctx,
			db.SameTryOutParams{
				TryID:    o.ID,
				ClientID: client,
				SetUp:    b,
				Comfort:  o.Comfort,
				Felt:     o.Felt,
				Outcome:  o.Outcome,
				Note:     o.Note,
			},
		)
	})
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
		out[i] = TryOut{r.TryID, r.TriedOn, kept.Movement, kept.Settings, r.Comfort, r.Felt, r.Outcome, r.Note}
	}
	return out, nil
}
