package httpapi

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"musculus/internal/core/day"
	"musculus/internal/core/measure"
	"musculus/internal/store"
)

// MeasuresView is what the tape says about a client.
type MeasuresView struct {
	Kinds    []KindView      `json:"kinds"`
	Sessions []MeasuringView `json:"sessions"` // the latest first
	Area     []AreaView      `json:"area"`     // empty without skinfolds
	Mass     []PointView     `json:"mass"`
	Photos   []PhotoView     `json:"photos"`
	How      string          `json:"how"` // how it is measured
}

// KindView is one kind of girth, left and right.
type KindView struct {
	ID        string      `json:"id"`
	Name      string      `json:"name"`
	Noise     string      `json:"noise"`     // where the typical error comes from
	Threshold float64     `json:"threshold"` // cm: what a tape can show
	Left      CourseView  `json:"left"`
	Right     CourseView  `json:"right"`
	Gap       *AnswerView `json:"gap"`
}

// CourseView is one site over time.
type CourseView struct {
	Site   string      `json:"site"`
	Points []PointView `json:"points"`
	Change *AnswerView `json:"change"` // since the first
}

// PointView is one kept reading.
type PointView struct {
	On    string  `json:"on"`
	Words string  `json:"words"`
	Value float64 `json:"value"`
}

// AnswerView is a question the tape was asked.
type AnswerView struct {
	Real  bool    `json:"real"`
	By    float64 `json:"by"`
	Least float64 `json:"least"` // from where it would be real
	Words string  `json:"words"`
}

// AreaView is the muscle-and-bone area of one arm.
type AreaView struct {
	Site   string      `json:"site"`
	Name   string      `json:"name"`
	Points []PointView `json:"points"`
	Change *AnswerView `json:"change"`
	Bone   string      `json:"bone"` // whether bone is taken off
}

// MeasuringView is one measuring session.
type MeasuringView struct {
	ID    uuid.UUID `json:"id"`
	Words string    `json:"words"`
	measure.Session
	Medians map[string]float64 `json:"medians"`
	Another []string           `json:"another"` // sites that ask for another reading, in words
}

type measuresOutput struct{ Body MeasuresView }

type measuringInput struct {
	Client    uuid.UUID `path:"client"`
	Measuring uuid.UUID `path:"measuring"`
	Body      measure.Session
}

type measuringPath struct {
	Client    uuid.UUID `path:"client"`
	Measuring uuid.UUID `path:"measuring"`
}

// howMeasured stands where girths are taken.
const howMeasured = "Halfway between the tip of the shoulder and the tip of the elbow, site marked; before training, same hour, same hand on the tape. Two readings, the round made twice; over 0.5 cm apart asks for a third."

func (s *server) registerMeasures(api huma.API) {
	huma.Register(api, operation("measures", http.MethodGet, "/clients/{client}/measures", "What the tape says"), s.measures)
	huma.Register(api, operation("put-measuring", http.MethodPut, "/clients/{client}/measures/{measuring}", "Keep a measuring session, or correct it"), s.putMeasuring)
	huma.Register(api, operation("withdraw-measuring", http.MethodDelete, "/clients/{client}/measures/{measuring}", "Take a measuring session away"), s.withdrawMeasuring)
}

func (s *server) measures(ctx context.Context, in *clientInput) (*measuresOutput, error) {
	out := &measuresOutput{}
	return out, s.inStudio(ctx, func(tx *store.Tx, _ store.Account) (err error) {
		out.Body, err = viewMeasures(ctx, tx, in.Client)
		return err
	})
}

func (s *server) putMeasuring(ctx context.Context, in *measuringInput) (*measuresOutput, error) {
	if err := fieldFaults("body.", in.Body.Check(s.day())); err != nil {
		return nil, err
	}
	out := &measuresOutput{}
	return out, s.inStudio(ctx, func(tx *store.Tx, a store.Account) (err error) {
		if _, err := tx.Client(ctx, in.Client); err != nil {
			return err
		}
		if err := tx.PutMeasuring(ctx, in.Client, store.Measuring{ID: in.Measuring, Session: in.Body}, a.ID); err != nil {
			return err
		}
		out.Body, err = viewMeasures(ctx, tx, in.Client)
		return err
	})
}

