package week_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/plan"
	"musculus/internal/core/week"
)

func TestAClientIsToldWhyInPlainWords(t *testing.T) {
	tr := trainee(t)
	s := plan.Session{Slots: []plan.Slot{slot("overhead_cable_low", 4, 2), slot("curl_neutral", 2, 2)}}
	c := week.Count(&s, tr.Yardstick, leverage)
	why := week.Why(&s, &c)
	require.Len(t, why, 3)
	assert.Contains(t, why[0], "long part of the triceps")
	assert.Contains(t, why[2], "hardest")
	for _, word := range []string{"bias", " head", "triceps_", "effective", "stance"} {
		assert.NotContains(t, strings.Join(why, " "), word, "no jargon")
	}
	var empty plan.Session
	e := week.Count(&empty, tr.Yardstick, leverage)
	assert.Empty(t, week.Why(&empty, &e))
}
