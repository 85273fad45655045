// Package archtest holds the test of who may import whom (docs/architecture.md).
package archtest

import (
	"encoding/json"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"slices"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// coreOrder: inside the core each package may import those before it.
var coreOrder = []string{
	"text",
	"day",
	"secret",
	"arm",
	"effort",
	"datafile",
	"movement",
	"stance",
	"measure",
	"person",
	"priority",
	"fitting",
	"entry",
	"series",
	"dose",
	"words",
	"plan",
	"log",
	"week",
	"present",
	"sheet",
	"floor",
	"block",
	"decide",
	"checkin",
	"draft",
}

// layers says which of our own packages each layer may import; core is handled
// by its order, cmd may import everything.
var layers = map[string][]string{
	"internal/store":   {"internal/core", "internal/store"},
	"internal/figure":  {"internal/core"},
	"internal/formats": {"internal/core", "internal/figure"},
	"internal/view":    {"internal/core", "internal/figure"},
	"internal/httpapi": {
		"internal/core",
		"internal/store",
		"internal/formats",
		"internal/figure",
		"internal/view",
		"internal/photos",
		"internal/mail",
		"internal/jobs",
		"internal/live",
		"internal/httpapi/op",
		"internal/httpapi/bylink",
		"internal/httpapi/running",
		"internal/httpapi/request",
		"internal/httpapi/remember",
	},
	"internal/photos":   {},
	"internal/mail":     {},
	"internal/live":     {"internal/store"},
	"internal/jobs":     {"internal/core", "internal/store", "internal/mail", "internal/photos"},
	"internal/demo":     {"internal/core", "internal/store"},
	"internal/localpg":  {},
	"internal/testenv":  {"internal/localpg", "internal/store", "internal/jobs"}, // a helper of tests
	"internal/archtest": {},
	"web":               {},
}

// notInCore are what a core without input, output and clock has no use for.
var notInCore = []string{"os", "net", "net/http", "database/sql", "io/ioutil", "math/rand", "math/rand/v2", "crypto/rand", "log"}

// noClock: the core may use the types of package time, never its clock.
var noClock = regexp.MustCompile(`\btime\.(Now|Since|Until|After|AfterFunc|Tick|NewTimer|NewTicker|Sleep)\(`)

// mostLines a file and mostOfAPlace a folder of the API may have, tests apart.
const mostLines, mostOfAPlace = 400, 1500

type pkg struct {
	ImportPath string
	Dir        string
	Imports    []string
	GoFiles    []string
}

func packages(t *testing.T) (out []pkg) {
	b, err := exec.Command("go", "list", "-json=ImportPath,Dir,Imports,GoFiles", "musculus/cmd/...", "musculus/internal/...", "musculus/web").
		Output()
	require.NoError(t, err)
	d := json.NewDecoder(strings.NewReader(string(b)))
	for d.More() {
		var p pkg
		require.NoError(t, d.Decode(&p))
		out = append(out, p)
	}
	require.NotEmpty(t, out)
	return
}

func within(path string, roots []string) bool {
	return slices.ContainsFunc(roots, func(root string) bool { return path == root || strings.HasPrefix(path, root+"/") })
}

func TestWhoImportsWhom(t *testing.T) {
	for _, p := range packages(t) {
		path := strings.TrimPrefix(p.ImportPath, "musculus/")
		if strings.HasPrefix(path, "cmd/") {
			continue
		}
		core, isCore := strings.CutPrefix(path, "internal/core/")
		var allowed []string
		if isCore {
			at := slices.Index(coreOrder, core)
			require.GreaterOrEqual(t, at, 0, "%s has no place in the order of the core", path)
			for _, before := range coreOrder[:at] {
				allowed = append(allowed, "internal/core/"+before)
			}
		} else if path == "internal/httpapi" { // the root alone knows the places; they do not know each other
			allowed = append(slices.Clone(layers[path]), path)
		} else {
			found := false
			for layer, may := range layers {
				if within(path, []string{layer}) {
					allowed, found = may, true
				}
			}
			require.True(t, found, "%s belongs to no layer", path)
		}
		lines := 0
		for _, file := range p.GoFiles {
			b, err := os.ReadFile(filepath.Join(p.Dir, file))
			require.NoError(t, err)
			n := strings.Count(string(b), "\n")
			lines += n
			if !strings.HasSuffix(p.Dir, "/db") { // made by a tool
				assert.LessOrEqual(t, n, mostLines, "%s/%s does more than one thing", path, file)
			}
		}
		if within(path, []string{"internal/httpapi"}) {
			assert.LessOrEqual(t, lines, mostOfAPlace, "%s is more than one place", path)
		}
		if isCore {
			for _, file := range p.GoFiles {
				b, err := os.ReadFile(filepath.Join(p.Dir, file))
				require.NoError(t, err)
				assert.False(t, noClock.Match(b), "%s/%s is core: it has no clock", path, file)
			}
		}
		for _, i := range p.Imports {
			if own, ok := strings.CutPrefix(i, "musculus/"); ok {
				assert.True(t, within(own, allowed), "%s must not import %s", path, own)
			} else if isCore {
				assert.NotContains(t, notInCore, i, "%s is core: no input, output, clock or chance", path)
				if strings.Contains(strings.Split(i, "/")[0], ".") {
					assert.True(t, within(i, []string{"github.com/goccy/go-yaml", "github.com/google/uuid"}),
						"%s is core: it needs no library but the reader of its own data and the type of ids", path)
				}
			}
		}
	}
}
