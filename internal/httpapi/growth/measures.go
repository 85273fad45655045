package growth

import (
	"context"
	"fmt"
	"net/http"
	"strings"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"musculus/internal/core/day"
	"musculus/internal/core/measure"
	"musculus/internal/httpapi/op"
	"musculus/internal/store"
	"musculus/internal/view"
)

// MeasuresView is what the tape says about a client.
type MeasuresView struct {
	Kinds    []KindView      `json:"kinds"`
	Sessions []MeasuringView `json:"sessions"` // the latest first
	Area     []AreaView      `json:"area"`     // empty without skinfolds
	Mass     []PointView     `json:"mass"`
	Photos   []PhotoView     `json:"photos"`
	Gone     []MeasuringView `json:"gone"`   // withdrawn sessions, the latest first
	Needs    string          `json:"needs"`  // what has to be recorded before anything is kept or shown, empty for nothing
	Kept     int             `json:"hidden"` // measuring sessions and photos that are kept but out of sight
	How      string          `json:"how"`    // how it is measured
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
	Version int                `json:"version"` // to be sent back when it is corrected or withdrawn
	By      string             `json:"by"`
	Was     []MeasuringWas     `json:"was"` // the versions before, the latest first
}

// MeasuringWas is an earlier version of a measuring session.
type MeasuringWas struct {
	By    string `json:"by"`
	When  string `json:"when"`
	Words string `json:"words"` // what it said
}

type measuresOutput struct{ Body MeasuresView }

type measuringInput struct {
	Client    uuid.UUID `path:"client"`
	Measuring uuid.UUID `path:"measuring"`
	Body      struct {
		measure.Session
		Version int `json:"version,omitempty" minimum:"0" maximum:"1000000" doc:"as it was read; absent: a new session"`
	}
}

type measuringPath struct {
	Client    uuid.UUID `path:"client"`
	Measuring uuid.UUID `path:"measuring"`
	Version   int       `query:"version" minimum:"1" maximum:"1000000" required:"true" doc:"as it was read"`
}

// howMeasured stands where girths are taken.
const howMeasured = "Halfway between the tip of the shoulder and the tip of the elbow, site marked; before training, " +
	"same hour, same hand on the tape. Two readings, the round made twice; over 0.5 cm apart asks for a third."

func (s *place) registerMeasures(api huma.API) {
	huma.Register(
		api,
		op.Operation("measures", op.Everybody, http.MethodGet, "/clients/{client}/measures", "What the tape says"),
		s.measures,
	)
	huma.Register(
		api,
		op.Operation(
			"put-measuring",
			op.Everybody,
			http.MethodPut,
			"/clients/{client}/measures/{measuring}",
			"Keep a measuring session, or correct it",
		),
		s.putMeasuring,
	)
	huma.Register(
		api,
		op.Operation(
			"withdraw-measuring",
			op.Planners,
			http.MethodDelete,
			"/clients/{client}/measures/{measuring}",
			"Take a measuring session away",
		),
		s.withdrawMeasuring,
	)
}

func (s *place) measures(ctx context.Context, in *op.ClientInput) (*measuresOutput, error) {
	return s.answerMeasures(ctx, in.Client, func(*store.Tx, store.Account, *store.Client) error { return nil })
}

func (s *place) putMeasuring(ctx context.Context, in *measuringInput) (*measuresOutput, error) {
	if err := op.FieldFaults("body.", in.Body.Check(s.Day(ctx))); err != nil {
		return nil, err
	}
	return s.answerMeasures(ctx, in.Client, func(tx *store.Tx, a store.Account, c *store.Client) error {
		if why := c.Dossier.MayMeasure(s.DayOf(c)); why != "" {
			return op.FieldProblem("body.body_consent", "%s", why)
		}
		return tx.PutMeasuring(
			ctx,
			in.Client,
			store.Measuring{ID: in.Measuring, Session: in.Body.Session, Version: in.Body.Version},
			a.ID,
			s.Now(),
		)
	})
}

func (s *place) withdrawMeasuring(ctx context.Context, in *measuringPath) (*measuresOutput, error) {
	return s.answerMeasures(ctx, in.Client, func(tx *store.Tx, a store.Account, _ *store.Client) error {
		return tx.WithdrawMeasuring(ctx, in.Client, in.Measuring, in.Version, a.ID, s.Now())
	})
}

// measuresRead is what a client's measures are shown from.
type measuresRead struct {
	c       store.Client
	photos  []store.Photo
	history []store.MeasuringVersion
	kept    []store.Measuring
}

func (s *place) readMeasures(ctx context.Context, tx *store.Tx, c *store.Client, r *measuresRead) (err error) {
	r.c = *c
	if r.photos, err = tx.Photos(ctx, c.ID); err != nil {
		return err
	}
	if r.history, err = tx.MeasuringHistory(ctx, c.ID); err != nil {
		return err
	}
	r.kept, err = s.Measurings(ctx, tx, c)
	return err
}

