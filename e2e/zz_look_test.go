package e2e

import (
	"context"
	"os"
	"testing"
	"time"

	"github.com/stretchr/testify/require"

	"musculus/internal/demo"
)

func TestZZLook(t *testing.T) {
	a := start(t)
	require.NoError(t, demo.HalfDone(context.Background(), a.store, time.Now()))
	dir := os.Getenv("LOOK")
	p := a.signedIn(t, wren, laptop, clientPath("Dario Vance", "week"))
	p.until(`document.querySelector('.board_slot b')`)
	time.Sleep(1500 * time.Millisecond)
	p.shot(dir + "/w.png")
	q := a.onFloor(t, phone, floorPath("Tobias Quill"))
	for range 9 {
		q.done()
	}
	q.until(ended)
	time.Sleep(300 * time.Millisecond)
	q.shot(dir + "/e.png")
}
