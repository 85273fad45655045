package day_test

import (
	"encoding/json"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/day"
)

func TestEveryDayOfThreeCenturies(t *testing.T) {
	first, err := day.Parse("1900-01-01")
	require.NoError(t, err)
	y, m, dom := 1900, 1, 1
	length := func() int {
		if m == 2 {
			if y%4 == 0 && (y%100 != 0 || y%400 == 0) {
				return 29
			}
			return 28
		}
		return []int{31, 0, 31, 30, 31, 30, 31, 31, 30, 31, 30, 31}[m-1]
	}
	for d := first; y < 2200; d++ {
		gy, gm, gd := d.Date()
		require.Equal(t, [3]int{y, m, dom}, [3]int{gy, gm, gd})
		require.Equal(t, d, day.Of(y, m, dom))
		if dom++; dom > length() {
			dom = 1
			if m++; m > 12 {
				m, y = 1, y+1
			}
		}
	}
	assert.Equal(t, day.Day(0), day.Of(1970, 1, 1))
}

func TestReadingAndWriting(t *testing.T) {
	d, err := day.Parse("2026-11-25")
	require.NoError(t, err)
	assert.Equal(t, "25\u00a0November\u00a02026", d.Words())
	assert.Equal(t, 2026, d.Year())
	b, err := json.Marshal(d)
	require.NoError(t, err)
	var back day.Day
	require.NoError(t, json.Unmarshal(b, &back))
	assert.Equal(t, d, back)
	for _, bad := range []string{"", "2026-02-30", "25.11.2026", "2026-13-01", "26-11-25", "2026-1-1", "1066-10-14", "2026-11-25T10:00"} {
		_, err := day.Parse(bad)
		assert.Error(t, err, bad)
	}
	assert.Error(t, json.Unmarshal([]byte("3"), &back))
}