// answerMeasures shows a client's measures as they are after do.
func (s *place) answerMeasures(
	ctx context.Context,
	client uuid.UUID,
	do func(*store.Tx, store.Account, *store.Client) error,
) (*measuresOutput, error) {
	return op.Showing(ctx, s.Server, func(tx *store.Tx, r *measuresRead) error {
		c, err := tx.Client(ctx, client)
		if err != nil {
			return err
		}
		if err := do(tx, op.AccountOf(ctx), &c); err != nil {
			return err
		}
		return s.readMeasures(ctx, tx, &c, r)
	}, func(r *measuresRead) (*measuresOutput, error) { return &measuresOutput{s.showMeasures(r)}, nil })
}

func (s *place) showMeasures(r *measuresRead) MeasuresView {
	out := MeasuresView{
		Kinds:    []KindView{},
		Sessions: []MeasuringView{},
		Area:     []AreaView{},
		Mass:     []PointView{},
		Photos:   []PhotoView{},
		Gone:     []MeasuringView{},
		How:      howMeasured,
	}
	c, photos, history, kept := &r.c, r.photos, r.history, r.kept
	if out.Needs = c.Dossier.MayMeasure(s.DayOf(c)); out.Needs != "" {
		out.Kept = len(photos)
		for i := range history {
			if i == 0 || history[i].ID != history[i-1].ID {
				out.Kept++
			}
		}
		photos, history = nil, nil
	}
	sessions := op.SessionsOf(kept)
	for i := range measure.Kinds {
		k := &measure.Kinds[i]
		noise := measure.NoiseOf(sessions, k)
		v := KindView{
			ID:        k.ID,
			Name:      k.Name,
			Noise:     noise.Words(),
			Threshold: view.Round4(noise.Threshold()),
			Left:      viewCourse(sessions, k.Left),
			Right:     viewCourse(sessions, k.Right),
		}
		if gap, ok := measure.Gap(sessions, k); ok {
			v.Gap = viewAnswer(gap)
		}
		out.Kinds = append(out.Kinds, v)
	}
	for i := len(kept) - 1; i >= 0; i-- {
		out.Sessions = append(out.Sessions, viewMeasuring(kept[i], history))
	}
	for i := range history {
		if (i == 0 || history[i].ID != history[i-1].ID) && history[i].Withdrawn {
			out.Gone = append(out.Gone, viewMeasuring(history[i].Measuring, history))
		}
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
	for _, p := range photos {
		out.Photos = append(out.Photos, viewPhoto(p))
	}
	return out
}

func viewMeasuring(m store.Measuring, history []store.MeasuringVersion) MeasuringView {
	v := MeasuringView{
		ID:      m.ID,
		Words:   m.On.Words(),
		Session: m.Session,
		Medians: map[string]float64{},
		Another: []string{},
		Version: m.Version,
		By:      m.By,
		Was:     []MeasuringWas{},
	}
	for i := range history {
		if h := &history[i]; h.ID == m.ID && h.Version < m.Version {
			words := measuredWords(&h.Session)
			if h.Withdrawn {
				words = "withdrawn: " + words
			}
			v.Was = append(v.Was, MeasuringWas{h.By, op.DateWords(h.At), words})
		}
	}
	for site := range m.Girths {
		if x, ok := m.Median(site); ok {
			v.Medians[string(site)] = view.Round4(x)
		}
	}
	for _, site := range m.NeedsAnother() {
		v.Another = append(v.Another, measure.SiteName(site))
	}
	return v
}

// measuredWords tells a session's medians in one line.
func measuredWords(m *measure.Session) string {
	var out []string
	for _, k := range measure.Kinds {
		for _, site := range []measure.Site{k.Left, k.Right} {
			if x, ok := m.Median(site); ok {
				out = append(out, fmt.Sprintf("%s %.1f cm", measure.SiteName(site), x))
			}
		}
	}
	if len(out) == 0 {
		return "no girths"
	}
	return strings.Join(out, ", ")
}

func viewPoints(points []measure.Point) []PointView {
	out := []PointView{}
	for _, p := range points {
		out = append(out, PointView{p.On.String(), p.On.Words(), view.Round4(p.Value)})
	}
	return out
}

func viewAnswer(a measure.Answer) *AnswerView {
	return &AnswerView{a.Real, view.Round4(a.By), view.Round4(a.Least), a.Words}
}

func viewCourse(sessions []measure.Session, site measure.Site) CourseView {
	course := measure.CourseOf(sessions, site)
	out := CourseView{Site: string(site), Points: viewPoints(course.Points)}
	if a, ok := course.Change(day.Day(0)); ok {
		out.Change = viewAnswer(a)
	}
	return out
}
