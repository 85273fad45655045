package view

import (
	"math"
	"slices"

	"musculus/internal/core/arm"
	"musculus/internal/core/dose"
	"musculus/internal/core/effort"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/stance"
	"musculus/internal/core/week"
	"musculus/internal/figure"
)

// HeadView is one head's number in a picture.
type HeadView struct {
	ID      string  `json:"id"`
	Code    string  `json:"code"`
	Name    string  `json:"name"`
	Value   float64 `json:"value"`
	Low     float64 `json:"low"`
	High    float64 `json:"high"`
	Level   float64 `json:"level"` // how far its region is filled, 0…1
	Leading bool    `json:"leading"`
}

// SliceView is what a slice shows.
type SliceView struct {
	Heads []HeadView `json:"heads"`
	Text  string     `json:"text"`
}

// Glyph is the picture pair of a list: slice and ribbon.
type Glyph struct {
	Slice  SliceView      `json:"slice"`
	Ribbon *figure.Ribbon `json:"ribbon,omitempty"` // absent for graded work
}

// BiasView is what a set-up gives one head.
type BiasView struct {
	HeadView
	Agonist    bool       `json:"agonist"`
	Base       float64    `json:"base"`    // the stance's bias before its rules
	Formula    string     `json:"formula"` // how the bar comes from the profile, in numbers; empty for graded work
	Hollow     float64    `json:"hollow"`  // where rules whose mechanism does not hold would put it
	Terms      []TermView `json:"terms"`
	Share      float64    `json:"share"`
	Plain      float64    `json:"plain"`
	Stretch    float64    `json:"stretch"`
	Squeeze    float64    `json:"squeeze"`
	MeanLength *float64   `json:"mean_length"`
	Zone       *string    `json:"zone" enum:"short,middle,long"`
	Credit     float64    `json:"credit"` // effective sets a hard set gives
}

// TermView is one rule's part in a number.
type TermView struct {
	Rule      string  `json:"rule"`
	Says      string  `json:"says"`
	Grade     string  `json:"grade"`
	Mechanism string  `json:"mechanism"`
	Why       string  `json:"why"`
	Factor    float64 `json:"factor"`
	Counts    bool    `json:"counts"`
}

// ControlView is one setting as it can be turned.
type ControlView struct {
	Key     string       `json:"key"`
	Label   string       `json:"label"`
	Words   string       `json:"words"` // the value as it is read
	Value   any          `json:"value"`
	Turned  bool         `json:"turned"` // differs from the default
	Held    bool         `json:"held"`   // how it is held in the hand: moves no head, but is a series of its own
	Min     *float64     `json:"min"`
	Max     *float64     `json:"max"`
	Step    *float64     `json:"step"`
	Choices []ChoiceView `json:"choices"` // empty for numbers
	Down    *float64     `json:"down"`    // the next value below, null at the limit
	Up      *float64     `json:"up"`
}

// ChoiceView is one word of a choice.
type ChoiceView struct {
	Value string `json:"value"`
	Words string `json:"words"`
}

// SetUpView is a set-up with everything that is shown of it.
type SetUpView struct {
	Movement string            `json:"movement"`
	Series   string            `json:"series"`
	Name     string            `json:"name"`
	Title    string            `json:"title"`
	Details  string            `json:"details"`
	Settings movement.Settings `json:"settings"`
	Stance   string            `json:"stance"`
	Computed bool              `json:"computed"`
	Refused  string            `json:"refused"`
	Slice    SliceView         `json:"slice"`
	Bias     []BiasView        `json:"bias"`
	Load     string            `json:"load_words"`
	Hardest  *float64          `json:"hardest_at"`
	Does     []string          `json:"does"`
	Cautions []string          `json:"cautions"`
	Caveat   string            `json:"caveat"`
	Grade    string            `json:"grade"`
	Stop     string            `json:"stop"`
	Ribbon   *figure.Ribbon    `json:"ribbon,omitempty"`
	Pose     figure.Pose       `json:"pose"`
	Controls []ControlView     `json:"controls"`
	Verdict  *VerdictView      `json:"verdict,omitempty"` // for a client
}

// Round4 rounds to what is sent: four places.
func Round4(x float64) float64 { return math.Round(x*1e4) / 1e4 }

// Levels is a fill of every head by its value.
func Levels(values [arm.HeadCount]float64, level func(float64) float64) (out [arm.HeadCount]float64) {
	for h, v := range values {
		out[h] = level(v)
	}
	return out
}

// FillOf is how far a reading fills each head: on the figure's arm as on the slice.
func FillOf(r *stance.Reading) *figure.Fill {
	if r == nil {
		return nil
	}
	var bars [arm.HeadCount]float64
	for h := range r {
		bars[h] = r[h].Bar
	}
	out := Levels(bars, figure.BiasLevel)
	return &out
}

// SliceOf fills a slice from one number and one fill a head.
func SliceOf(what string, mid, low, high, fill [arm.HeadCount]float64) SliceView {
	out := SliceView{Text: figure.SliceText(what, mid), Heads: make([]HeadView, arm.HeadCount)}
	lead, most := -1, 0.0
	for i, v := range mid {
		h := &arm.Heads[i]
		out.Heads[i] = HeadView{
			ID:    h.ID,
			Code:  h.Code,
			Name:  h.Name,
			Value: Round4(v),
			Low:   Round4(low[i]),
			High:  Round4(high[i]),
			Level: Round4(fill[i]),
		}
		if v > most+1e-9 {
			lead, most = i, v
		}
	}
	if lead >= 0 {
		out.Heads[lead].Leading = true
	}
	return out
}

