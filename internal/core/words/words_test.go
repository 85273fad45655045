package words_test

import (
	_ "embed"
	"fmt"
	"regexp"
	"slices"
	"strconv"
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/movement"
	"musculus/internal/core/words"
)

//go:embed testdata/lines.txt
var lines string

//go:embed testdata/held.txt
var held string

func reader(t testing.TB, own ...words.Own) *words.Reader {
	t.Helper()
	return words.New(movement.Shipped, own, words.Near)
}

var (
	setsSaid = regexp.MustCompile(`^(\d+)x(?:(\d+)(?:-(\d+))?)?$`)
	loadSaid = regexp.MustCompile(`^([\d.]+)(kg|lb)(?:/(each|whole))?$`)
)

// told writes a part as the lists do, only with what is asked for there.
func verdict(p *words.Part, want string) (right, wrong bool, why string) {
	fields := strings.Fields(strings.TrimSpace(want))
	right = true
	miss := func(format string, args ...any) {
		right = false
		why += fmt.Sprintf(format, args...) + "; "
	}
	for i, f := range fields {
		switch {
		case i == 0 && strings.HasPrefix(f, "?"):
			if p.Ask == "" {
				wrong = true
				miss("not asked, taken for %s", told(p))
				continue
			}
			for _, id := range strings.FieldsFunc(f[1:], func(r rune) bool { return r == ',' }) {
				if !slices.ContainsFunc(p.Choices, func(s movement.SetUp) bool { return s.Movement.ID == id }) {
					miss("%s is not offered", id)
				}
			}
		case i == 0 && strings.HasPrefix(f, "="):
			if p.Counts != f[1:] {
				miss("counts as %q, taken for %s (%s)", p.Counts, told(p), p.Ask)
				wrong = p.Movement != nil || p.Counts != ""
			}
		case i == 0:
			if got := told(p); got != f {
				miss("%s instead of %s (%s)", got, f, p.Ask)
				wrong = p.Ask == ""
			}
		case f == "&":
			if !p.Joined {
				miss("not joined")
			}
		case setsSaid.MatchString(f):
			m := setsSaid.FindStringSubmatch(f)
			low, _ := strconv.Atoi(m[2])
			high, _ := strconv.Atoi(m[3])
			if sets, _ := strconv.Atoi(m[1]); p.Sets != sets || p.Reps != [2]int{low, max(low, high)} {
				miss("%dx%v instead of %s", p.Sets, p.Reps, f)
			}
		case loadSaid.MatchString(f):
			m := loadSaid.FindStringSubmatch(f)
			x, _ := strconv.ParseFloat(m[1], 64)
			if p.Load == nil || p.Load.Value != x || p.Load.Unit != m[2] || m[3] != "" && p.Load.As != m[3] {
				miss("load %+v instead of %s", p.Load, f)
			}
		case strings.HasPrefix(f, "rest"):
			if n, _ := strconv.Atoi(f[4:]); p.RestS != n {
				miss("rest %d instead of %s", p.RestS, f)
			}
		case strings.HasPrefix(f, "r"):
			if n, _ := strconv.Atoi(f[1:]); p.Reserve == nil || *p.Reserve != n {
				miss("reserve %v instead of %s", p.Reserve, f)
			}
		case strings.HasPrefix(f, "m="):
			if p.Method != f[2:] {
				miss("method %q instead of %s", p.Method, f)
			}
		case strings.HasPrefix(f, "s"):
			if n, _ := strconv.Atoi(f[1:]); p.Seconds[0] != n {
				miss("seconds %v instead of %s", p.Seconds, f)
			}
		default:
			miss("the list says %q, which is nothing", f)
		}
	}
	return right, wrong, why
}

// told is a part's movement with its settings, as the lists write it.
func told(p *words.Part) string {
	if p.Movement == nil {
		return "nothing"
	}
	turned := p.SetUp.Turned()
	var set []string
	for k, v := range turned {
		set = append(set, string(k)+"="+v.String())
	}
	slices.Sort(set)
	if len(set) == 0 {
		return p.Movement.ID
	}
	return p.Movement.ID + "{" + strings.Join(set, ",") + "}"
}

// read holds the reader against a list; how many lines are right, and how many were
// taken for something else without a question.
func read(t *testing.T, list string) (right, wrong, all int) {
	r := reader(t)
	for _, line := range strings.Split(list, "\n") {
		text, want, ok := strings.Cut(line, " => ")
		if !ok || strings.HasPrefix(line, "#") {
			continue
		}
		all++
		parts := strings.Split(want, " | ")
		got := r.ReadLine(text)
		if !assert.ObjectsAreEqual(len(parts), len(got.Parts)) {
			t.Logf("%s: %d parts instead of %d", text, len(got.Parts), len(parts))
			continue
		}
		good := true
		for i := range parts {
			ok, bad, why := verdict(&got.Parts[i], parts[i])
			if good = good && ok; !ok {
				t.Logf("%s: %s", text, why)
			}
			if bad {
				wrong++
			}
		}
		if good {
			right++
		}
	}
	return right, wrong, all
}

// What practitioners write, written down before the reader was.
func TestLinesInPractitionersWords(t *testing.T) {
	right, wrong, all := read(t, lines)
	t.Logf("%d of %d right, %d wrong without asking", right, all, wrong)
	require.Equal(t, 120, all)
	assert.GreaterOrEqual(t, right, 110)
	assert.Zero(t, wrong)
}

// What was never tuned on: 60 more lines by the same rules.
func TestLinesNeverTunedOn(t *testing.T) {
	right, wrong, all := read(t, held)
	t.Logf("%d of %d right, %d wrong without asking", right, all, wrong)
	require.Equal(t, 60, all)
	assert.GreaterOrEqual(t, right, 50)
	assert.Zero(t, wrong)
}

// A word before “bar” that nobody knows is asked, wherever the bar stands: which bar is never guessed.
func TestAnUnknownBarIsAsked(t *testing.T) {
	for _, line := range []string{"skull crushers 3x10 gull bar", "gull bar skull crushers 3x10", "spider curls with the gull bar"} {
		p := reader(t).ReadLine(line).Parts[0]
		assert.Nil(t, p.Movement, line)
		assert.Equal(t, "which bar is “gull”?", p.Ask, line)
	}
}
