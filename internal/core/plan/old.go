package plan

import (
	"encoding/json"

	"github.com/google/uuid"

	"musculus/internal/core/dose"
	"musculus/internal/core/effort"
	"musculus/internal/core/movement"
)

// Old is a slot of version 1: one dose for all its sets, with what differs from set
// to set in lists beside it. It is read for ever and never written.
type Old struct {
	ID        uuid.UUID         `json:"id"`
	Movement  string            `json:"movement"`
	Settings  movement.Settings `json:"settings"`
	Dose      OldDose           `json:"dose"`
	Cues      []string          `json:"cues"`
	Combo     string            `json:"combo"`
	Grips     []OldGrip         `json:"grips"` // of the sets one by one; the last one holds on
	Starts    Starts            `json:"starts"`
	Locked    bool              `json:"locked"`
	CueReason string            `json:"cue_reason"`
}

// OldDose is a dose of version 1.
type OldDose struct {
	Sets     int          `json:"sets"`
	RepsLow  int          `json:"reps_low"`
	RepsHigh int          `json:"reps_high"`
	Reserve  int          `json:"reserve"`
	Reserves []int        `json:"reserves"` // set by set; the last one holds on
	RestS    int          `json:"rest_s"`
	Tempo    effort.Tempo `json:"tempo"`
	LoadKg   *float64     `json:"load_kg"` // what one hand carries; nil: to be found
	Method   dose.Use     `json:"method"`
}

// OldGrip is the whole set-up of one set of version 1.
type OldGrip struct {
	Movement string            `json:"movement"`
	Settings movement.Settings `json:"settings"`
}

// Methods that were one in version 1: a climb is rows now, joining is the combo's.
const oldPyramid = "pyramid"

func joining(method string) bool {
	return method == dose.SupersetSame || method == dose.Opposing || method == dose.ThreeInRow
}

func readOld(b []byte) (Session, error) {
	var old struct {
		WarmUpMin float64 `json:"warm_up_min"`
		Intent    string  `json:"intent"`
		Slots     []Old   `json:"slots"`
		Locked    bool    `json:"locked"`
	}
	if err := json.Unmarshal(b, &old); err != nil {
		return Session{}, err
	}
	out := Session{WarmUpMin: old.WarmUpMin, Intent: old.Intent, Locked: old.Locked}
	for i := range old.Slots {
		out.Slots = append(out.Slots, old.Slots[i].Slot())
	}
	out.FillCombos()
	return out, nil
}

// Slot is the slot of version 1 as rows: one for each run of sets with equal
// reserve and grip, a climb one for each set.
func (o *Old) Slot() Slot {
	out := Slot{ID: o.ID, Cues: o.Cues, Starts: o.Starts, Combo: o.Combo, Locked: o.Locked, CueReason: o.CueReason,
		own: asked{movement: o.Movement, settings: o.Settings}}
	d := dose.Dose{Sets: o.Dose.Sets, RepsLow: o.Dose.RepsLow, RepsHigh: o.Dose.RepsHigh, Reserve: o.Dose.Reserve, RestS: o.Dose.RestS,
		Tempo: o.Dose.Tempo, Load: dose.ToFind(), Method: o.Dose.Method}
	if o.Dose.LoadKg != nil {
		d.Load = dose.Kg(*o.Dose.LoadKg)
	}
	climb := 0
	switch {
	case joining(d.Method.ID):
		d.Method = dose.Use{}
	case d.Method.ID == oldPyramid:
		climb, d.Method = max(d.Method.N, 1), dose.Use{}
	}
	add := func(d dose.Dose, own asked) {
		if len(out.Rows) > 0 && climb == 0 {
			d.Load = nil // as the row above
		}
		out.Rows = append(out.Rows, Row{ID: rowID(o.ID, len(out.Rows)), Dose: d, own: own})
	}
	if len(o.Dose.Reserves) == 0 && len(o.Grips) == 0 && climb == 0 {
		add(d, asked{})
		return out
	}
	for n := range d.Each() {
		one, own := d, asked{}
		one.Sets = 1
		if k := len(o.Dose.Reserves); k > 0 {
			one.Reserve = o.Dose.Reserves[min(n, k-1)]
		}
		if k := len(o.Grips); k > 0 {
			g := o.Grips[min(n, k-1)]
			own = asked{g.Movement, g.Settings, true}
		}
		if climb > 0 && n > 0 {
			one.Load = dose.StepsOff(n * climb)
		}
		if last := len(out.Rows) - 1; climb == 0 && n > 0 && out.Rows[last].Reserve == one.Reserve && out.Rows[last].own.same(own) {
			out.Rows[last].Sets++
			continue
		}
		add(one, own)
	}
	if len(out.Rows) == 0 { // no sets at all: what was asked for stays to be seen
		add(d, asked{})
	}
	return out
}

func (a asked) same(b asked) bool {
	if a.movement != b.movement || len(a.settings) != len(b.settings) {
		return false
	}
	for k, v := range a.settings {
		if b.settings[k] != v {
			return false
		}
	}
	return true
}

// FillCombos makes the combos that slots name and the session has not, as in version
// 1, which gave them no rests of their own: between members the longest rest of all
// but the last, after a round the last's.
func (s *Session) FillCombos() {
	for first := 0; first < len(s.Slots); {
		last := first
		for last+1 < len(s.Slots) && s.Joined(last, last+1) {
			last++
		}
		if c := s.Slots[first].Combo; c != "" && s.ComboOf(c) == nil {
			between := 0
			for i := first; i < last; i++ {
				between = max(between, s.Slots[i].First().RestS)
			}
			s.Combos = append(s.Combos, Combo{ID: c, BetweenS: between, AfterS: s.Slots[last].First().RestS})
		}
		first = last + 1
	}
}
