package archtest

import (
	"os"
	"path/filepath"
	"regexp"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// What the pages name is there: the glossary's types, the paths of where to change
// what.
func TestThePagesNameWhatIsThere(t *testing.T) {
	root := filepath.Join("..", "..")
	glossary, err := os.ReadFile(filepath.Join(root, "docs", "glossary.md"))
	require.NoError(t, err)
	folders := map[string]string{
		"store":   "internal/store",
		"figure":  "internal/figure",
		"view":    "internal/view",
		"httpapi": "internal/httpapi",
	}
	named := regexp.MustCompile("`([a-z]+)\\.([A-Z]\\w*)`").FindAllStringSubmatch(string(glossary), -1)
	require.Greater(t, len(named), 40)
	for _, m := range named {
		folder := folders[m[1]]
		if folder == "" {
			folder = "internal/*/" + m[1] // of the core, or a place of the API
		}
		files, err := filepath.Glob(filepath.Join(root, folder, "*.go"))
		require.NoError(t, err)
		found := false
		declared := regexp.MustCompile(`(?m)^(type|func) ` + m[2] + `\b`)
		for _, f := range files {
			b, err := os.ReadFile(f)
			require.NoError(t, err)
			found = found || declared.Match(b)
		}
		assert.True(t, found, "%s of the glossary is not in %s", m[0], folder)
	}

	page, err := os.ReadFile(filepath.Join(root, "docs", "architecture.md"))
	require.NoError(t, err)
	_, where, ok := strings.Cut(string(page), "## Where do I change …")
	require.True(t, ok)
	paths := regexp.MustCompile("`((?:cmd|internal|web|e2e|docs)/[\\w/.*-]+)`").FindAllStringSubmatch(where, -1)
	require.Greater(t, len(paths), 20)
	for _, m := range paths {
		there, err := filepath.Glob(filepath.Join(root, m[1]))
		require.NoError(t, err)
		assert.NotEmpty(t, there, m[1])
	}
}
