package trend

import (
	"bytes"
	"context"
	"encoding/csv"
	"fmt"
	"maps"
	"net/http"
	"slices"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"musculus/internal/core/decide"
	"musculus/internal/core/person"
	"musculus/internal/core/series"
	"musculus/internal/figure"
	"musculus/internal/formats"
	"musculus/internal/httpapi/op"
	"musculus/internal/store"
	"musculus/internal/view"
)

// TrendView is the thread's last knot.
type TrendView struct {
	Right figure.Slice `json:"right"` // the slice's outlines
	view.Trend
}

type trendInput struct {
	Client uuid.UUID `path:"client"`
}

type trendOutput struct{ Body TrendView }

func (s *place) registerTrend(api huma.API) {
	huma.Register(api, op.Operation("trend", op.Everybody, http.MethodGet, "/clients/{client}/trend", "What the log says"), s.trend)
	huma.Register(
		api,
		op.Operation("export-trend", op.Everybody, http.MethodGet, "/clients/{client}/trend.csv", "Every course and week as CSV"),
		s.export,
	)
}

// read is a reading with the client it is told of.
func (s *place) read(ctx context.Context, client uuid.UUID) (*decide.Reading, *view.Eyes, error) {
	r, err := s.reading(ctx, client)
	if err != nil {
		return nil, nil, err
	}
	var eyes *view.Eyes
	err = s.InStudio(ctx, func(tx *store.Tx, _ store.Account) error {
		c, err := tx.Client(ctx, client)
		eyes = &view.Eyes{Room: c.Room(), Dossier: &c.Dossier, Zone: c.Zone, Today: s.DayOf(&c)}
		return err
	})
	return &r, eyes, err
}

func (s *place) trend(ctx context.Context, in *trendInput) (*trendOutput, error) {
	r, eyes, err := s.read(ctx, in.Client)
	if err != nil {
		return nil, err
	}
	return &trendOutput{TrendView{figure.MakeSlice(false), view.TrendOf(eyes, op.Movements(ctx), r)}}, nil
}

// export writes every session of every course, and every week, as CSV.
func (s *place) export(ctx context.Context, in *trendInput) (*huma.StreamResponse, error) {
	r, eyes, err := s.read(ctx, in.Client)
	if err != nil {
		return nil, err
	}
	var measured []store.Measuring
	var joints []person.JointReport
	err = s.InClient(ctx, in.Client, func(tx *store.Tx, _ store.Account, c *store.Client) error {
		if c.Dossier.HealthConsent != nil {
			joints = c.Joints
		}
		measured, err = s.Measurings(ctx, tx, c)
		return err
	})
	if err != nil {
		return nil, err
	}
	t := view.TrendOf(eyes, op.Movements(ctx), r)
	var b bytes.Buffer
	w := csv.NewWriter(&b)
	line := func(cells ...string) {
		for i := range cells {
			cells[i] = formats.Safe(cells[i])
		}
		_ = w.Write(cells) // a buffer takes all
	}
	line("what", "name", "day", "value", "unit", "load", "reps", "not compared")
	for i := range t.Courses {
		c := &t.Courses[i]
		for _, p := range c.Points {
			value := ""
			if p.Kg > 0 {
				value = fmt.Sprintf("%.2f", p.Kg)
			}
			line("series", c.Name, p.On.String(), value, "kg once", p.Load, p.Reps, p.Hollow)
		}
	}
	for i := range r.Weeks {
		for h := range t.Weeks[i].Slice.Heads {
			name := t.Weeks[i].Slice.Heads[h].Name
			day := r.Weeks[i].Monday.String()
			line("planned", name, day, fmt.Sprintf("%.2f", r.Weeks[i].Planned[h]), "effective sets", "", "", "")
			line("done", name, day, fmt.Sprintf("%.2f", r.Weeks[i].Done[h]), "effective sets", "", "", "")
		}
	}
	for _, m := range measured {
		for _, site := range slices.Sorted(maps.Keys(m.Girths)) {
			line("girth", string(site), m.On.String(), fmt.Sprintf("%.2f", series.Median(m.Girths[site])), "cm", "", "", m.Note)
		}
		if m.MassKg != nil {
			line("mass", "body", m.On.String(), fmt.Sprintf("%.1f", *m.MassKg), "kg", "", "", m.Note)
		}
	}
	for i := range joints {
		j := &joints[i]
		line("joint", j.Joint.Words()+", "+string(j.Side), j.On.String(), fmt.Sprint(j.Score), "of 10", "", "", j.Provokes)
	}
	for i := range r.Decisions {
		d := &r.Decisions[i]
		line("decision", d.Name, d.On.String(), d.Says, "", "", "", d.Outcome)
	}
	w.Flush()
	return &huma.StreamResponse{Body: func(ctx huma.Context) {
		ctx.SetHeader("Content-Type", "text/csv; charset=utf-8")
		ctx.SetHeader("Content-Disposition", `attachment; filename="trend.csv"`)
		_, _ = ctx.BodyWriter().Write(b.Bytes())
	}}, nil
}
