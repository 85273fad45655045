package store

import (
	"context"
	"encoding/json"
	"time"

	"github.com/google/uuid"

	"musculus/internal/core/day"
	"musculus/internal/core/person"
	"musculus/internal/store/db"
)

// dateOf turns the core's day into the database's date.
func dateOf(d day.Day) time.Time {
	y, m, dom := d.Date()
	return time.Date(y, time.Month(m), dom, 0, 0, 0, 0, time.UTC)
}

// DayOf turns a date into the core's day.
func DayOf(t time.Time) day.Day {
	y, m, d := t.Date()
	return day.Of(y, int(m), d)
}

// AddScreening keeps a round of the questionnaire; sending it twice keeps it once.
func (t *Tx) AddScreening(ctx context.Context, id, client uuid.UUID, s person.Screening, by uuid.UUID) error {
	b, err := json.Marshal(s.Answers)
	if err != nil {
		return err
	}
	return t.q.AddScreening(ctx, db.AddScreeningParams{RoundID: id, ClientID: client, AskedOn: dateOf(s.On), Answers: b, AskedBy: by})
}

// ScreeningRound is a round with who asked.
type ScreeningRound struct {
	person.Screening
	By string `json:"by"`
}

// Screenings returns a client's rounds, the latest first.
func (t *Tx) Screenings(ctx context.Context, client uuid.UUID) ([]ScreeningRound, error) {
	rows, err := t.q.Screenings(ctx, client)
	if err != nil {
		return nil, err
	}
	out := make([]ScreeningRound, len(rows))
	for i, r := range rows {
		out[i] = ScreeningRound{person.Screening{On: DayOf(r.AskedOn)}, r.AskedBy}
		if err := json.Unmarshal(r.Answers, &out[i].Answers); err != nil {
			return nil, err
		}
	}
	return out, nil
}

// AddJointReport keeps a joint's score; sending it twice keeps it once.
func (t *Tx) AddJointReport(ctx context.Context, id, client uuid.UUID, r person.JointReport, by uuid.UUID) error {
	b, err := json.Marshal(r)
	if err != nil {
		return err
	}
	return t.q.AddJointReport(ctx, db.AddJointReportParams{ReportID: id, ClientID: client, ReportedOn: dateOf(r.On), Content: b, ReportedBy: by})
}

// Override is a verdict that was overridden, or no longer is.
type Override struct {
	Movement string    `json:"movement"`
	Allowed  bool      `json:"allowed"`
	Reason   string    `json:"reason"`
	By       string    `json:"by"`
	At       time.Time `json:"at"`
}

// AddOverride keeps an override; sending it twice keeps it once.
func (t *Tx) AddOverride(ctx context.Context, id, client uuid.UUID, o Override, by uuid.UUID) error {
	return t.q.AddOverride(ctx, db.AddOverrideParams{OverrideID: id, ClientID: client, Movement: o.Movement, Allowed: o.Allowed, Reason: o.Reason, MadeBy: by})
}

// Overrides returns every override of a client, the latest first.
func (t *Tx) Overrides(ctx context.Context, client uuid.UUID) ([]Override, error) {
	rows, err := t.q.Overrides(ctx, client)
	if err != nil {
		return nil, err
	}
	out := make([]Override, len(rows))
	for i, r := range rows {
		out[i] = Override{r.Movement, r.Allowed, r.Reason, r.MadeBy, r.MadeAt}
	}
	return out, nil
}
