package week_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/week"
)

func TestAClientIsToldWhyInPlainWords(t *testing.T) {
	tr := trainee(t)
	s := week.Session{Slots: []week.Slot{slot("overhead_cable_low", 4, 2), slot("curl_neutral", 2, 2)}}
	c := s.Count(tr.Yardstick, leverage)
	why := s.Why(&c)
	require.Len(t, why, 3)
	assert.Contains(t, why[0], "long part of the triceps")
	assert.Contains(t, why[2], "hardest")
	for _, word := range []string{"bias", " head", "triceps_", "effective", "stance"} {
		assert.NotContains(t, strings.Join(why, " "), word, "no jargon")
	}
	var empty week.Session
	e := empty.Count(tr.Yardstick, leverage)
	assert.Empty(t, empty.Why(&e))
}
