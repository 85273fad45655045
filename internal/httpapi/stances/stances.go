package stances

import (
	"context"
	"fmt"
	"net/http"
	"slices"
	"strconv"
	"strings"

	"github.com/danielgtaylor/huma/v2"
	"github.com/google/uuid"

	"musculus/internal/core/arm"
	"musculus/internal/core/fitting"
	"musculus/internal/core/stance"
	"musculus/internal/core/week"
	"musculus/internal/httpapi/op"
	"musculus/internal/store"
	"musculus/internal/view"
)

// StanceView is a stance to choose.
type StanceView struct {
	ID    string   `json:"id"`
	Name  string   `json:"name"`
	Says  string   `json:"says"`
	Base  string   `json:"base"`
	Half  bool     `json:"half"`
	Rules []string `json:"rules"`
	// Own is true for the studio's own copies; Version is what a switch is made on.
	Own     bool `json:"own"`
	Version int  `json:"version"`
}

// RuleView is one rule with its evidence card.
type RuleView struct {
	ID        string            `json:"id"`
	Lever     string            `json:"lever"`
	Says      string            `json:"says"`
	When      string            `json:"when"`
	Tilts     []string          `json:"tilts"` // "biceps, long head ×1.10"
	Grade     string            `json:"grade"`
	Mechanism string            `json:"mechanism" enum:"holds,partly,does not hold"`
	Why       string            `json:"why"`
	Disputes  []string          `json:"disputes"`
	Stances   []string          `json:"stances"`
	Card      map[string]string `json:"card"`   // the recorded lines of its evidence card
	Switch    bool              `json:"switch"` // has a tilt: switching it changes numbers
	Note      string            `json:"note"`   // the studio's own, kept apart from the grade
}

// DisputeView is a lever read in two ways.
type DisputeView struct {
	Lever     string `json:"lever"`
	One       string `json:"one"`
	Other     string `json:"other"`
	Mechanics string `json:"mechanics"`
	House     string `json:"house"`
}

// WrongView is something often said that is not so.
type WrongView struct {
	Says   string `json:"says"`
	But    string `json:"but"`
	Kind   string `json:"kind" enum:"wrong,unsupported,partly,disputed"`
	Answer string `json:"answer"` // the kind as it is told
}

// LeverView is a contrast the tip checker knows.
type LeverView struct {
	ID   string `json:"id"`
	Name string `json:"name"`
}

// BookView is everything of the Stances place.
type BookView struct {
	Stances    []StanceView  `json:"stances"`
	Rules      []RuleView    `json:"rules"`
	Disputes   []DisputeView `json:"disputes"`
	Wrong      []WrongView   `json:"wrong"`
	Levers     []LeverView   `json:"levers"`
	Heads      []LeverView   `json:"heads"`
	CardFields []string      `json:"card_fields"` // every line of an evidence card
}

type bookOutput struct{ Body BookView }

type setStanceInput struct {
	Client uuid.UUID `path:"client"`
	Body   struct {
		Stance string `json:"stance" maxLength:"40"`
	}
}

type copyStanceInput struct {
	Body struct {
		ID   uuid.UUID `json:"id" doc:"made by the sender; sending it again copies once"`
		Of   string    `json:"of" maxLength:"40" doc:"id of a shipped stance"`
		Name string    `json:"name" minLength:"1" maxLength:"60"`
	}
}

type switchOwnInput struct {
	Stance uuid.UUID `path:"stance"`
	Body   struct {
		Rule    string `json:"rule" maxLength:"60"`
		On      bool   `json:"on"`
		Version int    `json:"version" minimum:"1" maximum:"1000000"`
	}
}

type noteInput struct {
	Rule string `path:"rule" maxLength:"60"`
	Body struct {
		Note string `json:"note" maxLength:"1000"`
	}
}

type switchInput struct {
	op.SessionPath
	Body struct {
		Rule string `json:"rule" maxLength:"60"`
	}
}

// SwitchView is how a session's numbers would change if a rule were switched.
type SwitchView struct {
	Rule   string       `json:"rule"`
	On     bool         `json:"on"` // is used now
	Counts bool         `json:"counts"`
	Heads  []HeadChange `json:"heads"` // those that change
	Words  string       `json:"words"`
}

// HeadChange is a head's change in effective sets.
type HeadChange struct {
	Code   string  `json:"code"`
	Name   string  `json:"name"`
	Change float64 `json:"change"`
}

type switchOutput struct{ Body SwitchView }

