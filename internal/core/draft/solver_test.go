package draft

import (
	"bufio"
	"bytes"
	"fmt"
	"os"
	"os/exec"
	"path/filepath"
	"regexp"
	"strconv"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// TestAgainstASolver holds composed weeks against an outside solver: make draft-check. It
// needs the solver's command in MUSCULUS_SOLVER, takes its seconds a problem from
// MUSCULUS_SOLVER_SECONDS and problems, one a line, from MUSCULUS_PROBLEMS beside 22 made
// ones.
func TestAgainstASolver(t *testing.T) {
	solver := os.Getenv("MUSCULUS_SOLVER")
	if solver == "" {
		t.Skip("make draft-check runs it")
	}
	seconds, err := strconv.Atoi(os.Getenv("MUSCULUS_SOLVER_SECONDS"))
	require.NoError(t, err)
	problems, err := Examples(1, 22)
	require.NoError(t, err)
	if path := os.Getenv("MUSCULUS_PROBLEMS"); path != "" {
		b, err := os.ReadFile(path)
		require.NoError(t, err)
		lines := bufio.NewScanner(bytes.NewReader(b))
		lines.Buffer(nil, 1<<22)
		for lines.Scan() {
			p, err := ReadProblem(lines.Bytes())
			require.NoError(t, err)
			problems = append(problems, p)
		}
	}
	good := 0
	fmt.Println("| client | days × minutes | candidates | composed | s | solver | proven bound | ours, long | gap |")
	fmt.Println("|---|---|---|---|---|---|---|---|---|")
	for i, p := range problems {
		begun := time.Now()
		w := Compose(p, Final, 0, nil, nil)[0].Week
		took := time.Since(begun)
		until := time.Now().Add(time.Duration(seconds) * time.Second / 2)
		long := Search(p, Robust, Effort{Steps: 100_000_000, Seed: 99, Stop: func() bool { return time.Now().After(until) }}, &w)
		value, bound := solve(t, solver, seconds, p, i)
		best := min(value, long.Objective)
		gap := w.Objective - best
		within := gap <= max(0.01*best, 0.1)+1e-9
		if within {
			good++
		}
		assert.LessOrEqual(t, gap, max(0.03*best, 0.1)+1e-9, p.Name)
		assert.GreaterOrEqual(t, w.Objective, bound-1e-4*max(1, bound), "%s: under what is proven to be possible", p.Name)
		minutes := 0
		if len(p.Days) > 0 {
			minutes = p.Days[0].Seconds / 60
		}
		fmt.Printf("| %s | %d × %d | %d | %.3f | %.2f | %.3f | %.3f | %.3f | %.3f (%.1f %%) |\n", p.Name, len(p.Days), minutes, len(p.Candidates),
			w.Objective, took.Seconds(), value, bound, long.Objective, gap, 100*gap/max(best, 1e-9))
	}
	assert.GreaterOrEqual(t, good*30, 27*len(problems), "within 1 % or 0.1 in %d of %d", good, len(problems))
	fmt.Printf("within 1 %% or 0.1: %d of %d\n", good, len(problems))
}

var (
	solved  = regexp.MustCompile(`(?m)^Objective value:\s+(\S+)`)
	bounded = regexp.MustCompile(`(?m)^Lower bound:\s+(\S+)`)
)

// solve runs the solver on a problem and returns what it found and what it proved.
func solve(t *testing.T, solver string, seconds int, p *Problem, n int) (value, bound float64) {
	path := filepath.Join(t.TempDir(), fmt.Sprintf("%d.lp", n))
	f, err := os.Create(path)
	require.NoError(t, err)
	require.NoError(t, WriteLP(f, p, Robust))
	require.NoError(t, f.Close())
	out, err := exec.Command(solver, path, "sec", strconv.Itoa(seconds), "solve").CombinedOutput()
	require.NoError(t, err, string(out))
	number := func(r *regexp.Regexp) (float64, bool) {
		m := r.FindSubmatch(out)
		if m == nil {
			return 0, false
		}
		x, err := strconv.ParseFloat(string(m[1]), 64)
		return x, err == nil
	}
	value, ok := number(solved)
	if !ok {
		return 1e9, 0
	}
	if bound, ok = number(bounded); !ok {
		bound = value // proven
	}
	return value, bound
}
