package httpapi

import (
	"context"
	"net/http"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"musculus/internal/core/arm"
	"musculus/internal/core/effort"
	"musculus/internal/core/fitting"
	"musculus/internal/core/movement"
	"musculus/internal/core/stance"
	"musculus/internal/figure"
	"musculus/internal/store"
)

// EntryHead is what a library entry gives one head.
type EntryHead struct {
	ID   string  `json:"id"`
	Bias float64 `json:"bias"`
	Low  float64 `json:"low"`
	High float64 `json:"high"`
	// Length is the mean length's place in the head's reach, −1…1; absent where
	// nothing is computed.
	Length *float64 `json:"length,omitempty"`
	Zone   string   `json:"zone"` // short, middle, long, or empty
}

// LibraryEntry is a movement at its defaults, with what it can be found by.
type LibraryEntry struct {
	ID        string      `json:"id"`
	Name      string      `json:"name"`
	Action    string      `json:"action"`
	Computed  bool        `json:"computed"`
	Grade     string      `json:"grade"`
	Glyph     Glyph       `json:"glyph"`
	Heads     []EntryHead `json:"heads"`
	Hardest   string      `json:"hardest"` // long, middle, short third of the range; empty for graded work
	Hand      string      `json:"hand"`    // up, thumb, down, turning
	Arms      string      `json:"arms"`    // one, two
	SafeAlone string      `json:"safe_alone" enum:"yes,no,pins"`
	Partner   string      `json:"partner"`
	Implement string      `json:"implement"`
	Load      string      `json:"load" enum:"free,cable,body,machine"`
	Joints    []Joint     `json:"joints"`
	UpperArm  string      `json:"upper_arm"`
	Stop      string      `json:"stop"`
	Lacks     []string    `json:"lacks"`   // what the client's room lacks
	Refused   string      `json:"refused"` // why this body cannot do it at its defaults
}

// Joint is how hard a movement is on a joint.
type Joint struct {
	Name  string `json:"name"`
	Score int    `json:"score"` // 0–3
}

type libraryInput struct {
	Client string `query:"client" doc:"whose body, stance and room; absent: the average adult"`
	Stance string `query:"stance"`
}

type libraryOutput struct {
	Body struct {
		Stance  string         `json:"stance"`
		Entries []LibraryEntry `json:"entries"`
	}
}

// NearView is an equivalent with what is kept and lost.
type NearView struct {
	Movement string         `json:"movement"`
	Settings map[string]any `json:"settings"`
	Name     string         `json:"name"`
	Glyph    Glyph          `json:"glyph"`
	Distance float64        `json:"distance"`
	Same     bool           `json:"same_idea"`
	Keeps    string         `json:"keeps"`
	Loses    string         `json:"loses"`
	Lacks    []string       `json:"lacks"`
}

// WornInput is a set-up and who it is for.
type WornInput struct {
	Movement string         `json:"movement" maxLength:"60"`
	Settings map[string]any `json:"settings,omitempty"`
	Client   *uuid.UUID     `json:"client,omitempty"`
	Stance   string         `json:"stance,omitempty" maxLength:"40"`
}

type nearInput struct {
	Body struct {
		WornInput
		Room bool `json:"room,omitempty" doc:"only what the client's room allows"`
	}
}

type nearOutput struct {
	Body struct {
		Near []NearView `json:"near"`
	}
}

// TunedView is one set-up that tuning found.
type TunedView struct {
	Settings map[string]any `json:"settings"`
	Name     string         `json:"name"`
	Glyph    Glyph          `json:"glyph"`
	Bias     float64        `json:"bias"`
	InZone   float64        `json:"in_zone"`
	Idle     float64        `json:"idle"`
	Score    float64        `json:"score"`
	Worth    []WorthView    `json:"worth"`
}

// WorthView is what one changed setting adds to the score.
type WorthView struct {
	Label string  `json:"label"`
	From  string  `json:"from"`
	To    string  `json:"to"`
	Score float64 `json:"score"`
}

type tuneInput struct {
	Body struct {
		WornInput
		Head string `json:"head" maxLength:"40"`
		Zone string `json:"zone,omitempty" enum:"short,middle,long" doc:"absent: any length"`
		Keep bool   `json:"keep_range,omitempty" doc:"leave both ends of the elbow's range as they are"`
	}
}

type tuneOutput struct {
	Body struct {
		Now   float64     `json:"now"` // the score of the set-up as it stands
		Found []TunedView `json:"found"`
	}
}

// FaultView is a fault and what it costs in this set-up.
type FaultView struct {
	ID       string `json:"id"`
	Seen     string `json:"seen"`
	View     string `json:"view"`
	Cue      string `json:"cue"`
	Remedy   string `json:"remedy"`
	Computed bool   `json:"computed"`
	Costs    string `json:"costs"`
}