func (s *place) registerStances(api huma.API) {
	huma.Register(api, op.Operation("stances", op.Everybody, http.MethodGet, "/stances", "Stances, rules and disputes"), s.book)
	huma.Register(
		api,
		op.Operation("set-stance", op.Planners, http.MethodPut, "/clients/{client}/stance", "Choose a client's stance"),
		s.setStance,
	)
	huma.Register(
		api,
		op.Operation("try-stance", op.Everybody, http.MethodPost, "/clients/{client}/try-stance",
			"What another stance would change in the client's week"),
		s.tryStance,
	)
	huma.Register(api, op.Operation("copy-stance", op.Planners, http.MethodPost, "/stances", "Copy a stance"), s.copyStance)
	huma.Register(
		api,
		op.Operation("switch-own", op.Planners, http.MethodPost, "/stances/{stance}/switch", "Switch a rule of one's own stance"),
		s.switchOwn,
	)
	huma.Register(api, op.Operation("note-rule", op.Planners, http.MethodPut, "/rules/{rule}/note", "Keep a note on a rule"), s.noteRule)
	huma.Register(
		api,
		op.Operation(
			"switch-rule",
			op.Everybody,
			http.MethodPost,
			"/clients/{client}/sessions/{session}/switch-rule",
			"What switching a rule would change",
		),
		s.switchRule,
	)
	huma.Register(
		api,
		op.Operation("check-tip", op.Everybody, http.MethodPost, "/check-tip", "Hold a tip against mechanics and rules"),
		s.checkTip,
	)
}

func viewRule(r *stance.Rule) RuleView {
	v := RuleView{
		ID:        r.ID,
		Lever:     r.Lever,
		Says:      r.Says,
		When:      r.When.Words(),
		Tilts:     []string{},
		Grade:     r.Grade,
		Mechanism: r.Mechanism,
		Why:       r.Why,
		Disputes:  r.Disputes,
		Stances:   r.Stances,
		Card:      r.Card(),
		Switch:    r.Tilt != nil,
	}
	if v.Disputes == nil {
		v.Disputes = []string{}
	}
	if v.Stances == nil {
		v.Stances = []string{}
	}
	if r.Tilt != nil {
		for h, x := range r.Tilt {
			if x != 1 {
				v.Tilts = append(v.Tilts, arm.Heads[h].Name+" ×"+formatFactor(x))
			}
		}
	}
	return v
}

func formatFactor(x float64) string { return strconv.FormatFloat(x, 'f', 2, 64) }

// switchWords tells what switching a rule would do.
func switchWords(v *SwitchView, session string) string {
	verb := "Switched on"
	if v.On {
		verb = "Switched off"
	}
	if !v.Counts {
		return verb + ", nothing changes: its mechanism does not hold, so it is only shown as a hollow mark."
	}
	if len(v.Heads) == 0 {
		return verb + ", nothing in " + session + " changes."
	}
	var parts []string
	for _, h := range v.Heads {
		parts = append(parts, strings.ReplaceAll(fmt.Sprintf("%s %+.2f", h.Name, h.Change), "-", "−"))
	}
	return verb + ", " + session + " would count " + strings.Join(parts, "; ") + " effective sets."
}

func viewDispute(d *stance.Dispute) DisputeView {
	return DisputeView{d.Lever, d.One, d.Other, d.Mechanics, d.House}
}

func (s *place) book(ctx context.Context, _ *struct{}) (*bookOutput, error) {
	b := BookView{
		Stances:    []StanceView{},
		Rules:      []RuleView{},
		Disputes:   []DisputeView{},
		Wrong:      []WrongView{},
		Levers:     []LeverView{},
		Heads:      []LeverView{},
		CardFields: stance.CardFields,
	}
	for i := range stance.Stances {
		st := &stance.Stances[i]
		rules := st.Rules
		if rules == nil {
			rules = []string{}
		}
		b.Stances = append(b.Stances, StanceView{st.ID, st.Name, st.Says, string(st.Base), st.Half, rules, false, 0})
	}
	var notes map[string]string
	err := s.InStudio(ctx, func(tx *store.Tx, _ store.Account) error {
		own, err := tx.OwnStances(ctx)
		if err != nil {
			return err
		}
		for _, o := range own {
			b.Stances = append(b.Stances, StanceView{o.ID, o.Name, o.Says, string(o.Base), o.Half, o.Rules, true, o.Version})
		}
		notes, err = tx.RuleNotes(ctx)
		return err
	})
	if err != nil {
		return nil, err
	}
	for _, r := range stance.Shipped.Rules {
		v := viewRule(r)
		v.Note = notes[r.ID]
		b.Rules = append(b.Rules, v)
	}
	for i := range stance.Shipped.Disputes {
		b.Disputes = append(b.Disputes, viewDispute(&stance.Shipped.Disputes[i]))
	}
	for i := range stance.Shipped.Wrong {
		b.Wrong = append(b.Wrong, viewClaim(&stance.Shipped.Wrong[i]))
	}
	for _, l := range fitting.Levers {
		b.Levers = append(b.Levers, LeverView{l.ID, l.Name})
	}
	for i := range arm.Heads {
		b.Heads = append(b.Heads, LeverView{arm.Heads[i].ID, arm.Heads[i].Name})
	}
	return &bookOutput{b}, nil
}

