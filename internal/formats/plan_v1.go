package formats

import (
	"encoding/json"

	"musculus/internal/core/dose"
	"musculus/internal/core/effort"
	"musculus/internal/core/movement"
	"musculus/internal/core/plan"
)

// planV1 is a plan of version 1: one dose a slot. It is read for ever.
type planV1 struct {
	Format   string `json:"format"`
	Version  int    `json:"version"`
	Client   string `json:"client"`
	Sessions []struct {
		Name      string   `json:"name"`
		Date      string   `json:"date"`
		Intent    string   `json:"intent"`
		WarmUpMin float64  `json:"warm_up_min"`
		Locked    bool     `json:"locked"`
		Slots     []slotV1 `json:"slots"`
	} `json:"sessions"`
}

// slotV1 is a slot of version 1; a table that has its columns is read as one.
type slotV1 struct {
	Movement   string            `json:"movement"`
	InWords    string            `json:"in_words"`
	Settings   movement.Settings `json:"settings"`
	Sets       int               `json:"sets"`
	RepsLow    int               `json:"reps_low"`
	RepsHigh   int               `json:"reps_high"`
	Reserve    int               `json:"reserve"`
	Reserves   []int             `json:"reserves"`
	RestS      int               `json:"rest_s"`
	Tempo      []float64         `json:"tempo"`
	LoadKg     *float64          `json:"load_kg"`
	LoadMarked *float64          `json:"load_marked"`
	LoadMeans  string            `json:"load_means"`
	Method     string            `json:"method"`
	MethodN    int               `json:"method_n"`
	Combo      string            `json:"combo"`
	Cues       []string          `json:"cues"`
	Grips      []plan.OldGrip    `json:"grips"`
	Starts     plan.Starts       `json:"starts"`
	Locked     bool              `json:"locked"`
}

// slot is what a slot of version 1 is now: rows.
func (s *slotV1) slot() PlanSlot {
	old := plan.Old{
		Movement: s.Movement,
		Settings: s.Settings,
		Cues:     s.Cues,
		Combo:    s.Combo,
		Grips:    s.Grips,
		Starts:   s.Starts,
		Locked:   s.Locked,
		Dose: plan.OldDose{Sets: s.Sets, RepsLow: s.RepsLow, RepsHigh: s.RepsHigh, Reserve: s.Reserve, Reserves: s.Reserves, RestS: s.RestS,
			LoadKg: s.LoadKg, Method: dose.Use{ID: s.Method, N: s.MethodN}},
	}
	if len(s.Tempo) == len(effort.Tempo{}) {
		copy(old.Dose.Tempo[:], s.Tempo)
	}
	rows := old.Slot()
	out := slotOf(rows.JSON())
	out.Rows[0].LoadMarked, out.Rows[0].LoadMeans = s.LoadMarked, s.LoadMeans
	if s.LoadKg == nil {
		out.Rows[0].Load = nil // not said
	}
	return out
}

func (r *PlanRead) readV1(b []byte) error {
	var in planV1
	if err := json.Unmarshal(b, &in); err != nil {
		return err
	}
	r.Plan.Sessions = nil
	for _, s := range in.Sessions {
		out := PlanSession{Name: s.Name, Date: s.Date, Intent: s.Intent, WarmUpMin: s.WarmUpMin, Locked: s.Locked, Slots: []PlanSlot{}}
		for i := range s.Slots {
			out.Slots = append(out.Slots, s.Slots[i].slot())
		}
		r.Plan.Sessions = append(r.Plan.Sessions, out)
	}
	return nil
}
