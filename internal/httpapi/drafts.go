package httpapi

import (
	"context"
	"fmt"
	"strings"
	"time"

	"github.com/google/uuid"

	"musculus/internal/core/dose"
	"musculus/internal/core/effort"
	"musculus/internal/core/movement"
	"musculus/internal/core/text"
	"musculus/internal/core/week"
	"musculus/internal/store"
)

// DoseDraft is a dose as it is edited.
type DoseDraft struct {
	Sets     int       `json:"sets"`
	RepsLow  int       `json:"reps_low"`
	RepsHigh int       `json:"reps_high"`
	Reserve  int       `json:"reserve"`
	Reserves []int     `json:"reserves,omitempty" maxItems:"12" doc:"set by set, where they differ; the last one holds on"`
	RestS    int       `json:"rest_s"`
	Tempo    []float64 `json:"tempo" doc:"eccentric, hold, concentric, hold in s; empty or all 0: controlled, no bounce"`
	LoadKg   *float64  `json:"load_kg" doc:"what one hand carries; null: to be found"`
	Method   string    `json:"method,omitempty" maxLength:"40" doc:"id of a method; absent: straight sets"`
	MethodN  int       `json:"method_n,omitempty" doc:"its parameter; absent: the usual one"`
}

// SlotDraft is a slot as it is edited.
type SlotDraft struct {
	ID       uuid.UUID      `json:"id"`
	Movement string         `json:"movement" maxLength:"60"`
	Settings map[string]any `json:"settings"`
	Dose     *DoseDraft     `json:"dose,omitempty" doc:"absent: the usual dose under the client's caps"`
	Cues     []string       `json:"cues"`
	Combo    string         `json:"combo,omitempty" maxLength:"40" doc:"neighbours with the same one are done in turns"`
	Grips    []GripDraft    `json:"grips,omitempty" maxItems:"12" doc:"the set-ups of the sets one by one, where they differ; the last one holds on"`
	Starts   string         `json:"starts,omitempty" enum:",left,right" doc:"the arm that begins; absent: in turn"`
	Locked   bool           `json:"locked,omitempty" doc:"no fix and no draft touches it"`
	// CueReason answers what is asked back about a cue.
	CueReason string `json:"cue_reason,omitempty" maxLength:"200" doc:"why a cue stays that asks for what a cap forbids"`
}

// GripDraft is the set-up of one set.
type GripDraft struct {
	Movement string         `json:"movement" maxLength:"60"`
	Settings map[string]any `json:"settings"`
}

// mostName is how long a session's name may be.
const mostName = 60

// Draft is a session as it is edited.
type Draft struct {
	Name      string      `json:"name" minLength:"1" maxLength:"60"`
	PlannedOn string      `json:"planned_on" format:"date"`
	WarmUpMin float64     `json:"warm_up_min"`
	Intent    string      `json:"intent,omitempty" enum:",heavy,light"`
	Slots     []SlotDraft `json:"slots" maxItems:"40"`
	Locked    bool        `json:"locked,omitempty" doc:"no fix and no draft touches its day or its slots"`
}

// checked reads a draft and refuses whatever is wrong with it.
func (s *server) checked(ctx context.Context, c *store.Client, d *Draft) (store.Session, error) {
	draft, wrong := s.read(c, d)
	session, more := draft.Content.Week(movements(ctx))
	wrong = append(wrong, more...)
	if len(wrong) == 0 {
		t, err := s.trainee(c)
		if err != nil {
			return draft, err
		}
		for _, f := range session.Check(t) { // doses lie one level down in a draft
			f.Field = doseField(f.Field)
			wrong = append(wrong, f)
		}
		for i := range session.Slots {
			if err := session.Slots[i].SetUpOf(0).Reach(c.Dossier.Body()); err != nil {
				wrong = append(wrong, &movement.FieldError{Field: fmt.Sprintf("slots[%d].settings", i), Reason: err.Error()})
			}
		}
	}
	return draft, faults("body.", wrong)
}

