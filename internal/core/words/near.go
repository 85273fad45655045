package words

import (
	"sync"

	"musculus/internal/core/arm"
	"musculus/internal/core/effort"
	"musculus/internal/core/fitting"
	"musculus/internal/core/movement"
	"musculus/internal/core/stance"
)

// average is the body that questions are weighed for: whether two set-ups are one idea
// hardly differs between bodies.
var average = sync.OnceValue(func() *effort.Yardstick {
	y, err := effort.NewYardstick(arm.DefaultBody)
	if err != nil {
		panic(err) // the default body has no number that could not be reckoned with
	}
	return y
})

// shapes remembers what set-ups come to; the words of a catalogue turn few of them.
var shapes sync.Map // of shape by the set-up's key

func shapeOf(s movement.SetUp) *fitting.Shape {
	if got, ok := shapes.Load(s.Key()); ok && got.(*remembered).movement == s.Movement {
		return got.(*remembered).shape
	}
	out := &remembered{movement: s.Movement}
	if shape, ok := fitting.ShapeOf(s, average(), stance.ByID(stance.Default)); ok {
		out.shape = &shape
	}
	if movement.Shipped.Get(s.Movement.ID) == s.Movement { // a studio's own may change, and there may be many studios
		shapes.Store(s.Key(), out)
	}
	return out.shape
}

type remembered struct {
	movement *movement.Movement
	shape    *fitting.Shape // nil: it cannot be done
}

// Near says whether two set-ups are one idea by the default stance and the average body,
// so that a question between them would make no difference.
func Near(a, b movement.SetUp) bool {
	x, y := shapeOf(a), shapeOf(b)
	return x != nil && y != nil && fitting.Distance(x, y) < fitting.SameIdea
}
