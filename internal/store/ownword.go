package store

import (
	"context"
	"encoding/json"

	"github.com/google/uuid"

	"musculus/internal/core/movement"
	"musculus/internal/core/words"
	"musculus/internal/store/db"
)

// OwnWords returns the studio's own words.
func (t *Tx) OwnWords(ctx context.Context) ([]words.Own, error) {
	rows, err := t.q.OwnWords(ctx)
	if err != nil {
		return nil, err
	}
	out := make([]words.Own, len(rows))
	for i, r := range rows {
		out[i] = words.Own{Word: r.Word, Movement: r.Movement, Implement: movement.ImplementID(r.Implement)}
		if err := json.Unmarshal(r.Settings, &out[i].Settings); err != nil {
			return nil, err
		}
	}
	return out, nil
}

// PutOwnWord keeps what a word means; what it meant before is gone.
func (t *Tx) PutOwnWord(ctx context.Context, w words.Own, by uuid.UUID) error {
	settings, err := json.Marshal(w.Settings)
	if err != nil {
		return err
	}
	return t.q.PutOwnWord(
		ctx,
		db.PutOwnWordParams{Word: w.Word, Movement: w.Movement, Implement: string(w.Implement), Settings: settings, MadeBy: by},
	)
}

// DropOwnWord forgets one, ErrNotFound if there is none.
func (t *Tx) DropOwnWord(ctx context.Context, word string) error {
	n, err := t.q.DropOwnWord(ctx, word)
	if err == nil && n == 0 {
		err = ErrNotFound
	}
	return err
}
