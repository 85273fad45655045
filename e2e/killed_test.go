package e2e

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"math/rand/v2"
	"net/http"
	"net/http/cookiejar"
	"os"
	"os/exec"
	"syscall"
	"testing"
	"time"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/movement"
	"musculus/internal/core/sheet"
	"musculus/internal/demo"
	"musculus/internal/store"
	"musculus/internal/testenv"
)

// The server is killed while it issues, at no chosen moment, and started again:
// there is the old sheet or the new one, never half of one, and an issue whose
// answer was lost, sent again, makes one sheet.
func TestKilledWhileItIssues(t *testing.T) {
	t.Parallel()
	db := testenv.Database(t)
	ctx := context.Background()
	s, err := store.Open(ctx, db.URL)
	require.NoError(t, err)
	t.Cleanup(s.Close)
	require.NoError(t, demo.Load(ctx, s, time.Now()))
	address := freeAddress(t)
	jar, err := cookiejar.New(nil)
	require.NoError(t, err)
	client := &http.Client{Jar: jar, Timeout: 10 * time.Second}
	post := func(path string, body any) (int, []byte) {
		b, err := json.Marshal(body)
		require.NoError(t, err)
		r, err := client.Post("http://"+address+"/api"+path, "application/json", bytes.NewReader(b))
		if err != nil {
			return 0, nil // the server is gone
		}
		defer r.Body.Close()
		answer, err := io.ReadAll(r.Body)
		if err != nil {
			return 0, nil
		}
		return r.StatusCode, answer
	}
	run := func() *exec.Cmd {
		cmd := exec.Command(binary(), "serve", "--listen", address, "--files", t.TempDir())
		cmd.Env = append(os.Environ(), "MUSCULUS_DATABASE_URL="+db.URL)
		cmd.SysProcAttr = &syscall.SysProcAttr{Pdeathsig: syscall.SIGKILL}
		require.NoError(t, cmd.Start())
		require.Eventually(t, func() bool {
			r, err := http.Get("http://" + address + "/api/me")
			if err != nil {
				return false
			}
			r.Body.Close()
			return true
		}, 10*time.Second, 5*time.Millisecond)
		return cmd
	}
	r := rand.New(rand.NewPCG(26, 11))
	path := "/clients/" + demo.ClientID("Aurelio Finch").String() + "/sessions/" + demo.SessionID("Aurelio Finch").String() + "/issues"
	seen := 0
	lost := 0
	const rounds = 8
	for round := range rounds {
		server := run()
		if round == 0 {
			status, _ := post("/sign-in", map[string]string{"email": wren.Email, "password": wren.Password})
			require.Equal(t, 200, status)
		}
		ids := make(chan uuid.UUID, 100)
		go func() { // one after the other until the server is gone
			defer close(ids)
			for {
				id := uuid.Must(uuid.NewV7())
				ids <- id
				if status, _ := post(path, map[string]any{"id": id, "version": 1}); status == 0 {
					return
				}
			}
		}()
		time.Sleep(time.Duration(5+r.IntN(120)) * time.Millisecond)
		require.NoError(t, server.Process.Kill())
		_ = server.Wait()
		var last uuid.UUID
		sent := 0
		for id := range ids {
			last = id
			sent++
		}
		list := issued(t, s)
		require.GreaterOrEqual(t, len(list), seen+sent-1, "what was answered is there")
		require.LessOrEqual(t, len(list), seen+sent, "and at most the one whose answer was lost")
		if len(list) == seen+sent {
			lost++
		}

		again := run()
		status, answer := post(path, map[string]any{"id": last, "version": 1})
		require.Equal(t, 200, status, string(answer))
		assert.Len(t, issued(t, s), seen+sent, "sent again, it is there once")
		seen += sent
		require.NoError(t, again.Process.Kill())
		_ = again.Wait()
	}
	for i, one := range issued(t, s) {
		assert.Equal(t, seen-i, one.Number, "no number twice, none left out")
		var kept sheet.Document
		require.NoError(t, json.Unmarshal(one.Sheet, &kept), "a whole sheet")
		require.NotNil(t, kept.Facts)
		assert.Len(t, kept.Facts.Slots, 4)
	}
	t.Logf("%d kills, %d sheets, %d kept though the answer was lost", rounds, seen, lost)
	assert.Positive(t, seen, fmt.Sprint(rounds))
}

// issued reads a session's sheets from the database, the latest first.
func issued(t *testing.T, s *store.Store) (out []store.Issue) {
	require.NoError(t, s.In(context.Background(), demo.Studio, func(tx *store.Tx) (err error) {
		out, err = tx.Issues(context.Background(), demo.ClientID("Aurelio Finch"), demo.SessionID("Aurelio Finch"), movement.Shipped)
		return err
	}))
	return out
}
