package store

import (
	"context"
	"encoding/json"

	"github.com/google/uuid"

	"musculus/internal/core/day"
	"musculus/internal/store/db"
)

// Template is a week kept for other clients.
type Template struct {
	ID     uuid.UUID
	Name   string
	Monday day.Day         // of the week it was made of
	Plan   json.RawMessage // as package formats writes it
}

// AddTemplate keeps a template; sending it twice keeps it once, sending another
// under its id is ErrTaken.
func (t *Tx) AddTemplate(ctx context.Context, x Template, by uuid.UUID) error {
	n, err := t.q.AddTemplate(ctx, db.AddTemplateParams{TemplateID: x.ID, Name: x.Name, Monday: x.Monday, Plan: x.Plan, MadeBy: by})
	return once(n, err, func() (bool, error) {
		return t.q.SameTemplate(ctx, db.SameTemplateParams{TemplateID: x.ID, Name: x.Name, Monday: x.Monday, Plan: x.Plan})
	})
}

// Templates returns the studio's templates by name.
func (t *Tx) Templates(ctx context.Context) ([]Template, error) {
	rows, err := t.q.Templates(ctx)
	if err != nil {
		return nil, err
	}
	out := make([]Template, len(rows))
	for i, r := range rows {
		out[i] = Template{r.TemplateID, r.Name, r.Monday, r.Plan}
	}
	return out, nil
}

// Template returns one, ErrNotFound if there is none.
func (t *Tx) Template(ctx context.Context, id uuid.UUID) (Template, error) {
	r, err := t.q.TemplateByID(ctx, id)
	return Template{r.TemplateID, r.Name, r.Monday, r.Plan}, err
}

// DropTemplate forgets a template, ErrNotFound if there is none.
func (t *Tx) DropTemplate(ctx context.Context, id uuid.UUID) error {
	n, err := t.q.DropTemplate(ctx, id)
	if err == nil && n == 0 {
		err = ErrNotFound
	}
	return err
}
