package view

import (
	"strings"

	"musculus/internal/core/effort"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/series"
)

// VerdictView is what a client may do with a set-up, with the reasons.
type VerdictView struct {
	Ruling     string       `json:"ruling" enum:"allowed,modify,avoid"`
	Barred     bool         `json:"barred"` // not offered
	Reasons    []ReasonView `json:"reasons"`
	ByCaps     bool         `json:"by_caps"` // cannot be overridden
	Overridden string       `json:"overridden"`
}

// ReasonView is one thing that speaks against a set-up.
type ReasonView struct {
	Ruling string `json:"ruling" enum:"allowed,modify,avoid"`
	Words  string `json:"words"`
	// Follow is the set-up turned to what the reason asks for; absent where
	// nothing can be turned.
	Follow movement.Settings `json:"follow,omitempty"`
	Turn   string            `json:"turn"` // what that changes, in words
}

// LoadFit says whether a room's loads suit a set-up for the client.
type LoadFit struct {
	Fit     string   `json:"fit" enum:"not_known,too_heavy,fits,too_light"`
	Words   string   `json:"words"`
	Instead []string `json:"instead"`
}

// viewVerdict tells a verdict on a set-up.
func viewVerdict(set movement.SetUp, v *person.Verdict) VerdictView {
	out := VerdictView{Ruling: string(v.Ruling), Barred: v.Barred(), Reasons: []ReasonView{}, ByCaps: v.ByCaps, Overridden: v.Overridden}
	for i := range v.Reasons {
		r := &v.Reasons[i]
		line := ReasonView{Ruling: string(r.Ruling), Words: r.Words}
		if to, ok := r.Follow(set); ok && to.Key() != set.Key() {
			line.Follow, line.Turn = to.Turned(), turnWords(set, to)
		}
		out.Reasons = append(out.Reasons, line)
	}
	return out
}

// turnWords tells what differs between two set-ups of one movement.
func turnWords(from, to movement.SetUp) string {
	var out []string
	for i := range to.Movement.Settings {
		setting := &to.Movement.Settings[i]
		was, _ := from.Value(setting.Key)
		is, _ := to.Value(setting.Key)
		if was != is {
			out = append(out, strings.ToLower(setting.Label)+" "+setting.ValueWords(is))
		}
	}
	return strings.Join(out, ", ")
}

// Judged is the verdict on a set-up for a client, nil without one.
func Judged(f *person.Fence, set movement.SetUp, p *effort.Profile) *VerdictView {
	if f == nil {
		return nil
	}
	v := f.Judge(set, p)
	out := viewVerdict(set, &v)
	return &out
}

// FitOf views whether a room’s loads fit.
func FitOf(f series.Fitted) LoadFit {
	out := LoadFit{string(f.Fit), f.Words, f.Instead}
	if out.Instead == nil {
		out.Instead = []string{}
	}
	return out
}