func (s *server) withdrawMeasuring(ctx context.Context, in *measuringPath) (*measuresOutput, error) {
	out := &measuresOutput{}
	return out, s.inStudio(ctx, func(tx *store.Tx, _ store.Account) (err error) {
		if err := tx.WithdrawMeasuring(ctx, in.Client, in.Measuring); err != nil {
			return err
		}
		out.Body, err = viewMeasures(ctx, tx, in.Client)
		return err
	})
}

func viewMeasures(ctx context.Context, tx *store.Tx, id uuid.UUID) (MeasuresView, error) {
	out := MeasuresView{Kinds: []KindView{}, Sessions: []MeasuringView{}, Area: []AreaView{}, Mass: []PointView{}, Photos: []PhotoView{}, How: howMeasured}
	c, err := tx.Client(ctx, id)
	if err != nil {
		return out, err
	}
	kept, err := tx.Measurings(ctx, id)
	if err != nil {
		return out, err
	}
	sessions := sessionsOf(kept)
	for i := range measure.Kinds {
		k := &measure.Kinds[i]
		noise := measure.NoiseOf(sessions, k)
		v := KindView{ID: k.ID, Name: k.Name, Noise: noise.Words(), Threshold: round4(noise.Threshold()), Left: viewCourse(sessions, k.Left), Right: viewCourse(sessions, k.Right)}
		if gap, ok := measure.Gap(sessions, k); ok {
			v.Gap = viewAnswer(gap)
		}
		out.Kinds = append(out.Kinds, v)
	}
	for i := len(kept) - 1; i >= 0; i-- {
		out.Sessions = append(out.Sessions, viewMeasuring(kept[i]))
	}
	bone := "bone included"
	if c.Dossier.Sex != "" {
		bone = "bone taken off for a " + string(c.Dossier.Sex)
	}
	for _, site := range []measure.Site{measure.RelaxedLeft, measure.RelaxedRight} {
		points, noise := measure.AreaChange(sessions, site, c.Dossier.Sex)
		if len(points) == 0 {
			continue
		}
		v := AreaView{Site: string(site), Name: measure.SiteName(site), Points: viewPoints(points), Bone: bone}
		if a, ok := measure.AreaAnswer(points, noise); ok {
			v.Change = viewAnswer(a)
		}
		out.Area = append(out.Area, v)
	}
	for _, one := range sessions {
		if one.MassKg != nil {
			out.Mass = append(out.Mass, PointView{one.On.String(), one.On.Words(), *one.MassKg})
		}
	}
	photos, err := tx.Photos(ctx, id)
	for _, p := range photos {
		out.Photos = append(out.Photos, viewPhoto(p))
	}
	return out, err
}

func sessionsOf(kept []store.Measuring) []measure.Session {
	out := make([]measure.Session, len(kept))
	for i, k := range kept {
		out[i] = k.Session
	}
	return out
}

func viewMeasuring(m store.Measuring) MeasuringView {
	v := MeasuringView{ID: m.ID, Words: m.On.Words(), Session: m.Session, Medians: map[string]float64{}, Another: []string{}}
	for site := range m.Girths {
		if x, ok := m.Median(site); ok {
			v.Medians[string(site)] = round4(x)
		}
	}
	for _, site := range m.NeedsAnother() {
		v.Another = append(v.Another, measure.SiteName(site))
	}
	return v
}

func viewPoints(points []measure.Point) []PointView {
	out := []PointView{}
	for _, p := range points {
		out = append(out, PointView{p.On.String(), p.On.Words(), round4(p.Value)})
	}
	return out
}

func viewAnswer(a measure.Answer) *AnswerView {
	return &AnswerView{a.Real, round4(a.By), round4(a.Least), a.Words}
}

func viewCourse(sessions []measure.Session, site measure.Site) CourseView {
	course := measure.CourseOf(sessions, site)
	out := CourseView{Site: string(site), Points: viewPoints(course.Points)}
	if a, ok := course.Change(day.Day(0)); ok {
		out.Change = viewAnswer(a)
	}
	return out
}
