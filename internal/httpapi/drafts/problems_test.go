package drafts

import (
	"context"
	"encoding/json"
	"os"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/draft"
	"musculus/internal/demo"
	"musculus/internal/httpapi/op"
	"musculus/internal/testenv"
)

// players are the demo's clients.
var players = []string{
	"Ines Karlova",
	"Tobias Quill",
	"Marguerite Oseland",
	"Dario Vance",
	"Pelle Sandoval",
	"Noor Halloran",
	"Aurelio Finch",
	"Bettina Groos",
}

// Every demo client's next week is a problem that can be read back, and that composes to the
// same week then; make draft-check takes the eight from here.
func TestTheDemosProblemsCanBeWritten(t *testing.T) {
	kept := testenv.Store(t)
	require.NoError(t, demo.Load(context.Background(), kept, now))
	s := op.New(kept, "", func() time.Time { return now })
	out := os.Stdout
	if path := os.Getenv("MUSCULUS_PROBLEMS"); path != "" {
		f, err := os.Create(path)
		require.NoError(t, err)
		defer f.Close()
		out = f
	}
	for _, name := range players {
		p, err := ProblemOf(context.Background(), s, demo.Studio, demo.ClientID(name), "2026-11-30")
		require.NoError(t, err)
		assert.Equal(t, name, p.Name)
		b, err := json.Marshal(p)
		require.NoError(t, err)
		again, err := draft.ReadProblem(b)
		require.NoError(t, err)
		e := draft.Effort{Steps: 100}
		assert.Equal(t, draft.Search(p, draft.Robust, e, nil).Days, draft.Search(again, draft.Robust, e, nil).Days)
		if out != os.Stdout {
			_, err = out.Write(append(b, '\n'))
			require.NoError(t, err)
		}
	}
}