// SetsSlice fills a slice with effective sets.
func SetsSlice(what string, heads [arm.HeadCount]week.Effective) SliceView {
	var mid, low, high [arm.HeadCount]float64
	for i, h := range heads {
		mid[i], low[i], high[i] = h.Mid, h.Low, h.High
	}
	return SliceOf(what, mid, low, high, Levels(mid, figure.SetsLevel))
}

// BiasSlice fills a slice with a reading: the bar, and the whisker over all
// stances (for graded work the credit's range).
func BiasSlice(s movement.SetUp, r *stance.Reading) SliceView {
	what := "Bias against the plain movement"
	if !s.Movement.Computed() {
		what = "Graded credit per hard set"
	}
	var mid, low, high [arm.HeadCount]float64
	for i, b := range r {
		mid[i], low[i], high[i] = b.Bar, b.Low, b.High
	}
	return SliceOf(what, mid, low, high, Levels(mid, figure.BiasLevel))
}

// GlyphOf views a set-up in small: its slice and, where it is computed, its ribbon.
func GlyphOf(s movement.SetUp, p *effort.Profile, r *stance.Reading) Glyph {
	out := Glyph{Slice: BiasSlice(s, r)}
	if p != nil {
		r := figure.MakeRibbon(p)
		r.Reads = []figure.Read{} // only the full ribbon is pointed at
		out.Ribbon = &r
	}
	return out
}

// SetUpOf makes the full view of a set-up for a body under a stance, with a
// client's fence (nil: nobody's).
func SetUpOf(s movement.SetUp, y *effort.Yardstick, st *stance.Stance, fence *person.Fence) SetUpView {
	m := s.Movement
	out := SetUpView{Movement: m.ID, Series: s.Key(), Name: s.Name(), Title: s.Title(), Details: s.Details(), Settings: s.Turned(),
		Stance: st.Name, Computed: m.Computed(), Does: []string{}, Cautions: s.Cautions(), Caveat: m.Caveat(), Stop: m.Stop,
		Bias: make([]BiasView, arm.HeadCount)}
	if out.Cautions == nil {
		out.Cautions = []string{}
	}
	var p *effort.Profile
	if m.Computed() {
		var err error
		if p, err = s.Profile(y); err != nil {
			out.Refused = err.Error()
		}
	} else {
		out.Grade = m.Graded.Grade
	}
	reading := stance.Shipped.Read(st, s, p)
	out.Slice = BiasSlice(s, &reading)
	for i := range out.Bias {
		b := &out.Bias[i]
		b.HeadView = out.Slice.Heads[i]
		b.Credit = Round4(dose.SetCredit(b.Value))
		b.Base, b.Hollow, b.Terms = Round4(reading[i].Base), Round4(reading[i].Hollow), []TermView{}
		for _, t := range reading[i].Terms {
			b.Terms = append(
				b.Terms,
				TermView{t.Rule.ID, t.Rule.Says, t.Rule.Grade, t.Rule.Mechanism, t.Rule.Why, Round4(t.Factor), t.Counts},
			)
		}
		b.Agonist = b.Value > 0
		if p != nil {
			h := &p.Heads[i]
			b.Agonist, b.Share, b.Plain = h.Agonist, Round4(h.Share), Round4(h.Plain)
			b.Stretch, b.Squeeze = Round4(h.Stretch), Round4(h.Squeeze)
			if h.Agonist {
				b.Formula = st.BaseWords(h, reading[i])
				mean, zone := Round4(h.Mean), string(h.Zone)
				b.MeanLength, b.Zone = &mean, &zone
			}
		}
	}
	if p != nil {
		at := p.HardestAt()
		r := figure.MakeRibbon(p)
		out.Load, out.Hardest, out.Does, out.Ribbon = movement.LoadWords(p), &at, movement.Tell(p), &r
	}
	out.Pose = figure.MakePose(s, y.Body(), p, FillOf(&reading))
	out.Controls = controls(s)
	out.Verdict = Judged(fence, s, p)
	return out
}

func controls(s movement.SetUp) []ControlView {
	out := []ControlView{}
	turned := s.Turned()
	for i := range s.Movement.Settings {
		setting := &s.Movement.Settings[i]
		if !s.Uses(setting.Key) {
			continue
		}
		v, _ := s.Value(setting.Key)
		_, differs := turned[setting.Key]
		c := ControlView{
			Key:     string(setting.Key),
			Label:   setting.Label,
			Words:   setting.ValueWords(v),
			Value:   v.Plain(),
			Turned:  differs,
			Held:    setting.Key.IsHeld(),
			Choices: []ChoiceView{},
		}
		if setting.IsWord() {
			for _, w := range setting.Choices {
				c.Choices = append(c.Choices, ChoiceView{w, movement.ChoiceWords(setting.Key, w)})
			}
		} else {
			c.Min, c.Max, c.Step = &setting.Min, &setting.Max, &setting.Step
			steps := setting.Steps()
			here, _ := slices.BinarySearch(steps, v.Number-1e-9)
			if here > 0 && allowed(s, setting.Key, steps[here-1]) {
				c.Down = &steps[here-1]
			}
			if here < len(steps)-1 && allowed(s, setting.Key, steps[here+1]) {
				c.Up = &steps[here+1]
			}
		}
		out = append(out, c)
	}
	return out
}

// allowed says whether a setting could be turned to a value, the others staying.
func allowed(s movement.SetUp, k movement.Key, x float64) bool {
	_, err := s.With(k, movement.Num(x))
	return err == nil
}
