package e2e

import (
	"os"
	"testing"
	"time"
)

func TestZZLook(t *testing.T) {
	a := start(t)
	p := a.onFloor(t, [2]int64{320, 640}, floorPath("Dario Vance"))
	time.Sleep(500 * time.Millisecond)
	t.Log(eval[string](p, `[...document.querySelectorAll('.floor_floor *')].filter((e) => e.getBoundingClientRect().right > 321).map((e) => e.className + ':' + Math.round(e.getBoundingClientRect().right)).join(' ')`))
	p.shot(os.Getenv("LOOK") + "/n.png")
}