func (s *place) setStance(ctx context.Context, in *setStanceInput) (*struct{}, error) {
	return nil, s.InStudio(ctx, func(tx *store.Tx, _ store.Account) error {
		st, err := op.StanceOf(ctx, tx, in.Body.Stance)
		if err != nil {
			return err
		}
		return tx.SetStance(ctx, in.Client, st.ID)
	})
}

func (s *place) copyStance(ctx context.Context, in *copyStanceInput) (*struct{}, error) {
	of := stance.ByID(in.Body.Of)
	if of == nil {
		return nil, op.FieldProblem("body.of", "there is no shipped stance %q", in.Body.Of)
	}
	name := strings.TrimSpace(in.Body.Name)
	if name == "" {
		return nil, op.FieldProblem("body.name", "a stance needs a name")
	}
	return nil, s.InStudio(ctx, func(tx *store.Tx, a store.Account) error { return tx.AddStance(ctx, in.Body.ID, name, of, a.ID) })
}

func (s *place) switchOwn(ctx context.Context, in *switchOwnInput) (*struct{}, error) {
	rule := stance.Shipped.Rule(in.Body.Rule)
	if rule == nil || rule.Tilt == nil {
		return nil, op.FieldProblem("body.rule", "there is no rule %q that changes numbers", in.Body.Rule)
	}
	return nil, s.InStudio(ctx, func(tx *store.Tx, _ store.Account) error {
		own, err := tx.OwnStance(ctx, in.Stance)
		if err != nil {
			return err
		}
		rules := slices.DeleteFunc(slices.Clone(own.Rules), func(id string) bool { return id == rule.ID })
		if in.Body.On {
			rules = append(rules, rule.ID)
		}
		done, err := tx.SwitchRules(ctx, in.Stance, in.Body.Version, rules)
		if err == nil && !done {
			return op.Problem(http.StatusConflict, "somebody switched a rule of this stance in between; look again")
		}
		return err
	})
}

func (s *place) noteRule(ctx context.Context, in *noteInput) (*struct{}, error) {
	if stance.Shipped.Rule(in.Rule) == nil {
		return nil, op.Problem(http.StatusNotFound, "there is no such rule")
	}
	return nil, s.InStudio(ctx, func(tx *store.Tx, a store.Account) error {
		return tx.PutRuleNote(ctx, in.Rule, strings.TrimSpace(in.Body.Note), a.ID)
	})
}

func (s *place) switchRule(ctx context.Context, in *switchInput) (*switchOutput, error) {
	rule := stance.Shipped.Rule(in.Body.Rule)
	if rule == nil {
		return nil, op.FieldProblem("body.rule", "there is no rule %q", in.Body.Rule)
	}
	out := &switchOutput{SwitchView{Rule: rule.ID, Counts: rule.Counts(), Heads: []HeadChange{}}}
	err := s.InSession(ctx, in.SessionPath, func(_ *store.Tx, _ store.Account, c *store.Client, kept store.Session) error {
		if len(kept.Faults) > 0 {
			return kept.Faults[0]
		}
		t, err := s.Trainee(c)
		if err != nil {
			return err
		}
		other := *t.Stance
		if out.Body.On = slices.Contains(other.Rules, rule.ID); out.Body.On {
			other.Rules = slices.DeleteFunc(slices.Clone(other.Rules), func(id string) bool { return id == rule.ID })
		} else {
			other.Rules = append(slices.Clone(other.Rules), rule.ID)
		}
		now, then := t.Count(&kept.Session), week.Count(&kept.Session, t.Yardstick, &other)
		for h := range now.Heads {
			if d := view.Round4(then.Heads[h].Mid - now.Heads[h].Mid); d >= 0.005 || d <= -0.005 {
				out.Body.Heads = append(out.Body.Heads, HeadChange{arm.Heads[h].Code, arm.Heads[h].Name, d})
			}
		}
		out.Body.Words = switchWords(&out.Body, kept.Name)
		return nil
	})
	return out, err
}
