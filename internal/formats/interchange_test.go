package formats_test

import (
	"bytes"
	"encoding/json"
	"fmt"
	"math"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/arm"
	"musculus/internal/core/day"
	"musculus/internal/core/effort"
	"musculus/internal/core/movement"
	"musculus/internal/core/series"
	"musculus/internal/formats"
)

func run(t *testing.T, answer func([]byte) (any, error), in string) (out []map[string]any, errs string, malformed int) {
	var o, e bytes.Buffer
	malformed, err := formats.Lines(strings.NewReader(in), &o, &e, answer)
	require.NoError(t, err)
	for _, line := range strings.Split(strings.TrimSpace(o.String()), "\n") {
		if line == "" {
			continue
		}
		var m map[string]any
		require.NoError(t, json.Unmarshal([]byte(line), &m))
		out = append(out, m)
	}
	return out, e.String(), malformed
}

func TestPostures(t *testing.T) {
	out, errs, malformed := run(t, formats.Posture, `{"elbow_flexion": 20, "forearm_rotation": 80}
{"elbow_flexion": 200}

{"name": "hanging"}
`)
	assert.Empty(t, errs)
	assert.Zero(t, malformed)
	require.Len(t, out, 3)
	long := out[0]["heads"].(map[string]any)["biceps_long"].(map[string]any)
	assert.InDelta(t, 1.15, long["length"], 1e-12, "the reference posture")
	assert.InDelta(t, 1.4+3.1*0.25881904510252074, long["moment_arms_cm"].(map[string]any)["elbow"], 1e-12)
	assert.Contains(t, out[1]["refused"], "elbow_flexion")
	assert.Equal(t, "hanging", out[2]["name"])
}

func TestProfiles(t *testing.T) {
	var p formats.Profiles
	out, errs, malformed := run(
		t,
		p.Answer,
		`{"name":"plain","from":{"elbow_flexion":10,"forearm_rotation":80},"to":{"elbow_flexion":140,"shoulder_elevation":10,"forearm_rotation":80}}
nonsense
{"name":"still","from":{},"to":{}}
{"name":"cam","from":{"elbow_flexion":10},"to":{"elbow_flexion":90},"load":{"kind":"cam"}}
{"name":"typo","elbow":10}
{"name":"c","from":{"elbow_flexion":10},"to":{"elbow_flexion":90},"load":{"kind":"cable"}}
{"name":"t","from":{"elbow_flexion":10},"to":{"elbow_flexion":90},"tempo":[1,2]}
{"name":"small","from":{"elbow_flexion":10},"to":{"elbow_flexion":90},"stature":-1}
[1]
{"name":"huge","trunk_lean":1e999}
{"name":"two"} {"name":"three"}`,
	)
	require.Len(t, out, 4)
	assert.Equal(t, 7, malformed)
	lines := strings.Split(strings.TrimSpace(errs), "\n")
	require.Len(t, lines, 7, errs)
	for i, start := range []string{"line 2: ", "line 5: ", "line 6: load.pulley: missing", "line 7: tempo: 2 numbers",
		"line 9: ", "line 10: ", "line 11: "} {
		assert.True(t, strings.HasPrefix(lines[i], start), "%q starts with %q", lines[i], start)
	}
	assert.InEpsilon(t, 168.06, out[0]["working_load_n"], 1e-3)
	assert.Len(t, out[0]["curve"], 41)
	assert.Equal(t, []any{}, out[0]["idle"])
	triceps := out[0]["heads"].(map[string]any)["triceps_long"].(map[string]any)
	assert.Nil(t, triceps["zone"])
	assert.Nil(t, triceps["mean_length"])
	assert.Zero(t, triceps["share"])
	assert.Contains(t, out[1]["refused"], "same at both ends")
	assert.Contains(t, out[2], "working_load_nm")
	assert.NotContains(t, out[2], "working_load_n")
	assert.Contains(t, out[3]["refused"], "stature")
}

func TestALineTooLongIsToldAndTheRestAnswered(t *testing.T) {
	out, errs, malformed := run(t, formats.Posture, strings.Repeat("x", 2<<20)+"\n{}")
	assert.Len(t, out, 1)
	assert.Equal(t, 1, malformed)
	assert.Contains(t, errs, "line 1: longer than")
}

// What `musculus movements` writes can be given to `musculus profile` and comes
// back the same.
func TestMovementsAndProfilesAgree(t *testing.T) {
	y, err := effort.NewYardstick(arm.DefaultBody)
	require.NoError(t, err)
	var b bytes.Buffer
	require.NoError(t, formats.WriteMovements(&b, movement.Shipped, y))
	lines := strings.Split(strings.TrimSpace(b.String()), "\n")
	require.Len(t, lines, len(movement.Shipped.Movements))
	var p formats.Profiles
	for _, line := range lines {
		var m struct {
			ID      string
			SetUp   map[string]any `json:"set_up"`
			Profile *formats.ProfileOut
			Credits map[string][3]float64
		}
		require.NoError(t, json.Unmarshal([]byte(line), &m))
		if m.Profile == nil {
			assert.Len(t, m.Credits, 7, m.ID)
			continue
		}
		m.SetUp["name"] = m.Profile.Name
		in, err := json.Marshal(m.SetUp)
		require.NoError(t, err)
		got, err := p.Answer(in)
		require.NoError(t, err)
		assert.InDelta(t, *m.Profile.LoadN, *got.(formats.ProfileOut).LoadN, 1e-9, m.ID)
	}
}

// A course is answered as the screens read it; what cannot be one is told at its place.
func TestSeriesOnTheCommandLine(t *testing.T) {
	var points []string
	for i := range 20 {
		points = append(points, fmt.Sprintf(`{"day": %q, "e1rm": %.1f, "reserve": 2}`, (day.Of(2026, 7, 1)+day.Day(3*i)).String(), 40+0.3*float64(i%2)))
	}
	line := `{"points": [` + strings.Join(points, ",") + `], "growth_per_week": 0.01}`
	out, err := formats.Series([]byte(line))
	require.NoError(t, err)
	a := out.(formats.SeriesAnswer)
	assert.Equal(t, series.Plateau, a.State)
	assert.Greater(t, a.LnOdds, math.Log(9))
	assert.InDelta(t, 0, a.Slope, 0.002)
	for bad, where := range map[string]string{
		`{"points": []}`: "points",
		`{"points": [{"day": "2026-07-01", "e1rm": 0}]}`:                                   "points[0].e1rm",
		`{"points": [{"day": "2026-07-02", "e1rm": 4}, {"day": "2026-07-01", "e1rm": 4}]}`: "points[1].day",
		`{"points": [{"day": "2026-07-01", "e1rm": 4, "reserve": -1}]}`:                    "points[0].reserve",
		`{"points": [{"day": "2026-07-01", "e1rm": 4}], "growth_per_week": 0}`:             "growth_per_week",
		`{"points": [{"day": "never", "e1rm": 4}]}`:                                        "never",
		`{"pionts": []}`: "pionts",
	} {
		_, err := formats.Series([]byte(bad))
		assert.ErrorContains(t, err, where, bad)
	}
}
