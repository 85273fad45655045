package week

import (
	"cmp"
	"fmt"
	"slices"

	"musculus/internal/core/fitting"
	"musculus/internal/core/movement"
)

// Fix is one action that clears a finding: the week after it, in words.
type Fix struct {
	Words string
	Week  Week
}

// Found is a finding of a week's audit.
type Found struct {
	Key      string // names what it is about; the same finding has the same key
	Code     string // of the rule
	Severity Severity
	Text     string
	Why      string
	Session  int   // index, −1 for the whole week
	Slot     int   // index in the session, −1 for all of it
	Fix      *Fix  // worked out for the findings that are shown
	Ways     []Way // of a clash of rules: what may give way
	Held     bool  // there is a fix, but what it changes is locked

	fix func() *Fix
}

// Limits of a week (settings of the field, not laws).
const (
	MostWeekSets    = 24 // hard sets of one muscle group
	mostJoint       = 45
	mostSoreJoint   = 25 // where the client scores the joint 1–3
	failureShare    = 1.0 / 3
	fewestFailures  = 4
	sameFor         = 56 // days
	heavyReps       = 8
	warmUpForDeep   = 3.0 // minutes
	mostSlotSets    = 5
	mostFixSteps    = 8
	mostAdded       = 3   // sets that a fix adds at once
	leastSetWorth   = 0.5 // effective sets of a hard set, for it to be a fix
	mostSessionFull = 10
)

// auditor gathers the findings of one week.
type auditor struct {
	week   *Week
	t      *Trainee
	shelf  *Shelf
	ledger *Ledger
	out    []Found
	// distance is how far the heads are from their targets, effective sets: what is
	// short, and what is over where that is not only from work for others.
	distance float64
	own      []ownFindings // by session
	stood    standing
	allowed  map[memoKey]bool // what the client may do in her room, as far as it was asked
	ways     map[*item]*item  // how what is on the shelf is held there
	clashes  bool             // targets and minutes cannot both be met
}

// MostShown is how many findings of a week a coach is shown at once; the gravest go
// first.
const MostShown = 40

// Audit looks a week over: every finding with a sentence and the reason, the gravest
// first. The first shown of them come with the action that clears them, where there
// is one. shelf may be nil: then nothing that needs another movement is offered.
func (w *Week) Audit(t *Trainee, shelf *Shelf, ledger *Ledger, shown int) []Found {
	a := &auditor{week: w, t: t, shelf: shelf, ledger: ledger, allowed: map[memoKey]bool{}, own: make([]ownFindings, len(w.Sessions))}
	if a.shelf == nil {
		a.shelf = &Shelf{}
	}
	a.look()
	a.stood = a.stands()
	order := []Severity{Stop, Warn, Note}
	slices.SortStableFunc(a.out, func(x, y Found) int {
		return cmp.Compare(slices.Index(order, x.Severity), slices.Index(order, y.Severity))
	})
	for i := range a.out[:min(shown, len(a.out))] {
		f := &a.out[i]
		f.Fix = f.fix()
		if f.Fix != nil && !a.week.keeps(&f.Fix.Week) { // what touches what is locked is no fix
			f.Fix, f.Held = nil, true
		}
		if f.Fix != nil && !a.lowers(f.Fix) { // what only moves the trouble is no fix
			f.Fix = nil
		}
	}
	return a.out
}

// look gathers the findings.
func (a *auditor) look() {
	for i := range a.week.Sessions {
		if !a.own[i].kept {
			before := len(a.out)
			a.session(i)
			a.own[i].tally(a.out[before:])
			a.own[i].late = countOf(a.out[before:], "minutes")
		}
	}
	if a.t.Aims != nil {
		a.targets()
		a.along()
		a.lengths()
		a.standingStill()
		a.unchanged()
	}
	a.spacing()
	a.groups()
	a.joints()
	a.failures()
	a.preferences()
	a.variety()
	a.weekdays()
	a.clash()
}

// add takes a finding in, with what works its fix out should it be shown.
func (a *auditor) add(f Found, fix func() *Fix) {
	f.fix = fix
	a.out = append(a.out, f)
}

// change makes the week after a change; nil when the change says it cannot be.
func (a *auditor) change(words string, do func(w *Week) bool) *Fix {
	next := a.week.clone()
	if !do(&next) {
		return nil
	}
	return &Fix{words, next}
}

func (w *Week) clone() Week {
	out := Week{Sessions: slices.Clone(w.Sessions)}
	for i := range out.Sessions {
		out.Sessions[i].Slots = slices.Clone(out.Sessions[i].Slots)
	}
	return out
}

func names(s movement.SetUp) string { return s.Title() }

// session takes a session's own findings and gives each its fix, then looks at
// its order and at ideas that come twice.
func (a *auditor) session(i int) {
	s := &a.week.Sessions[i]
	minutes := 0
	if a.t.Aims != nil {
		minutes = a.t.Aims.Minutes
	}
	for _, f := range a.t.Findings(&s.Session, a.ledger.Sessions[i], minutes) {
		if f.Code == "caps" {
			continue // said once for the client, not for every session
		}
		key := fmt.Sprintf("%s:%s", f.Code, s.ID.String())
		if f.Slot >= 0 {
			key += ":" + s.Slots[f.Slot].ID.String()
			if f.Code == "dose" {
				key += ":" + f.Text
			}
		}
		if f.Group != "" {
			key += ":" + f.Group
		}
		a.add(
			Found{Key: key, Code: f.Code, Severity: f.Severity, Text: s.Name + ": " + f.Text, Why: whys[f.Code], Session: i, Slot: f.Slot},
			func() *Fix {
				return a.fixOf(i, f)
			},
		)
	}
	a.twice(i)
	a.order(i)
	a.cold(i)
	a.grips(i)
	a.loads(i)
}

// twice finds two slots of one session that are one idea.
func (a *auditor) twice(i int) {
	s := &a.week.Sessions[i]
	shapes := make([]*fitting.Shape, len(s.Slots))
	for j := range s.Slots {
		shapes[j] = a.t.memo().look(s.Slots[j].SetUp).shape
	}
	for j := range shapes {
		for k := j + 1; k < len(shapes); k++ {
			if shapes[j] == nil || shapes[k] == nil || fitting.Distance(shapes[j], shapes[k]) >= fitting.SameIdea {
				continue
			}
			a.add(
				Found{
					Key:      "twice:" + s.Slots[j].ID.String() + ":" + s.Slots[k].ID.String(),
					Code:     "twice",
					Severity: Warn,
					Session:  i,
					Slot:     k,
					Why:      whys["twice"],
					Text: fmt.Sprintf(
						"%s: slots %d and %d are one idea twice (%s; %s).",
						s.Name,
						j+1,
						k+1,
						names(s.Slots[j].SetUp),
						names(s.Slots[k].SetUp),
					),
				},
				func() *Fix {
					return a.change(
						fmt.Sprintf(
							"Make them one: %d sets of %s",
							min(s.Slots[j].Sets()+s.Slots[k].Sets(), mostSlotSets),
							names(s.Slots[j].SetUp),
						),
						func(w *Week) bool {
							slot := &w.Sessions[i].Slots[j]
							slot.Add(min(slot.Sets()+w.Sessions[i].Slots[k].Sets(), mostSlotSets) - slot.Sets())
							a.t.clamp(&w.Sessions[i].Session, j)
							return w.takeOut(i, k)
						},
					)
				},
			)
		}
	}
}
