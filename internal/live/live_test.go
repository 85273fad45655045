package live

import (
	"testing"

	"github.com/google/uuid"
	"github.com/stretchr/testify/assert"
)

func TestWhatIsToldReachesEverybodyAndWaitsForNobody(t *testing.T) {
	h := NewHub()
	a, stopA := h.Watch()
	b, stopB := h.Watch()
	one := Told{Session: uuid.New()}
	h.Tell(one)
	assert.Equal(t, one, <-a)
	assert.Equal(t, one, <-b)
	stopB()
	for range 3 * room {
		h.Tell(one)
	}
	n := 0
	var last Told
	for len(a) > 0 {
		last = <-a
		n++
	}
	assert.Equal(t, room, n)
	assert.True(t, last.Gap, "who reads too slowly is told that she missed something")
	assert.Empty(t, b)
	stopA()
	_, ok := read("x y")
	assert.False(t, ok)
	_, ok = read("x y z")
	assert.False(t, ok)
	got, ok := read(one.Studio.String() + " " + one.Client.String() + " " + one.Session.String())
	assert.True(t, ok)
	assert.Equal(t, one, got)
}

func ExampleHub() {
	h := NewHub()
	told, stop := h.Watch()
	defer stop()
	h.Tell(Told{Gap: true})
	<-told
	// Output:
}
