package words_test

import (
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/arm"
	"musculus/internal/core/movement"
	"musculus/internal/core/words"
)

// Ordinary words, and a movement that must be among the first three they find, or a
// question that is rightly asked (ids with ?), or a head that is meant (@).
const ordinary = `
hammer => curl_neutral
preacher => curl_pad_bar
spider => curl_chest_supported
concentration => ? curl_braced_thigh
incline curl => curl_reclined
drag curl => curl_drag
cross body => curl_neutral_across
pinwheel => curl_neutral_across
reverse curl => ? curl_palms_down_bar
cambered bar => curl_standing_bar
barbell => curl_standing_bar
dumbbell => curl_standing_dumbbells
cable curl => curl_cable_low
rope curl => curl_rope_neutral
high cable curl => curl_cable_arms_high
facing away => curl_cable_facing_away
skull crusher => lying_bar
nose breaker => lying_bar
lying extension => lying_bar
lying dumbbell extension => lying_dumbbells
overhead extension => ? overhead_cable_low
overhead rope => overhead_cable_low
pushdown => pushdown_bar
push-down => pushdown_bar
press down => pushdown_bar
rope pushdown => pushdown_rope
v-bar pushdown => pushdown_bar
underhand pushdown => pushdown_underhand
kickback => kickback_dumbbell
cable kickback => kickback_cable
rollback => rolling_dumbbells
floor extension => floor_dumbbells
close grip bench => press_bench_close
bench press => press_bench_wide
incline press => press_incline
decline press => press_decline
floor press => press_floor
pin press => press_pin_top
lockout => press_pin_top
dumbbell press => press_dumbbells_palms_down
shoulder press => press_overhead
push-up => pushup
diamond push-up => pushup_close
dip => ? dip_bars
bench dip => dip_bench
weighted dip => dip_weighted
assisted dip => dip_assisted
chin-up => pullup_underhand
pull-up => pullup_overhand
neutral pull-up => pullup_neutral
lat pulldown => pulldown_wide
cable row => row_neutral
row => ? row_neutral
curl => ? curl_standing_bar
extension => ? lying_bar
outer triceps => @triceps_lateral
short head => @biceps_short
brachialis => @brachialis
inner => ?
one arm push-down => pushdown_one_arm`

func TestOrdinaryWordsFindTheirMovement(t *testing.T) {
	r := reader(t)
	n := 0
	for _, line := range strings.Split(strings.TrimSpace(ordinary), "\n") {
		text, want, _ := strings.Cut(line, " => ")
		n++
		got := r.Find(text)
		var ids []string
		for _, s := range got.SetUps[:min(3, len(got.SetUps))] {
			ids = append(ids, s.Movement.ID)
		}
		require.NotEmpty(t, got.Line.Parts, text)
		switch {
		case strings.HasPrefix(want, "@"):
			h, _ := arm.HeadByID(want[1:])
			assert.Equal(t, []arm.HeadIndex{h}, got.Heads, text)
		case strings.HasPrefix(want, "?"):
			assert.NotEmpty(t, got.Line.Parts[0].Ask, text)
			if id := strings.TrimSpace(want[1:]); id != "" {
				all := got.Line.Parts[0].Choices
				assert.True(
					t,
					slices.ContainsFunc(all, func(s movement.SetUp) bool { return s.Movement.ID == id }),
					"%s: %v",
					text,
					ids,
				)
			}
		default:
			assert.Contains(t, ids, want, text)
		}
	}
	assert.Equal(t, 60, n)
}

// A word nobody knows is asked, and once it is told it is the studio's own; it never
// takes the place of a word that is known.
func TestAStudiosOwnWord(t *testing.T) {
	asked := reader(t).ReadLine("fluffy bar curl 3x10").Parts[0]
	assert.Equal(t, "which bar is “fluffy”?", asked.Ask)
	assert.Nil(t, asked.Movement)
	own := words.Own{Word: "fluffy", Implement: movement.BarCambered}
	require.Nil(t, own.Check(movement.Shipped))
	told := reader(t, own).ReadLine("fluffy bar curl 3x10").Parts[0]
	require.NotNil(t, told.Movement, told.Ask)
	assert.Equal(t, "curl_standing_bar?implement=bar_cambered", told.SetUp.Key())
	whole := words.Own{
		Word:     "house special",
		Movement: "curl_reclined",
		Settings: movement.Settings{movement.Bench: movement.Num(60)},
	}
	require.Nil(t, whole.Check(movement.Shipped))
	assert.Equal(t, "curl_reclined?bench=60", reader(t, whole).ReadLine("House specials 4x8").Parts[0].SetUp.Key())
	for _, bad := range []words.Own{
		{Word: "", Implement: movement.BarV}, {Word: "rope", Implement: movement.BarV}, {Word: "x", Implement: "chain"},
		{Word: "x", Movement: "nowhere"}, {Word: strings.Repeat("x", 41), Implement: movement.BarV},
	} {
		assert.NotNil(t, bad.Check(movement.Shipped), bad.Word)
	}
}

// Whatever comes is read without falling over, in bounds.
func FuzzReading(f *testing.F) {
	for _, line := range strings.Split(lines, "\n") {
		text, _, _ := strings.Cut(line, " => ")
		f.Add(text)
	}
	f.Add("\x01一\x01二 curl 999999999999999999x99999999999999999999 @1e400kg")
	f.Add("a+b/c,d;e&f " + strings.Repeat("+curl", 400))
	r := reader(f)
	f.Fuzz(func(t *testing.T, text string) {
		for _, l := range r.Read(text) {
			assert.LessOrEqual(t, len(l.Parts), 12)
			for i := range l.Parts {
				p := &l.Parts[i]
				assert.NotContains(t, p.Text, "\x01")
				assert.True(
					t,
					p.Movement != nil || p.Ask != "" || p.Counts != "",
					"%q: neither taken, asked nor counted",
					l.Text,
				)
				assert.GreaterOrEqual(t, p.Reps[1], p.Reps[0])
			}
		}
		r.Find(text)
	})
}

func BenchmarkReadLine(b *testing.B) {
	r := reader(b)
	all := strings.Split(lines, "\n")
	for i := 0; b.Loop(); i++ {
		text, _, _ := strings.Cut(all[i%len(all)], " => ")
		r.ReadLine(text)
	}
}

func BenchmarkWorstLine(b *testing.B) {
	r := reader(b)
	worst := strings.Repeat("qwertzuiop curl, ", 40)
	for b.Loop() {
		r.ReadLine(worst)
	}
}
