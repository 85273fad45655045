package formats_test

import (
	"bytes"
	"fmt"
	"math/rand/v2"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/dose"
	"musculus/internal/core/effort"
	"musculus/internal/core/movement"
	"musculus/internal/core/plan"
	"musculus/internal/formats"
)

// words that a spreadsheet, a parser or a careless reader may trip over.
var words = []string{
	"Gallery day",
	"=SUM(A1)",
	"+1",
	"-day",
	"@home",
	"a,b;c\td",
	"“quoted”",
	`say "stop"`,
	"ärm ☂",
	"'apostrophe",
	"| pipe |",
	" x ",
}

// randomPlan is a plan of anything that the format has a place for.
func randomPlan(r *rand.Rand) *formats.Plan {
	word := func() string { return strings.TrimSpace(words[r.IntN(len(words))]) }
	out := &formats.Plan{Format: formats.PlanFormat, Version: formats.PlanVersion}
	for i := range 1 + r.IntN(4) {
		s := formats.PlanSession{
			Name:      fmt.Sprintf("%s %d", word(), i),
			Date:      fmt.Sprintf("2026-11-%02d", 1+r.IntN(28)),
			Intent:    []string{"", "heavy", "light"}[r.IntN(3)],
			WarmUpMin: float64(r.IntN(20)) / 2,
		}
		for range 1 + r.IntN(5) {
			s.Slots = append(s.Slots, formats.PlanSlot{})
			slot := &s.Slots[len(s.Slots)-1]
			slot.Movement = "curl_reclined"
			for n := range 1 + r.IntN(3) {
				d := dose.Dose{Sets: 1 + r.IntN(6), RepsLow: 1 + r.IntN(20), Reserve: r.IntN(6), RestS: r.IntN(300)}
				d.RepsHigh = d.RepsLow + r.IntN(5)
				if r.IntN(3) == 0 {
					d.Tempo = effort.Tempo{float64(r.IntN(5)), 0.5, 1, 0}
				}
				if r.IntN(3) == 0 {
					d.Method = dose.Use{ID: "drops", N: r.IntN(4)}
				}
				if r.IntN(3) == 0 {
					d.Word = word()
				}
				one := row(d)
				kg := float64(1+r.IntN(400)) / 8
				marked := 2 * kg
				switch r.IntN(6) {
				case 0, 1:
					one.Load, one.LoadMarked = dose.Kg(kg), &marked
					one.LoadUnit = []string{"", "kg", "lb"}[r.IntN(3)]
				case 2:
					one.Load = dose.ToFind()
				case 3:
					if n > 0 {
						one.Load = &dose.Load{Share: float64(30+r.IntN(71)) / 100}
					}
				case 4:
					if n > 0 {
						one.Load = dose.StepsOff(r.IntN(11) - 5)
					}
				}
				if r.IntN(3) == 0 {
					one.Movement, one.Settings = []string{"", "curl_neutral"}[r.IntN(2)], movement.Settings{
						movement.PhiFrom: movement.Num(-40),
					}
				}
				slot.Rows = append(slot.Rows, one)
			}
			if r.IntN(2) == 0 {
				slot.Settings = movement.Settings{
					movement.Bench: movement.Num(float64(45 + 5*r.IntN(6))),
					movement.Hands: movement.Word([]string{"one", "both"}[r.IntN(2)]),
				}
			}
			if r.IntN(3) == 0 {
				slot.Combo = fmt.Sprint("c", r.IntN(3))
				if !slices.ContainsFunc(s.Combos, func(c plan.Combo) bool { return c.ID == slot.Combo }) {
					s.Combos = append(
						s.Combos,
						plan.Combo{
							ID:       slot.Combo,
							BetweenS: r.IntN(90),
							AfterS:   r.IntN(200),
							Loads:    []plan.Loads{"", plan.OwnLoads, plan.OneLoad}[r.IntN(3)],
						},
					)
				}
			}
			slot.Starts = []plan.Starts{"", plan.StartsLeft, plan.StartsRight}[r.IntN(3)]
			slot.Locked = r.IntN(3) == 0
			for range r.IntN(3) {
				if c := word(); c != "" {
					slot.Cues = append(slot.Cues, c)
				}
			}
		}
		out.Sessions = append(out.Sessions, s)
	}
	return out
}

