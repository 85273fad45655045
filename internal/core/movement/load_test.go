package movement

import (
	"encoding/json"
	"maps"
	"os"
	"slices"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/datafile"
)

const goodFamilies = "- {id: f, label: x, stop: y, joints: {}, upper_arm: fixed}"

func TestFaultsOfTheCatalogueAreListedAtOnceWithTheirLines(t *testing.T) {
	_, wrong := load([]byte(goodFamilies), []byte("[]"), map[string][]byte{"a.yaml": []byte(`# a comment
- {id: one, name: One, action: flexion, family: nowhere, implements: [dumbbell], to: {elbow_flexion: 90}, load: free}

- id: two
  name: Two
  action: flexion
  family: f
  implements: [dumbbell]
  to: {elbow_flexion: 90}
  load: free
  settings: [{key: bench, min: 60, max: 30}]
- {id: three, name: Three, action: flexion, family: f, implements: [dumbbell], to: {elbow_flexion: 90}, load: free, settings: [tightness]}
- {id: three, name: Three, action: flexion, family: f, to: {elbow_flexion: 90}, load: free}
`), "b.yaml": []byte("- {id: four, nmae: Four}"), "c.yaml": []byte("- id: five\n  name: [")}, "a.yaml", "b.yaml", "c.yaml")
	err := datafile.Join(wrong)
	for _, want := range []string{
		`a.yaml:2: entry 1 (one): family: there is no "nowhere"`,
		"a.yaml:11: entry 2 (two): settings.bench: needs min below max",
		"a.yaml:12: entry 3 (three): settings.tightness: there is no such setting",
		"a.yaml:13: entry 4 (three): implements: missing",
		"b.yaml:1: entry 1 (four): nmae: there is no such field", "b.yaml:1: entry 1 (four): family",
		"c.yaml:2: ",
	} {
		assert.ErrorContains(t, err, want)
	}
}

func schemaFields(t *testing.T, schema string) []string {
	b, err := os.ReadFile("../../../docs/formats/" + schema + ".schema.json")
	require.NoError(t, err)
	var read struct {
		Items struct{ Properties map[string]any }
	}
	require.NoError(t, json.Unmarshal(b, &read))
	return slices.Sorted(maps.Keys(read.Items.Properties))
}

// The schema a coach's editor is given names the fields the loader reads.
func TestTheSchemasNameTheFields(t *testing.T) {
	for schema, row := range map[string]any{"movements": row{}, "families": familyRow{}, "faults": faultRow{}} {
		assert.Equal(t, datafile.Fields(row), schemaFields(t, schema), schema)
	}
}