// doseField puts the field of a dose where a draft has it.
func doseField(field string) string {
	slot, name, ok := strings.Cut(field, "].")
	if !ok || name == "cues" || name == "cue_reason" || name == "movement" || name == "settings" || name == "starts" || strings.HasPrefix(name, "grips") {
		return field
	}
	return slot + "].dose." + name
}

// read turns a draft into what is kept; a slot without a dose gets the usual
// one.
func (s *server) read(c *store.Client, d *Draft) (store.Session, []*movement.FieldError) {
	var wrong []*movement.FieldError
	fault := func(field, reason string) { wrong = append(wrong, &movement.FieldError{Field: field, Reason: reason}) }
	out := store.Session{Name: strings.TrimSpace(d.Name), Content: store.Content{WarmUpMin: d.WarmUpMin, Intent: d.Intent, Locked: d.Locked, Slots: []store.PlannedSlot{}}}
	line := func(field, s string) {
		if why := text.Fault(s, true); why != "" {
			fault(field, why)
		}
	}
	switch n := len([]rune(out.Name)); {
	case n == 0:
		fault("name", "a session needs a name")
	case n > mostName:
		fault("name", fmt.Sprintf("%d characters are more than %d", n, mostName))
	}
	line("name", out.Name)
	if out.Content.Intent != "" && out.Content.Intent != "heavy" && out.Content.Intent != "light" {
		fault("intent", "neither heavy nor light")
	}
	day, err := time.Parse(time.DateOnly, d.PlannedOn)
	if err != nil || day.Year() < 2000 || day.Year() > 2100 {
		fault("planned_on", "not a date between 2000 and 2100")
	}
	out.PlannedOn = day
	seen := map[uuid.UUID]bool{}
	for i, slot := range d.Slots {
		at := fmt.Sprintf("slots[%d].", i)
		if seen[slot.ID] {
			fault(at+"id", "two slots have the same id")
		}
		seen[slot.ID] = true
		kept := store.PlannedSlot{ID: slot.ID, Movement: slot.Movement, Combo: slot.Combo, Cues: []string{}, Dose: dose.Usual(s.caps(c)), Starts: week.Starts(slot.Starts), Locked: slot.Locked, CueReason: strings.TrimSpace(slot.CueReason)}
		settingsAt := func(turned map[string]any, at string) map[movement.Key]movement.Value {
			settings, wrongValue := values(turned)
			if wrongValue != nil {
				fault(at+"settings."+wrongValue.Field, wrongValue.Reason)
			}
			return settings
		}
		kept.Settings = settingsAt(slot.Settings, at)
		for n, g := range slot.Grips {
			kept.Grips = append(kept.Grips, store.PlannedGrip{Movement: g.Movement, Settings: settingsAt(g.Settings, fmt.Sprintf("%sgrips[%d].", at, n))})
		}
		for _, cue := range slot.Cues {
			line(at+"cues", cue)
			kept.Cues = append(kept.Cues, strings.TrimSpace(cue))
		}
		line(at+"combo", slot.Combo)
		line(at+"cue_reason", slot.CueReason)
		if d := slot.Dose; d != nil {
			kept.Dose = dose.Dose{Sets: d.Sets, RepsLow: d.RepsLow, RepsHigh: d.RepsHigh, Reserve: d.Reserve, Reserves: d.Reserves, RestS: d.RestS, LoadKg: d.LoadKg, Method: dose.Use{ID: d.Method, N: d.MethodN}}
			if len(d.Reserves) > 0 {
				kept.Dose.Reserve = d.Reserves[0]
			}
			if copy(kept.Dose.Tempo[:], d.Tempo); len(d.Tempo) != 0 && len(d.Tempo) != len(effort.Tempo{}) {
				fault(at+"dose.tempo", "a tempo has four parts: lowering, hold, lifting, hold")
			}
		}
		out.Content.Slots = append(out.Content.Slots, kept)
	}
	return out, wrong
}
