package formats

import (
	"bufio"
	"fmt"
	"io"
	"slices"
	"time"

	"musculus/internal/core/draft"
)

// MostDraftExamples bounds how many problems are made up at once.
const MostDraftExamples = 1000

// Drafts answers problems with composed weeks.
type Drafts struct {
	Way   draft.Way
	Seed  uint64
	Steps int // 0: as on the board
	Now   func() time.Time
}

// DraftAnswer is a composed week as it is written.
type DraftAnswer struct {
	Name       string     `json:"name,omitempty"`
	Way        draft.Way  `json:"way"`
	Objective  float64    `json:"objective"`
	Steps      int        `json:"steps"`
	Seconds    float64    `json:"seconds"`
	Infeasible []string   `json:"infeasible"`
	Empty      string     `json:"empty,omitempty"`
	Days       []DraftDay `json:"days"`
	GivesUp    []string   `json:"gives_up"`
}

// DraftDay is a day of it.
type DraftDay struct {
	Name  string      `json:"name"`
	Slots []DraftSlot `json:"slots"`
}

// DraftSlot is a set-up with its sets.
type DraftSlot struct {
	Candidate string `json:"candidate"`
	Sets      int    `json:"sets"`
	Carries   string `json:"carries"`
}

// Check refuses a way there is not.
func (d *Drafts) Check() error {
	if !slices.Contains(draft.Ways, d.Way) {
		return fmt.Errorf("there is no way %q: %v", d.Way, draft.Ways)
	}
	return nil
}

// Answer composes the week of one problem, a line of JSON.
func (d *Drafts) Answer(line []byte) (any, error) {
	p, err := draft.ReadProblem(line)
	if err != nil {
		return nil, err
	}
	begun := d.Now()
	steps := d.Steps
	if steps <= 0 {
		steps = draft.Final.Steps(p)
	}
	e := draft.Effort{Steps: steps, Seed: d.Seed}
	if d.Way == draft.LeastTime && p.AtMost == nil { // within what the first week lacks
		first := draft.Search(p, draft.Robust, e, nil)
		p = p.Within(&first)
	}
	w := draft.Search(p, d.Way, e, nil)
	out := DraftAnswer{Name: p.Name, Way: d.Way, Objective: w.Objective, Steps: w.Steps, Seconds: d.Now().Sub(begun).Seconds(),
		Infeasible: []string{}, Empty: draft.Empty(p), Days: []DraftDay{}, GivesUp: []string{}}
	for _, c := range draft.Clashes(p) {
		out.Infeasible = append(out.Infeasible, c.Words)
	}
	whys := draft.Whys(p, d.Way, &w)
	for i := range w.Days {
		day := DraftDay{Name: p.Days[i].Name, Slots: []DraftSlot{}}
		for k, s := range w.Days[i] {
			day.Slots = append(day.Slots, DraftSlot{p.Candidates[s.Candidate].ID, s.Sets, whys[i][k].Carries})
		}
		out.Days = append(out.Days, day)
	}
	for _, g := range draft.GivesUp(p, &w) {
		out.GivesUp = append(out.GivesUp, g.Words)
	}
	return out, nil
}

// longestProblem is how long a line with a problem may be, bytes.
const longestProblem = 8 << 20

// WriteLP writes the first problem that is read for an outside solver.
func (d *Drafts) WriteLP(r io.Reader, w io.Writer) error {
	lines := bufio.NewScanner(r)
	lines.Buffer(nil, longestProblem)
	for lines.Scan() {
		if len(lines.Bytes()) == 0 {
			continue
		}
		p, err := draft.ReadProblem(lines.Bytes())
		if err != nil {
			return err
		}
		if d.Way == draft.LeastTime && p.AtMost == nil {
			first := draft.Search(p, draft.Robust, draft.Effort{Steps: draft.Final.Steps(p), Seed: d.Seed}, nil)
			p = p.Within(&first)
		}
		return draft.WriteLP(w, p, d.Way)
	}
	if err := lines.Err(); err != nil {
		return err
	}
	return fmt.Errorf("there is no problem to write")
}
