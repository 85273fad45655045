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

// AddScreening keeps a round of the questionnaire, entered at a moment by an account, uuid.Nil for
// the client herself, by a link; sending it
// twice keeps it once, sending another under its id is ErrTaken.
func (t *Tx) AddScreening(ctx context.Context, id, client uuid.UUID, s person.Screening, by uuid.UUID, at time.Time) error {
	b, err := json.Marshal(s.Answers)
	if err != nil {
		return err
	}
	n, err := t.q.AddScreening(
		ctx,
		db.AddScreeningParams{RoundID: id, ClientID: client, AskedOn: s.On, Answers: b, AskedBy: orNobody(by), AskedAt: at},
	)
	return once(n, err, func() (bool, error) {
		return t.q.SameScreening(ctx, db.SameScreeningParams{RoundID: id, ClientID: client, AskedOn: s.On, Answers: b})
	})
}

// ScreeningRound is a round with who asked.
type ScreeningRound struct {
	person.Screening
	ID uuid.UUID `json:"id"`
	By string    `json:"by"`
	At time.Time `json:"asked_at"`
}

// Screenings returns a client's rounds, the latest first.
func (t *Tx) Screenings(ctx context.Context, client uuid.UUID) ([]ScreeningRound, error) {
	rows, err := t.q.Screenings(ctx, client)
	if err != nil {
		return nil, err
	}
	out := make([]ScreeningRound, len(rows))
	for i, r := range rows {
		out[i] = ScreeningRound{person.Screening{On: r.AskedOn}, r.RoundID, r.AskedBy, r.AskedAt}
		if err := json.Unmarshal(r.Answers, &out[i].Answers); err != nil {
			return nil, err
		}
	}
	return out, nil
}

// AddJointReport keeps a joint's score, entered at a moment; sending it twice keeps
// it once, sending another under its id is ErrTaken.
func (t *Tx) AddJointReport(ctx context.Context, id, client uuid.UUID, r person.JointReport, by uuid.UUID, at time.Time) error {
	b, err := json.Marshal(r)
	if err != nil {
		return err
	}
	n, err := t.q.AddJointReport(
		ctx,
		db.AddJointReportParams{ReportID: id, ClientID: client, ReportedOn: r.On, Content: b, ReportedBy: orNobody(by), ReportedAt: at},
	)
	return once(n, err, func() (bool, error) {
		return t.q.SameJointReport(ctx, db.SameJointReportParams{ReportID: id, ClientID: client, Content: b})
	})
}

// HealthRecords returns a client's rounds and joint reports with the moments they
// were entered, in no order.
func (t *Tx) HealthRecords(ctx context.Context, client uuid.UUID) ([]person.Recorded, error) {
	rounds, err := t.Screenings(ctx, client)
	if err != nil {
		return nil, err
	}
	var out []person.Recorded
	for i := range rounds {
		out = append(out, person.Recorded{At: rounds[i].At, Day: day.At(rounds[i].At.In(t.zone)), Round: &rounds[i].Screening})
	}
	reports, err := t.q.JointReports(ctx, client)
	for _, r := range reports {
		var report person.JointReport
		if err := json.Unmarshal(r.Content, &report); err != nil {
			return nil, err
		}
		out = append(out, person.Recorded{At: r.ReportedAt, Day: day.At(r.ReportedAt.In(t.zone)), Report: &report})
	}
	return out, err
}

// Override is a verdict that was overridden, or no longer is.
type Override struct {
	Movement string    `json:"movement"`
	Allowed  bool      `json:"allowed"`
	Reason   string    `json:"reason"`
	By       string    `json:"by"`
	At       time.Time `json:"at"`
}

// AddOverride keeps an override; sending it twice keeps it once, sending another
// under its id is ErrTaken.
func (t *Tx) AddOverride(ctx context.Context, id, client uuid.UUID, o Override, by uuid.UUID) error {
	n, err := t.q.AddOverride(
		ctx,
		db.AddOverrideParams{OverrideID: id, ClientID: client, Movement: o.Movement, Allowed: o.Allowed, Reason: o.Reason, MadeBy: by},
	)
	return once(n, err, func() (bool, error) {
		return t.q.SameOverride(
			ctx,
			db.SameOverrideParams{OverrideID: id, ClientID: client, Movement: o.Movement, Allowed: o.Allowed, Reason: o.Reason},
		)
	})
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
