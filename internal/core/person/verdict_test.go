package person_test

import (
	"math/rand/v2"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/arm"
	"musculus/internal/core/effort"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
)

func yardstick(t testing.TB) *effort.Yardstick {
	y, err := effort.NewYardstick(arm.DefaultBody)
	require.NoError(t, err)
	return y
}

func sore(j movement.Joint, score int) person.Scores {
	return person.Scores{person.Left: {}, person.Right: {j: score}}
}

func judged(t testing.TB, y *effort.Yardstick, s movement.SetUp, scores person.Scores) person.Verdict {
	var p *effort.Profile
	if s.Movement.Computed() {
		var err error
		p, err = s.Profile(y)
		require.NoError(t, err, s.Name())
	}
	return person.Judge(s, p, scores, person.Mobility{}, person.Caps{})
}

func num(k movement.Key, x float64) map[movement.Key]movement.Value {
	return map[movement.Key]movement.Value{k: movement.Num(x)}
}

// The rules of the joint record, one set-up each.
func TestVerdicts(t *testing.T) {
	y := yardstick(t)
	for name, c := range map[string]struct {
		id     string
		turned map[movement.Key]movement.Value
		joint  movement.Joint
		score  int
		want   person.Ruling
		says   string
	}{
		"a whisper of an ache changes nothing": {"curl_pad_bar", nil, movement.ElbowFront, 1, person.Allowed, ""},
		"a pad is avoided with a sore elbow":   {"curl_pad_bar", nil, movement.ElbowFront, 2, person.Avoid, "loads it 3 of 3"},
		"the steep side is gentler":            {"curl_pad_steep_side", nil, movement.ElbowFront, 2, person.Modify, "tendon"},
		"a flat bench is modified to a steeper one": {"curl_reclined", num(movement.Bench, 50), movement.ShoulderFront, 2,
			person.Avoid, "behind the body"},
		"a steep bench stays two of three": {"curl_reclined", num(movement.Bench, 65), movement.ShoulderFront, 2,
			person.Modify, "loads it 2 of 3"},
		"over three ends it": {"curl_reclined", num(movement.Bench, 65), movement.ShoulderFront, 4,
			person.Avoid, "4 of 10"},
		"one of three over three is lightened": {"curl_neutral", nil, movement.ShoulderFront, 4, person.Modify, "lighter"},
		"a bench dip":                          {"dip_bench", nil, movement.ShoulderFront, 2, person.Avoid, "Bench dips"},
		"a dip below level": {"dip_bars", num(movement.Depth, 10), movement.ShoulderFront, 2,
			person.Avoid, "below a level upper arm"},
		"a deep overhead extension is cut": {"overhead_cable_low", nil, movement.ElbowBack, 2, person.Modify, "past 110°"},
		"drifting elbows overhead": {"overhead_one_dumbbell_two_hands", nil, movement.ShoulderTop, 2,
			person.Modify, "loads it 2 of 3"},
		"a straight bar on a sore wrist": {"curl_standing_bar", nil, movement.Wrist, 3, person.Modify, "straight bar"},
		"a cambered bar on a sore wrist": {"curl_standing_bar",
			map[movement.Key]movement.Value{movement.Implement: movement.Word("bar_cambered")}, movement.Wrist, 3, person.Allowed, ""},
		"a narrow grip on a sore wrist": {"curl_standing_bar",
			map[movement.Key]movement.Value{movement.Implement: movement.Word("bar_cambered"), movement.GripWidth: movement.Num(0.7)},
			movement.Wrist, 3, person.Modify, "narrower"},
		"a press spares nothing of a shoulder over 3": {"press_bench_close", nil, movement.ShoulderFront, 4, person.Avoid, "loads it 2"},
	} {
		s, err := movement.Shipped.Get(c.id).SetUp(c.turned)
		require.NoError(t, err, name)
		v := judged(t, y, s, sore(c.joint, c.score))
		assert.Equal(t, c.want, v.Ruling, "%s: %v", name, v.Reasons)
		var words []string
		for _, r := range v.Reasons {
			words = append(words, r.Words)
		}
		assert.Contains(t, strings.Join(words, " "), c.says, name)
	}
}

