package movement_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/movement"
)

func TestShortNamesAreShortAndTellMovementsApart(t *testing.T) {
	seen := map[string]string{}
	for _, m := range movement.Shipped.Movements {
		short := m.Default().Short()
		assert.LessOrEqual(t, len(strings.Fields(short)), 8, short)
		assert.Empty(t, seen[short], "%s and %s", m.ID, seen[short])
		seen[short] = m.ID
	}
	curl := movement.Shipped.Get("curl_reclined").Default()
	turned, err := curl.With(movement.PhiFrom, movement.Num(20))
	require.NoError(t, err)
	assert.NotEqual(t, curl.Short(), turned.Short(), "a hand that is turned is said")
}
