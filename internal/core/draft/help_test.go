package draft

import (
	"encoding/json"
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/day"
	"musculus/internal/core/week"
)

func newID() uuid.UUID { return uuid.New() }

func dayOf(weekday string) day.Day { return day.Day(week.Weekday(weekday)) }

func jsonOf(t *testing.T, v any) []byte {
	t.Helper()
	b, err := json.Marshal(v)
	require.NoError(t, err)
	return b
}