// Whatever a plan says comes back from every format, and no cell of a table is one
// that a spreadsheet would run.
func TestAnyPlanComesBack(t *testing.T) {
	r := rand.New(rand.NewPCG(11, 26))
	for range 60 {
		written := randomPlan(r)
		for name, f := range map[string]struct {
			write func(*bytes.Buffer) error
			read  func([]byte) formats.PlanRead
		}{
			"json": {func(b *bytes.Buffer) error { return formats.WritePlanJSON(b, written) }, formats.ReadPlanJSON},
			"csv":  {func(b *bytes.Buffer) error { return formats.WritePlanCSV(b, written) }, formats.ReadPlanCSV},
			"xlsx": {func(b *bytes.Buffer) error { return formats.WritePlanXLSX(b, written) }, formats.ReadPlanXLSX},
		} {
			var b bytes.Buffer
			require.NoError(t, f.write(&b), name)
			got := f.read(b.Bytes())
			require.Empty(t, got.Problems, name)
			require.Empty(t, got.Unknown, name)
			require.Len(t, got.Plan.Sessions, len(written.Sessions), name)
			for i, want := range bare(written.Sessions) {
				have := got.Plan.Sessions[i]
				assert.Equal(t, [3]any{want.Name, want.Date, want.Intent}, [3]any{have.Name, have.Date, have.Intent}, name)
				require.Len(t, have.Slots, len(want.Slots), name)
				assert.Equal(t, want.Combos, have.Combos, name)
				for j, slot := range want.Slots {
					assert.Equal(t, slot, bare([]formats.PlanSession{have})[0].Slots[j], "%s: %s", name, want.Name)
				}
			}
			if name != "csv" {
				continue
			}
			for _, line := range strings.Split(b.String(), "\n") {
				for _, start := range []string{",=", ",+", ",@", `,"=`, `,"+`, `,"@`} {
					assert.NotContains(t, line, start)
				}
				assert.False(t, strings.HasPrefix(line, "=") || strings.HasPrefix(line, "+") || strings.HasPrefix(line, "@"), line)
			}
		}
	}
}

// Whatever bytes come in, reading answers: with sessions, or with what was not
// understood; never with nothing and never by falling over.
func TestAnyBytesAreAnswered(t *testing.T) {
	r := rand.New(rand.NewPCG(26, 11))
	var whole [3]bytes.Buffer
	written := randomPlan(r)
	require.NoError(t, formats.WritePlanJSON(&whole[0], written))
	require.NoError(t, formats.WritePlanCSV(&whole[1], written))
	require.NoError(t, formats.WritePlanXLSX(&whole[2], written))
	for i, read := range []func([]byte) formats.PlanRead{formats.ReadPlanJSON, formats.ReadPlanCSV, formats.ReadPlanXLSX} {
		for range 300 {
			b := bytes.Clone(whole[i].Bytes())
			switch r.IntN(4) {
			case 0: // cut off
				b = b[:r.IntN(len(b))]
			case 1: // garbled
				for range 1 + r.IntN(20) {
					b[r.IntN(len(b))] = byte(r.IntN(256))
				}
			case 2: // a piece twice
				at := r.IntN(len(b))
				b = append(b[:at:at], append(bytes.Clone(b[at/2:at]), b[at:]...)...)
			case 3: // nothing like it
				b = make([]byte, r.IntN(200))
				for k := range b {
					b[k] = byte(r.IntN(256))
				}
			}
			got := read(b)
			assert.True(
				t,
				len(got.Plan.Sessions) > 0 || len(got.Problems) > 0 || bytes.Contains(b, []byte(`"sessions"`)) ||
					bytes.HasPrefix(b, []byte("session")),
				"%q",
				b,
			)
			assert.LessOrEqual(t, len(got.Plan.Sessions), formats.MostSessions)
		}
	}
}
