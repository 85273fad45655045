package e2e

import (
	"os"
	"testing"
	"time"
)

func TestZZLook(t *testing.T) {
	a := start(t)
	dir := os.Getenv("LOOK")
	p := a.onFloor(t, [2]int64{820, 1180}, "/floor")
	time.Sleep(1000 * time.Millisecond)
	for range 3 {
		p.click(".floor_go")
		time.Sleep(300 * time.Millisecond)
	}
	p.shot(dir + "/floor1.png")
	q := a.onFloor(t, phone, "/floor")
	time.Sleep(1000 * time.Millisecond)
	q.clickText("It was different")
	time.Sleep(300 * time.Millisecond)
	q.shot(dir + "/floor2.png")
}
