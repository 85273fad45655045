package httpapi

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
	Key       string            `json:"key"` // the movement's id, or that of a kept set-up
	ID        string            `json:"id"`
	Name      string            `json:"name"`
	Action    string            `json:"action"`
	Computed  bool              `json:"computed"`
	Grade     string            `json:"grade"`
	Glyph     Glyph             `json:"glyph"`
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
	Lacks     []string          `json:"lacks"`             // what the client's room lacks
	Verdict   *VerdictView      `json:"verdict,omitempty"` // for a client
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

func (s *server) registerLibrary(api huma.API) {
	huma.Register(api, operation("library", http.MethodGet, "/library", "The catalogue under a stance"), s.library)
	huma.Register(api, operation("near", http.MethodPost, "/near", "The nearest set-ups to one"), s.near)
	huma.Register(api, operation("tune", http.MethodPost, "/tune", "The best set-ups of a movement for a head"), s.tune)
	huma.Register(api, operation("look", http.MethodPost, "/look", "A head's length and leverage over the range, and the page for the client"), s.look)
	huma.Register(api, operation("hints", http.MethodPost, "/hints", "Set-up arithmetic"), s.hints)
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
	if out := c.Room().Missing(set); out != nil {
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
	body, st, err := s.wearer(ctx, c, in.Stance)
	if err != nil {
		return nil, err
	}
	y, err := s.yardstick(body)
	if err != nil {
		return nil, problemOf(err)
	}
	tried, err := s.triedBy(ctx, c)
	if err != nil {
		return nil, err
	}
	fence := s.fence(c)
	out := &libraryOutput{}
	out.Body.Stance = st.Name
	out.Body.Entries = []LibraryEntry{}
	for _, m := range movements(ctx).Movements {
		e := libraryEntry(m.Default(), y, st, fence)
		e.Lacks, e.Tried = lacks(c, m.Default()), tried[m.ID]
		out.Body.Entries = append(out.Body.Entries, e)
	}
	own := ownOf(ctx)
	for _, k := range own.setUps {
		if set, err := k.setUp(own.catalogue); err == nil {
			e := libraryEntry(set, y, st, fence)
			e.Key, e.Name, e.Own, e.Lacks = k.ID.String(), k.Name+": "+set.Name(), true, lacks(c, set)
			out.Body.Entries = append(out.Body.Entries, e)
		}
	}
	return out, nil
}

// triedBy lists a client's try-outs by movement.
func (s *server) triedBy(ctx context.Context, c *store.Client) (map[string][]TryOutView, error) {
	out := map[string][]TryOutView{}
	if c == nil {
		return out, nil
	}
	return out, s.inStudio(ctx, func(tx *store.Tx, _ store.Account) error {
		tried, err := tx.TryOuts(ctx, c.ID)
		for _, t := range tried {
			out[t.Movement] = append(out[t.Movement], viewTryOut(ctx, t))
		}
		return err
	})
}

// libraryEntry views a movement by one of its set-ups.
func libraryEntry(set movement.SetUp, y *effort.Yardstick, st *stance.Stance, fence *person.Fence) LibraryEntry {
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
	out := LibraryEntry{Key: m.ID, ID: m.ID, Name: set.Title(), Action: string(m.Action), Computed: m.Computed(), Refused: refused, Glyph: glyph(set, p, &r), Heads: []EntryHead{},
		Hand: set.HandKind(), Arms: "two", SafeAlone: string(m.SafeAlone), Partner: m.Partner, Implement: string(m.Implement), Load: string(set.Effort().Load.Kind),
		Hold: set.HoldWord(), Wrist: m.Wrist, Anchor: m.Anchor, Needs: person.Needs(set), Faults: []string{}, Settings: set.Turned(),
		Own: strings.HasPrefix(m.ID, movement.OwnPrefix), UpperArm: m.UpperArm, Stop: m.Stop, Joints: []Joint{{"wrist", set.Joints().Wrist}, {"elbow front", set.Joints().ElbowFront}, {"elbow back", set.Joints().ElbowBack},
			{"shoulder front", set.Joints().ShoulderFront}, {"shoulder top", set.Joints().ShoulderTop}}}
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
	out.Verdict = judged(fence, set, p)
	return out
}
