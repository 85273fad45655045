package store

import (
	"context"

	"github.com/google/uuid"

	"musculus/internal/core/stance"
	"musculus/internal/store/db"
)

// OwnStance is a studio's copy of a shipped stance with rules switched.
type OwnStance struct {
	stance.Stance
	Copied  string // id of the shipped one
	Version int
}

// AddStance keeps a copy; sending it twice keeps it once, sending another under its
// id is ErrTaken.
func (t *Tx) AddStance(ctx context.Context, id uuid.UUID, name string, copied *stance.Stance, by uuid.UUID) error {
	rules := copied.Rules
	if rules == nil {
		rules = []string{}
	}
	n, err := t.q.AddStance(ctx, db.AddStanceParams{StanceID: id, Name: name, Copied: copied.ID, Rules: rules, MadeBy: by})
	return once(n, err, func() (bool, error) {
		return t.q.SameStance(ctx, db.SameStanceParams{StanceID: id, Name: name, Copied: copied.ID})
	})
}

// SwitchRules writes a stance's rules over the version they were read as; false
// when somebody switched one in between, or there is no such stance.
func (t *Tx) SwitchRules(ctx context.Context, id uuid.UUID, version int, rules []string) (bool, error) {
	n, err := t.q.SwitchStance(ctx, db.SwitchStanceParams{StanceID: id, Version: version, Rules: rules})
	return n == 1, err
}

// OwnStances returns the studio's own stances by name.
func (t *Tx) OwnStances(ctx context.Context) ([]OwnStance, error) {
	rows, err := t.q.Stances(ctx)
	if err != nil {
		return nil, err
	}
	out := make([]OwnStance, len(rows))
	for i, r := range rows {
		out[i] = ownStance(r)
	}
	return out, nil
}

// OwnStance returns one, ErrNotFound if there is none.
func (t *Tx) OwnStance(ctx context.Context, id uuid.UUID) (OwnStance, error) {
	r, err := t.q.StanceByID(ctx, id)
	return ownStance(r), err
}

// ownStance takes base and strength from the shipped stance it was copied from,
// the default one should that be gone.
func ownStance(r db.StudioStance) OwnStance {
	from := stance.ByID(r.Copied)
	if from == nil {
		from = stance.ByID(stance.Default)
	}
	return OwnStance{
		stance.Stance{
			ID:    r.StanceID.String(),
			Name:  r.Name,
			Says:  "Copied from " + from.Name + ".",
			Base:  from.Base,
			Half:  from.Half,
			Rules: r.Rules,
		},
		r.Copied,
		r.Version,
	}
}

// resolve finds a client's stance: shipped, the studio's own, or the default
// should it be gone.
func (t *Tx) resolve(ctx context.Context, id string) (*stance.Stance, error) {
	if s := stance.ByID(id); s != nil {
		return s, nil
	}
	if own, err := uuid.Parse(id); err == nil {
		rows, err := t.OwnStances(ctx)
		if err != nil {
			return nil, err
		}
		for i := range rows {
			if rows[i].ID == own.String() {
				return &rows[i].Stance, nil
			}
		}
	}
	return stance.ByID(stance.Default), nil
}

// PutRuleNote keeps what the studio notes of a rule; an empty note takes it away.
func (t *Tx) PutRuleNote(ctx context.Context, rule, note string, by uuid.UUID) error {
	return t.q.PutRuleNote(ctx, db.PutRuleNoteParams{Rule: rule, Note: note, NotedBy: by})
}

// RuleNotes returns the studio's notes by rule.
func (t *Tx) RuleNotes(ctx context.Context) (map[string]string, error) {
	rows, err := t.q.RuleNotes(ctx)
	if err != nil {
		return nil, err
	}
	out := map[string]string{}
	for _, r := range rows {
		out[r.Rule] = r.Note
	}
	return out, nil
}
