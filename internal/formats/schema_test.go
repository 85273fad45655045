package formats_test

import (
	"os"
	"path/filepath"
	"testing"

	"github.com/goccy/go-yaml"
	"github.com/santhosh-tekuri/jsonschema/v6"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

const root = "../../"

// What ships keeps to the schemas that a coach's editor is given, and a schema
// refuses what the loaders refuse.
func TestTheDataKeepsToItsSchemas(t *testing.T) {
	for file, schema := range map[string]string{
		"movement/data/flexors.yaml": "movements", "movement/data/extensors.yaml": "movements", "movement/data/several_joints.yaml": "movements",
		"movement/data/families.yaml": "families", "movement/data/faults.yaml": "faults",
		"stance/data/evidence.yaml": "evidence", "words/data/vocabulary.yaml": "words",
		"words/data/movements.yaml": "answers",
		"stance/data/rules.yaml":    "rules",
	} {
		s, err := jsonschema.NewCompiler().Compile(filepath.Join(root, "docs/formats", schema+".schema.json"))
		require.NoError(t, err)
		b, err := os.ReadFile(filepath.Join(root, "internal/core", file))
		require.NoError(t, err)
		var content any
		require.NoError(t, yaml.Unmarshal(b, &content))
		assert.NoError(t, s.Validate(content), file)
		first := content.([]any)[0].(map[string]any)
		first["no_such_field"] = 1
		assert.Error(t, s.Validate(content), "%s: an unknown field", file)
	}
}
