package floor

import (
	"encoding/json"
	"math/rand/v2"
	"os"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// walk is a slot's sets with what is advised after each, as the function has it.
type walk struct {
	Slot  int    `json:"slot"`
	Sets  []told `json:"sets"`
	Moves []Move `json:"moves"`
}

type told struct {
	Mark      int  `json:"mark"`
	Reps      int  `json:"reps"`
	Reserve   int  `json:"reserve"`
	Technical bool `json:"technical"`
}

type walked struct {
	Row     []Row     `json:"rows"`
	Marks   []float64 `json:"marks"`
	Table   *Table    `json:"table"`
	Dense   bool      `json:"dense"`
	Finding bool      `json:"finding"`
}

const goldenWalks = "testdata/walks.json"

// A device looks its advice up in the table. What it finds is held against this file
// (web/src/floor/advice.test.ts), and the file against the function; MUSCULUS_GOLDEN=1 writes it
// anew.
func TestWalksThroughTheTables(t *testing.T) {
	dice := rand.New(rand.NewPCG(16, 7))
	var slots []walked
	var walks []walk
	kinds := []*Slot{
		plain(), plain(dense), plain(heavy), plain(high), plain(sparse),
		plain(single), plain(limit), plain(backOff), plain(climb), plain(),
	}
	for i, c := range kinds {
		finding := i == 9
		from := Begin(c, finding)
		slots = append(slots, walked{c.Rows, c.Marks, TableOf(c, from), c.Dense, finding})
		for range 25 {
			w := walk{Slot: i}
			for s := from; ; {
				row := &c.Rows[s.Row]
				set := told{
					Mark:      s.Mark,
					Reps:      max(0, row.Low-4+dice.IntN(row.High-row.Low+9)),
					Reserve:   max(0, row.Reserve-1+dice.IntN(3)),
					Technical: dice.IntN(8) == 0,
				}
				m := Next(c, s, OutcomeOf(EffectiveReps([]int{set.Reps}, set.Reserve, row.Reserve), row, !set.Technical))
				w.Sets, w.Moves = append(w.Sets, set), append(w.Moves, m)
				if s = m.Next; m.End {
					break
				}
			}
			walks = append(walks, w)
		}
	}
	b, err := json.Marshal(map[string]any{"slots": slots, "walks": walks, "most_over": MostOver})
	require.NoError(t, err)
	if os.Getenv("MUSCULUS_GOLDEN") != "" {
		require.NoError(t, os.MkdirAll("testdata", 0o755))
		require.NoError(t, os.WriteFile(goldenWalks, b, 0o644))
	}
	was, err := os.ReadFile(goldenWalks)
	require.NoError(t, err)
	assert.JSONEq(t, string(was), string(b), "a device would advise otherwise: MUSCULUS_GOLDEN=1 writes the file anew")
}
