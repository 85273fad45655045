package week

import (
	"fmt"
	"math"

	"github.com/google/uuid"

	"musculus/internal/core/arm"
	"musculus/internal/core/dose"
	"musculus/internal/core/movement"
	"musculus/internal/core/plan"
	"musculus/internal/core/priority"
	"musculus/internal/core/week"
	"musculus/internal/httpapi/op"
	"musculus/internal/store"
	"musculus/internal/view"
)

// LedgerView is what a week comes to.
type LedgerView struct {
	Heads     []LedgerHead   `json:"heads"`
	Slice     view.SliceView `json:"slice"` // filled by the week against its targets
	Flexors   int            `json:"hard_sets_flexors"`
	Extensors int            `json:"hard_sets_extensors"`
	MostGroup int            `json:"most_group_sets"`
	HardWhy   string         `json:"hard_why"`    // which slots the hard sets are in
	Over      []string       `json:"over_groups"` // muscle groups over it
	Failures  int            `json:"failure_sets"`
	Minutes   float64        `json:"minutes"` // of all sessions
	WarmUp    float64        `json:"warm_up"` // minutes of them
	Spent     string         `json:"spent"`   // what the minutes are made of
	Joints    []LedgerJoint  `json:"joints"`
}

// LedgerHead is one head's line.
type LedgerHead struct {
	ID        string       `json:"id"`
	Code      string       `json:"code"`
	Name      string       `json:"name"`
	Direct    float64      `json:"direct"`
	Elsewhere float64      `json:"elsewhere"`
	Total     float64      `json:"total"`
	Low       float64      `json:"low"` // by the least of the stances
	High      float64      `json:"high"`
	From      float64      `json:"target_low"`
	To        float64      `json:"target_high"`
	Level     string       `json:"level" enum:"maintain,build,prioritise"`
	Band      string       `json:"band"`           // where the target comes from
	Sum       string       `json:"sum"`            // what the terms add up to, where rounding hides it
	Short     bool         `json:"short"`          // under its target
	Lengths   []LengthOf   `json:"lengths"`        // short, middle, long
	Terms     []AddendView `json:"terms"`          // what the total adds up from
	Done      *HeadDone    `json:"done,omitempty"` // once something of the week is done, or past
}

// AddendView is one addend of a head's effective sets.
type AddendView struct {
	Session *uuid.UUID `json:"session"` // null: done elsewhere
	Slot    *uuid.UUID `json:"slot"`
	Words   string     `json:"words"`
	Value   float64    `json:"value"`
	Rules   []RuleTerm `json:"rules"` // that tilt the bias
}

// RuleTerm is a rule's part in an addend; its card is under Stances.
type RuleTerm struct {
	Rule  string `json:"rule"`
	Words string `json:"words"`
}

// LengthOf is what a head gets at one length.
type LengthOf struct {
	Name    string  `json:"name" enum:"short,middle,long"`
	Sets    float64 `json:"sets"`
	Covered bool    `json:"covered"`
}

// LedgerJoint is how much of its week's budget a joint carries.
type LedgerJoint struct {
	Name string `json:"name"`
	Load int    `json:"load"`
	Most int    `json:"most"`
	Over bool   `json:"over"`

	Terms []AddendView `json:"terms"` // by slot: hard sets times the score of the movement
}

func viewLedger(a *op.AuditedWeek, kept []store.Session) LedgerView {
	t, l := a.T, &a.Ledger
	out := LedgerView{
		Heads:     []LedgerHead{},
		Flexors:   l.Flexors,
		Extensors: l.Extensors,
		MostGroup: a.T.MostSets(),
		Over:      l.OverGroups(a.T),
		HardWhy: fmt.Sprintf("Hard sets, with at most %d left. Bending: %s. Straightening: %s.",
			dose.MostHard, a.Week.HardWords(plan.Flexors), a.Week.HardWords(plan.Extensors)),
		Failures: l.Failures,
		Joints:   []LedgerJoint{},
	}
	var mid, low, high, fill [arm.HeadCount]float64
	for h := range l.Heads {
		line, head := &l.Heads[h], &arm.Heads[h]
		v := LedgerHead{
			ID:        head.ID,
			Code:      head.Code,
			Name:      head.Name,
			Direct:    view.Round4(line.Direct.Mid),
			Elsewhere: view.Round4(line.Elsewhere.Mid),
			Total:     view.Round4(line.Total.Mid),
			Low:       view.Round4(line.Total.Low),
			High:      view.Round4(line.Total.High),
			From:      view.Round4(line.Target.Low),
			To:        view.Round4(line.Target.High),
			Level:     string(line.Level),
			Short:     line.Short(),
			Band:      priority.BandWords(line.Level, t.Aims != nil && t.Aims.FirstYear),
			Lengths:   []LengthOf{},
			Terms:     []AddendView{},
		}
		for _, term := range a.Week.Terms(t, l, arm.HeadIndex(h)) {
			tv := addend(term, kept)
			for _, r := range term.Rules {
				if !r.Counts {
					continue
				}
				tv.Rules = append(tv.Rules, RuleTerm{r.Rule.ID, fmt.Sprintf("×%.2f %s (grade %s)", r.Factor, r.Rule.Says, r.Rule.Grade)})
			}
			v.Terms = append(v.Terms, tv)
		}
		v.Sum = sumWords(v.Terms, v.Total)
		for z, name := range []string{"short", "middle", "long"} {
			v.Lengths = append(v.Lengths, LengthOf{name, view.Round4(line.Zones[z]), line.Covered(z)})
		}
		out.Heads = append(out.Heads, v)
		mid[h], low[h], high[h] = line.Total.Mid, line.Total.Low, line.Total.High
		fill[h] = min(line.Total.Mid/line.Target.Low, 1)
	}
	out.Slice = view.SliceOf("Effective sets of the week", mid, low, high, fill)
	var spent week.Spent
	for i := range l.Sessions {
		out.Minutes += l.Sessions[i].Minutes
		out.WarmUp += l.Sessions[i].WarmUp
		spent.Add(l.Sessions[i].Spent)
	}
	out.Spent = spent.Words()
	out.Minutes, out.WarmUp = view.Round4(out.Minutes), view.Round4(out.WarmUp)
	for _, j := range movement.Joints {
		joint := LedgerJoint{j.Words(), l.Joints.Of(j), t.MostJoint(j), l.Joints.Of(j) > t.MostJoint(j), []AddendView{}}
		for _, term := range a.Week.JointTerms(j) {
			joint.Terms = append(joint.Terms, addend(term, kept))
		}
		out.Joints = append(out.Joints, joint)
	}
	return out
}

// addend views a term without its rules.
func addend(term week.Term, kept []store.Session) AddendView {
	out := AddendView{Words: term.Words, Value: view.Round4(term.Value), Rules: []RuleTerm{}}
	if term.Session >= 0 {
		out.Session, out.Slot = &kept[term.Session].ID, &kept[term.Session].Slots[term.Slot].ID
	}
	return out
}

// sumWords says what addends come to where the tenths shown do not add up to the tenths of
// their sum; "" where they do.
func sumWords(terms []AddendView, sum float64) string {
	tenths := 0.0
	for _, t := range terms {
		tenths += math.Round(10 * t.Value)
	}
	if tenths == math.Round(10*sum) {
		return ""
	}
	return fmt.Sprintf("each part is rounded, and what gives under 0.05 is not listed: unrounded it is %.2f", sum)
}