type lookInput struct {
	Body struct {
		WornInput
		Head string `json:"head" maxLength:"40"`
	}
}

type lookOutput struct {
	Body struct {
		Trace   *figure.HeadTrace `json:"trace,omitempty"` // absent for graded work
		Explain []string          `json:"explain"`         // for the client, in plain words
	}
}

type faultsInput struct{ Body WornInput }

type faultsOutput struct {
	Body struct {
		Faults []FaultView `json:"faults"`
	}
}

func (s *server) registerLibrary(api huma.API) {
	huma.Register(api, operation("library", http.MethodGet, "/library", "The catalogue under a stance"), s.library)
	huma.Register(api, operation("near", http.MethodPost, "/near", "The nearest set-ups to one"), s.near)
	huma.Register(api, operation("tune", http.MethodPost, "/tune", "The best set-ups of a movement for a head"), s.tune)
	huma.Register(api, operation("look", http.MethodPost, "/look", "A head's length and leverage over the range, and the page for the client"), s.look)
	huma.Register(api, operation("fault-costs", http.MethodPost, "/fault-costs", "What faults cost in a set-up"), s.faultCosts)
}

// roomOf is the client's room, nil without a client.
func (s *server) clientOf(ctx context.Context, id *uuid.UUID) (*store.Client, error) {
	if id == nil {
		return nil, nil
	}
	var c store.Client
	err := s.inStudio(ctx, func(tx *store.Tx, _ store.Account) (err error) {
		c, err = tx.Client(ctx, *id)
		return err
	})
	return &c, err
}

func lacks(c *store.Client, set movement.SetUp) []string {
	if c == nil {
		return []string{}
	}
	if out := c.Room.Missing(set); out != nil {
		return out
	}
	return []string{}
}

func (s *server) library(ctx context.Context, in *libraryInput) (*libraryOutput, error) {
	var id *uuid.UUID
	if in.Client != "" {
		parsed, err := uuid.Parse(in.Client)
		if err != nil {
			return nil, fieldProblem("query.client", "not an id")
		}
		id = &parsed
	}
	c, err := s.clientOf(ctx, id)
	if err != nil {
		return nil, err
	}
	body, st, err := s.wearer(ctx, id, in.Stance)
	if err != nil {
		return nil, err
	}
	y, err := s.bodies.of(body)
	if err != nil {
		return nil, problemOf(err)
	}
	out := &libraryOutput{}
	out.Body.Stance = st.Name
	out.Body.Entries = []LibraryEntry{}
	for _, m := range movement.Shipped.Movements {
		e := entry(m, y, st)
		e.Lacks = lacks(c, m.Default())
		out.Body.Entries = append(out.Body.Entries, e)
	}
	return out, nil
}

// entry views a movement at its defaults.
func entry(m *movement.Movement, y *effort.Yardstick, st *stance.Stance) LibraryEntry {
	set := m.Default()
	var p *effort.Profile
	refused := ""
	if m.Computed() {
		var err error
		if p, err = set.Profile(y); err != nil {
			refused = err.Error()
		}
	}
	r := stance.Shipped.Read(st, set, p)
	out := LibraryEntry{ID: m.ID, Name: set.Title(), Action: string(m.Action), Computed: m.Computed(), Refused: refused, Glyph: glyph(set, p, &r), Heads: []EntryHead{},
		Hand: set.HandKind(), Arms: "two", SafeAlone: string(m.SafeAlone), Partner: m.Partner, Implement: string(m.Implement), Load: string(set.Effort().Load.Kind),
		UpperArm: m.UpperArm, Stop: m.Family.Stop, Joints: []Joint{{"wrist", m.Joints.Wrist}, {"elbow front", m.Joints.ElbowFront}, {"elbow back", m.Joints.ElbowBack},
			{"shoulder front", m.Joints.ShoulderFront}, {"shoulder top", m.Joints.ShoulderTop}}}
	if set.ArmsInTurn() == 2 {
		out.Arms = "one"
	}
	if m.Graded != nil {
		out.Grade = m.Graded.Grade
	}
	for h, b := range r {
		e := EntryHead{ID: arm.Heads[h].ID, Bias: round4(b.Bar), Low: round4(b.Low), High: round4(b.High)}
		if p != nil && p.Heads[h].Agonist {
			z := round4(arm.Reaches[h].Stretch(p.Heads[h].Mean))
			e.Length, e.Zone = &z, string(p.Heads[h].Zone)
		}
		out.Heads = append(out.Heads, e)
	}
	if p != nil {
		out.Hardest = stance.HardestPart(p)
	}
	return out
}