func TestMobilityAndCaps(t *testing.T) {
	two := movement.Shipped.Get("overhead_two_dumbbells").Default()
	one := movement.Shipped.Get("overhead_one_dumbbell_two_hands").Default()
	assert.Equal(t, person.Avoid, person.Judge(two, nil, nil, person.Mobility{TwoWeights: "no"}, person.Caps{}).Ruling)
	assert.Equal(t, person.Allowed, person.Judge(one, nil, nil, person.Mobility{TwoWeights: "no"}, person.Caps{}).Ruling)
	assert.Equal(t, person.Avoid, person.Judge(one, nil, nil, person.Mobility{OneWeight: "no"}, person.Caps{}).Ruling)
	bars, loaded := movement.Shipped.Get("dip_bars").Default(), movement.Shipped.Get("dip_weighted").Default()
	assert.Equal(t, person.Avoid, person.Judge(bars, nil, nil, person.Mobility{DipLevel: "assisted"}, person.Caps{}).Ruling)
	assert.Equal(t, person.Allowed, person.Judge(bars, nil, nil, person.Mobility{DipLevel: "assisted", CleanDips: 4}, person.Caps{}).Ruling)
	assert.Equal(t, person.Avoid, person.Judge(loaded, nil, nil, person.Mobility{DipLevel: "bars", CleanDips: 9}, person.Caps{}).Ruling)
	assert.Equal(t, person.Allowed, person.Judge(loaded, nil, nil, person.Mobility{DipLevel: "bars", CleanDips: 10}, person.Caps{}).Ruling)
	late := person.CapsOf([]person.CapID{person.PregnantLate})
	assert.Equal(t, person.Avoid, person.Judge(movement.Shipped.Get("lying_bar").Default(), nil, nil, person.Mobility{}, late).Ruling)
	assert.Equal(
		t,
		person.Allowed,
		person.Judge(movement.Shipped.Get("incline_dumbbells").Default(), nil, nil, person.Mobility{}, late).Ruling,
	)
}

var strictness = map[person.Ruling]int{person.Allowed: 0, person.Modify: 1, person.Avoid: 2}

// Over the catalogue with random records: a mirrored client gets the same
// verdict, a higher score never a laxer one, and a modification that can be
// followed leads to a set-up that is not judged more strictly.
func TestVerdictsOverTheCatalogue(t *testing.T) {
	y := yardstick(t)
	r := rand.New(rand.NewPCG(5, 6))
	followed := 0
	for range 25 {
		scores := person.Scores{person.Left: {}, person.Right: {}}
		for _, j := range movement.Joints {
			scores[person.Left][j], scores[person.Right][j] = r.IntN(6), r.IntN(6)
		}
		mirrored := person.Scores{person.Left: scores[person.Right], person.Right: scores[person.Left]}
		j := movement.Joints[r.IntN(len(movement.Joints))]
		sorer := person.Scores{person.Left: {}, person.Right: scores[person.Right]}
		for k, v := range scores[person.Left] {
			sorer[person.Left][k] = v
		}
		sorer[person.Left][j] += 3
		for _, m := range movement.Shipped.Movements {
			s := m.Default()
			v := judged(t, y, s, scores)
			assert.Equal(t, v, judged(t, y, s, mirrored), m.ID)
			assert.GreaterOrEqual(t, strictness[judged(t, y, s, sorer).Ruling], strictness[v.Ruling], m.ID)
			if v.Ruling == person.Allowed {
				assert.Empty(t, v.Reasons)
			}
			for _, reason := range v.Reasons {
				there, ok := reason.Follow(s)
				if !ok {
					continue
				}
				for i := range reason.Limits {
					assert.True(t, reason.Limits[i].Met(there), "%s: %s", m.ID, reason.Words)
				}
				if m.Computed() {
					if _, err := there.Profile(y); err != nil {
						continue // the limit leads where this body cannot reach; the screen says so
					}
				}
				followed++
				assert.LessOrEqual(t, strictness[judged(t, y, there, scores).Ruling], strictness[v.Ruling], "%s: %s", m.ID, reason.Words)
			}
		}
	}
	assert.Greater(t, followed, 100)
}

func BenchmarkVerdicts(b *testing.B) {
	y := yardstick(b)
	type one struct {
		s movement.SetUp
		p *effort.Profile
	}
	var all []one
	for _, m := range movement.Shipped.Movements {
		o := one{s: m.Default()}
		if m.Computed() {
			o.p, _ = o.s.Profile(y)
		}
		all = append(all, o)
	}
	scores := person.Scores{person.Left: {movement.ElbowBack: 3, movement.Wrist: 3}, person.Right: {movement.ShoulderFront: 4}}
	b.ResetTimer()
	for range b.N { // the whole catalogue for one client, profiles cached
		for i := range all {
			person.Judge(all[i].s, all[i].p, scores, person.Mobility{}, person.Caps{})
		}
	}
}
