package archtest

import (
	"io/fs"
	"os"
	"path/filepath"
	"strings"
	"testing"
	"unicode/utf8"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// mostWide is how many characters a line may have; patterns and what tests quote
// between backquotes cannot always be broken.
const mostWide = 140

func TestNoLineIsTooWide(t *testing.T) {
	for _, root := range []string{"../../cmd", "../../internal", "../../e2e"} {
		require.NoError(t, filepath.WalkDir(root, func(path string, _ fs.DirEntry, err error) error {
			if err != nil || filepath.Ext(path) != ".go" || strings.HasSuffix(filepath.Dir(path), "store/db") {
				return err
			}
			b, err := os.ReadFile(path)
			quoted := false
			for i, line := range strings.Split(string(b), "\n") {
				ticks := strings.Count(line, "`")
				if !quoted && ticks == 0 {
					assert.LessOrEqual(t, utf8.RuneCountInString(line), mostWide, "%s:%d", path, i+1)
				}
				quoted = quoted != (ticks%2 == 1)
			}
			return err
		}))
	}
}