// worn reads a set-up, the body that wears it and the stance it is seen under.
func (s *server) worn(ctx context.Context, in *WornInput) (movement.SetUp, *effort.Yardstick, *stance.Stance, *store.Client, error) {
	var none movement.SetUp
	c, err := s.clientOf(ctx, in.Client)
	if err != nil {
		return none, nil, nil, nil, err
	}
	body, st, err := s.wearer(ctx, in.Client, in.Stance)
	if err != nil {
		return none, nil, nil, nil, err
	}
	set, err := setUp("body.", in.Movement, in.Settings)
	if err != nil {
		return none, nil, nil, nil, err
	}
	y, err := s.bodies.of(body)
	return set, y, st, c, problemIf(err)
}

func (s *server) near(ctx context.Context, in *nearInput) (*nearOutput, error) {
	set, y, st, c, err := s.worn(ctx, &in.Body.WornInput)
	if err != nil {
		return nil, err
	}
	out := &nearOutput{}
	out.Body.Near = []NearView{}
	of, ok := fitting.ShapeOf(set, y, st)
	if !ok {
		return out, nil
	}
	var others []fitting.Shape
	for _, m := range movement.Shipped.Movements {
		if shape, ok := fitting.ShapeOf(m.Default(), y, st); ok {
			others = append(others, shape)
		}
	}
	allowed := func(o movement.SetUp) bool { return !in.Body.Room || len(lacks(c, o)) == 0 }
	for _, e := range fitting.Equivalents(&of, others, 10, allowed) {
		r := stance.Shipped.Read(st, e.Shape.SetUp, e.Shape.Profile)
		out.Body.Near = append(out.Body.Near, NearView{e.Shape.SetUp.Movement.ID, plain(e.Shape.SetUp.Turned()), e.Shape.SetUp.Name(), glyph(e.Shape.SetUp, e.Shape.Profile, &r),
			round4(e.Distance), e.Distance < fitting.SameIdea, e.Keeps, e.Loses, lacks(c, e.Shape.SetUp)})
	}
	return out, nil
}

func (s *server) tune(ctx context.Context, in *tuneInput) (*tuneOutput, error) {
	set, y, st, c, err := s.worn(ctx, &in.Body.WornInput)
	if err != nil {
		return nil, err
	}
	head, ok := arm.HeadByID(in.Body.Head)
	if !ok {
		return nil, fieldProblem("body.head", "there is no head %q", in.Body.Head)
	}
	aim := fitting.Aim{Head: head, Zone: arm.Zone(in.Body.Zone), Stance: st, KeepRange: in.Body.Keep, Allowed: func(o movement.SetUp) bool { return len(lacks(c, o)) == 0 }}
	out := &tuneOutput{}
	out.Body.Found = []TunedView{}
	for _, f := range fitting.Tune(set, y, aim) {
		r := stance.Shipped.Read(st, f.SetUp, f.Profile)
		v := TunedView{plain(f.SetUp.Turned()), f.SetUp.Name(), glyph(f.SetUp, f.Profile, &r), round4(f.Bias), round4(f.InZone), round4(f.Profile.IdleFraction()), round4(f.Score), []WorthView{}}
		for _, w := range f.Worth {
			setting := set.Movement.Setting(w.Key)
			v.Worth = append(v.Worth, WorthView{setting.Label, setting.ValueWords(w.From), setting.ValueWords(w.To), round4(w.Score)})
		}
		out.Body.Found = append(out.Body.Found, v)
	}
	out.Body.Now = round4(fitting.Score(set, y, aim))
	return out, nil
}

func (s *server) look(ctx context.Context, in *lookInput) (*lookOutput, error) {
	set, y, _, _, err := s.worn(ctx, &in.Body.WornInput)
	if err != nil {
		return nil, err
	}
	head, ok := arm.HeadByID(in.Body.Head)
	if !ok {
		return nil, fieldProblem("body.head", "there is no head %q", in.Body.Head)
	}
	out := &lookOutput{}
	var p *effort.Profile
	if set.Movement.Computed() {
		if p, err = set.Profile(y); err != nil {
			out.Body.Explain = []string{"This cannot be done like this: " + err.Error() + "."}
			return out, nil
		}
		t := figure.MakeHeadTrace(set.Effort(), head)
		out.Body.Trace = &t
	}
	out.Body.Explain = set.Explain(p)
	return out, nil
}

func (s *server) faultCosts(ctx context.Context, in *faultsInput) (*faultsOutput, error) {
	set, y, _, _, err := s.worn(ctx, &in.Body)
	if err != nil {
		return nil, err
	}
	out := &faultsOutput{}
	out.Body.Faults = []FaultView{}
	for _, f := range set.Movement.FaultsOf() {
		c := fitting.CostOf(f, set, y)
		out.Body.Faults = append(out.Body.Faults, FaultView{f.ID, f.Seen, f.View, f.Cue, f.Remedy, c.Computed, c.Words})
	}
	return out, nil
}
