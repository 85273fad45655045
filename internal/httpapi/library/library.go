package library

import (
	"context"
	"net/http"
	"strings"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"musculus/internal/core/arm"
	"musculus/internal/core/effort"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/stance"
	"musculus/internal/httpapi/op"
	"musculus/internal/store"
	"musculus/internal/view"
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
	Key       string            `json:"key"` // the movement's id, or that of a kept set-up
	ID        string            `json:"id"`
	Name      string            `json:"name"`
	Action    string            `json:"action"`
	Computed  bool              `json:"computed"`
	Grade     string            `json:"grade"`
	Glyph     view.Glyph        `json:"glyph"`
	Heads     []EntryHead       `json:"heads"`
	Hardest   string            `json:"hardest"` // long, middle, short third of the range; empty for graded work
	Hand      string            `json:"hand"`    // up, thumb, down, turning
	Arms      string            `json:"arms"`    // one, two
	SafeAlone string            `json:"safe_alone" enum:"yes,no,pins"`
	Partner   string            `json:"partner"`
	Implement string            `json:"implement"`
	Load      string            `json:"load" enum:"free,cable,body,machine"`
	Joints    []Joint           `json:"joints"`
	UpperArm  string            `json:"upper_arm"`
	Stop      string            `json:"stop"`
	Hold      string            `json:"hold"`   // where on the implement the hand is
	Wrist     string            `json:"wrist"`  // level, cupped, tilted_up
	Anchor    string            `json:"anchor"` // what holds the upper arm, empty for nothing
	Needs     []string          `json:"needs"`
	Faults    []string          `json:"faults"`   // what is seen to go wrong
	Settings  movement.Settings `json:"settings"` // turned, where it is a set-up the studio kept
	Own       bool              `json:"own"`
	Way       string            `json:"way"`               // how it is held here where the room has not what is usual, empty as usual
	Lacks     []string          `json:"lacks"`             // what the client's room lacks
	Verdict   *view.VerdictView `json:"verdict,omitempty"` // for a client
	Tried     []TryOutView      `json:"tried,omitempty"`
	Refused   string            `json:"refused"` // why this body cannot do it at its defaults
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

func (s *place) registerLibrary(api huma.API) {
	huma.Register(api, op.Operation("library", op.Everybody, http.MethodGet, "/library", "The catalogue under a stance"), s.library)
	huma.Register(api, op.Operation("near", op.Everybody, http.MethodPost, "/near", "The nearest set-ups to one"), s.near)
	huma.Register(api, op.Operation("tune", op.Everybody, http.MethodPost, "/tune", "The best set-ups of a movement for a head"), s.tune)
	huma.Register(
		api,
		op.Operation(
			"look",
			op.Everybody,
			http.MethodPost,
			"/look",
			"A head's length and leverage over the range, and the page for the client",
		),
		s.look,
	)
	huma.Register(api, op.Operation("hints", op.Everybody, http.MethodPost, "/hints", "Set-up arithmetic"), s.hints)
	huma.Register(
		api,
		op.Operation("fault-costs", op.Everybody, http.MethodPost, "/fault-costs", "What faults cost in a set-up"),
		s.faultCosts,
	)
}

func (s *place) library(ctx context.Context, in *libraryInput) (*libraryOutput, error) {
	var id *uuid.UUID
	if in.Client != "" {
		parsed, err := uuid.Parse(in.Client)
		if err != nil {
			return nil, op.FieldProblem("query.client", "not an id")
		}
		id = &parsed
	}
	c, err := s.ClientOf(ctx, id)
	if err != nil {
		return nil, err
	}
	body, st, err := s.Wearer(ctx, c, in.Stance)
	if err != nil {
		return nil, err
	}
	y, err := s.Yardstick(body)
	if err != nil {
		return nil, op.ProblemOf(err)
	}
	tried, err := s.triedBy(ctx, c)
	if err != nil {
		return nil, err
	}
	own := op.OwnOf(ctx)
	shown, err := s.shown.Of(ctx, readKey{own, y, op.StanceKey(st)}, func(context.Context) ([]shown,
		error) {
		return showAll(own, y, st), nil
	})
	if err != nil {
		return nil, op.ProblemOf(err)
	}
	fence := s.Fence(c)
	out := &libraryOutput{}
	out.Body.Stance = st.Name
	out.Body.Entries = make([]LibraryEntry, len(shown))
	for i := range shown {
		e := shown[i].entry
		set, profile := shown[i].set, shown[i].profile
		if way, ok := op.WayFor(c, set); ok && way.Key() != set.Key() { // the room has it otherwise
			other := showEntry(way, y, st)
			set, profile = way, other.profile
			key := e.Key
			e = other.entry
			e.Key, e.Way = key, way.HeldWords()
		}
		e.Lacks, e.Tried, e.Verdict = op.Lacks(c, set), tried[e.Key], view.Judged(fence, set, profile)
		out.Body.Entries[i] = e
	}
	return out, nil
}

// readKey is what the Library looks like by: a studio's catalogue, a body, a reading.
type readKey struct {
	own    *op.Own
	body   *effort.Yardstick
	stance string
}

// mostReadings is how many Libraries are remembered.
const mostReadings = 50

// shown is one entry of the Library before it is held against a client.
type shown struct {
	set     movement.SetUp
	profile *effort.Profile // nil where there is none
	entry   LibraryEntry
}

// showAll views a catalogue and the studio's kept set-ups.
func showAll(own *op.Own, y *effort.Yardstick, st *stance.Stance) (out []shown) {
	for _, m := range own.Catalogue.Movements {
		out = append(out, showEntry(m.Default(), y, st))
	}
	for _, k := range own.SetUps {
		if set, err := k.SetUp(own.Catalogue); err == nil {
			one := showEntry(set, y, st)
			one.entry.Key, one.entry.Name, one.entry.Own = k.ID.String(), k.Name+": "+set.Name(), true
			out = append(out, one)
		}
	}
	return out
}

// triedBy lists a client's try-outs by movement.
func (s *place) triedBy(ctx context.Context, c *store.Client) (map[string][]TryOutView, error) {
	out := map[string][]TryOutView{}
	if c == nil {
		return out, nil
	}
	return out, s.InStudio(ctx, func(tx *store.Tx, _ store.Account) error {
		tried, err := tx.TryOuts(ctx, c.ID)
		for _, t := range tried {
			out[t.Movement] = append(out[t.Movement], viewTryOut(ctx, t))
		}
		return err
	})
}

// showEntry views a movement by one of its set-ups.
func showEntry(set movement.SetUp, y *effort.Yardstick, st *stance.Stance) shown {
	m := set.Movement
	var p *effort.Profile
	refused := ""
	if m.Computed() {
		var err error
		if p, err = set.Profile(y); err != nil {
			refused = err.Error()
		}
	}
	r := stance.Shipped.Read(st, set, p)
	out := LibraryEntry{
		Key:       m.ID,
		ID:        m.ID,
		Name:      set.Title(),
		Action:    string(m.Action),
		Computed:  m.Computed(),
		Refused:   refused,
		Glyph:     view.GlyphOf(set, p, &r),
		Heads:     []EntryHead{},
		Hand:      set.HandKind(),
		Arms:      "two",
		SafeAlone: string(set.SafeAlone()),
		Partner:   m.Partner,
		Implement: string(m.Implement),
		Load:      string(set.Pulls()),
		Hold:      set.HoldWord(),
		Wrist:     set.WristWord(),
		Anchor:    m.Anchor,
		Needs:     person.Needs(set),
		Faults:    []string{},
		Settings:  set.Turned(),
		Own:       strings.HasPrefix(m.ID, movement.OwnPrefix),
		UpperArm:  m.UpperArm,
		Stop:      m.Stop,
		Joints: []Joint{{"wrist", set.Joints().Wrist}, {"elbow front", set.Joints().ElbowFront}, {"elbow back", set.Joints().ElbowBack},
			{"shoulder front", set.Joints().ShoulderFront}, {"shoulder top", set.Joints().ShoulderTop}},
	}
	if set.ArmsInTurn() == 2 {
		out.Arms = "one"
	}
	if m.Graded != nil {
		out.Grade = m.Graded.Grade
	}
	for _, f := range m.FaultsOf() {
		out.Faults = append(out.Faults, f.Seen)
	}
	for h, b := range r {
		e := EntryHead{ID: arm.Heads[h].ID, Bias: view.Round4(b.Bar), Low: view.Round4(b.Low), High: view.Round4(b.High)}
		if p != nil && p.Heads[h].Agonist {
			z := view.Round4(arm.Reaches[h].Stretch(p.Heads[h].Mean))
			e.Length, e.Zone = &z, string(p.Heads[h].Zone)
		}
		out.Heads = append(out.Heads, e)
	}
	if p != nil {
		out.Hardest = stance.HardestPart(p)
	}
	return shown{set, p, out}
}
