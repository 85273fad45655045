package e2e

import (
	"bufio"
	"bytes"
	"io"
	"net/http"
	"os"
	"os/exec"
	"path/filepath"
	"strings"
	"syscall"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/demo"
)

// demoRun is `musculus demo` until it serves.
type demoRun struct {
	cmd *exec.Cmd
	url string
}

func runDemo(t *testing.T, dir string, more ...string) demoRun {
	address := freeAddress(t)
	cmd := exec.Command(binary(), append([]string{"demo", "--dir", dir, "--listen", address}, more...)...)
	out, err := cmd.StdoutPipe()
	require.NoError(t, err)
	cmd.SysProcAttr = &syscall.SysProcAttr{Pdeathsig: syscall.SIGINT}
	require.NoError(t, cmd.Start())
	lines := bufio.NewScanner(out)
	text := ""
	for lines.Scan() {
		text += lines.Text() + "\n"
		if strings.Contains(text, "Ctrl-C") {
			break
		}
	}
	require.Contains(t, text, "http://"+address)
	for _, a := range demo.SignIns {
		require.Contains(t, text, a.Email)
		require.Contains(t, text, a.Password)
	}
	go func() { _, _ = io.Copy(io.Discard, out) }()
	return demoRun{cmd, "http://" + address}
}

// stop is what Ctrl-C does; the database must be gone with it.
func (d demoRun) stop(t *testing.T, dir string) {
	require.NoError(t, d.cmd.Process.Signal(os.Interrupt))
	done := make(chan error, 1)
	go func() { done <- d.cmd.Wait() }()
	select {
	case err := <-done:
		require.NoError(t, err)
	case <-time.After(30 * time.Second):
		t.Fatal("the demo does not stop")
	}
	_, err := os.Stat(filepath.Join(dir, "data", "postmaster.pid"))
	assert.True(t, os.IsNotExist(err), "PostgreSQL stopped cleanly")
}

func (d demoRun) post(t *testing.T, c *http.Client, path, body string) int {
	r, err := c.Post(d.url+"/api"+path, "application/json", strings.NewReader(body))
	require.NoError(t, err)
	defer r.Body.Close()
	return r.StatusCode
}

// The demo command: serves, stops cleanly, keeps its data, is up again quickly,
// and starts afresh only when asked; it never clears a folder that is not its own.
func TestTheDemoCommand(t *testing.T) {
	parent, err := os.MkdirTemp("", "musculus-demo-")
	require.NoError(t, err)
	t.Cleanup(func() { os.RemoveAll(parent) })
	require.NoError(t, os.Chmod(parent, 0o755))
	dir := filepath.Join(parent, "demo")
	signIn := `{"email":"` + wren.Email + `","password":"` + wren.Password + `"}`

	first := runDemo(t, dir)
	assert.Equal(t, 200, first.post(t, http.DefaultClient, "/sign-in", signIn))
	page, err := http.Get(first.url + "/clients")
	require.NoError(t, err)
	b, _ := io.ReadAll(page.Body)
	page.Body.Close()
	assert.Contains(t, string(b), `<div id="root">`)
	secrets, err := os.ReadFile(filepath.Join(dir, "secrets.json"))
	require.NoError(t, err)
	first.stop(t, dir)

	began := time.Now()
	second := runDemo(t, dir)
	assert.Less(t, time.Since(began), 50*time.Second, "the aim is 5 s")
	kept, _ := os.ReadFile(filepath.Join(dir, "secrets.json"))
	assert.Equal(t, secrets, kept)
	assert.Equal(t, 200, second.post(t, http.DefaultClient, "/sign-in", signIn))
	second.stop(t, dir)

	third := runDemo(t, dir, "--reset")
	fresh, _ := os.ReadFile(filepath.Join(dir, "secrets.json"))
	assert.NotEqual(t, secrets, fresh, "a new cluster")
	third.stop(t, dir)

	foreign := filepath.Join(parent, "photos")
	require.NoError(t, os.Mkdir(foreign, 0o755))
	require.NoError(t, os.WriteFile(filepath.Join(foreign, "sea.txt"), []byte("x"), 0o644))
	out, err := exec.Command(binary(), "demo", "--reset", "--dir", foreign, "--listen", freeAddress(t)).CombinedOutput()
	assert.Error(t, err)
	assert.Contains(t, string(out), "left alone")
	assert.FileExists(t, filepath.Join(foreign, "sea.txt"))
}

func TestTheInterchangeCommands(t *testing.T) {
	run := func(in string, args ...string) (out, errs string, status int) {
		cmd := exec.Command(binary(), args...)
		cmd.Stdin = strings.NewReader(in)
		var o, e bytes.Buffer
		cmd.Stdout, cmd.Stderr = &o, &e
		_ = cmd.Run()
		return o.String(), e.String(), cmd.ProcessState.ExitCode()
	}
	out, errs, status := run("{\"elbow_flexion\": 20, \"forearm_rotation\": 80}\n", "posture")
	assert.Equal(t, 0, status)
	assert.Empty(t, errs)
	assert.Contains(t, out, `"biceps_long":{"length":1.15`)
	out, errs, status = run("oops\n{\"name\":\"a\",\"from\":{},\"to\":{}}\n", "profile")
	assert.Equal(t, 1, status)
	assert.True(t, strings.HasPrefix(errs, "line 1: "), errs)
	assert.Contains(t, out, `"refused"`)
	out, _, status = run("", "movements")
	assert.Equal(t, 0, status)
	assert.Equal(t, 95, strings.Count(out, "\n"))
	problems, _, status := run("", "draft", "--examples", "2", "--seed", "4")
	assert.Equal(t, 0, status)
	assert.Equal(t, 2, strings.Count(problems, "\n"))
	out, errs, status = run(problems+"{}\n", "draft", "--way", "stance", "--steps", "300")
	assert.Equal(t, 1, status, "the third line is no problem")
	assert.True(t, strings.HasPrefix(errs, "line 3: "), errs)
	assert.Equal(t, 2, strings.Count(out, `"objective":`))
	out, _, status = run(problems, "draft", "--lp")
	assert.Equal(t, 0, status)
	assert.Contains(t, out, "Minimize")
	_, errs, status = run("", "draft", "--client", "nobody")
	assert.Equal(t, 1, status)
	assert.Contains(t, errs, "no client's id")
	_, errs, status = run("", "juggle")
	assert.Equal(t, 2, status)
	assert.Contains(t, errs, "usage")
	_, errs, status = run("", "serve")
	assert.Equal(t, 1, status)
	assert.Contains(t, errs, "--database-url")
}
