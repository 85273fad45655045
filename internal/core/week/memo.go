package week

import (
	"errors"
	"sync"

	"musculus/internal/core/arm"
	"musculus/internal/core/dose"
	"musculus/internal/core/effort"
	"musculus/internal/core/fitting"
	"musculus/internal/core/movement"
	"musculus/internal/core/person"
	"musculus/internal/core/plan"
	"musculus/internal/core/stance"
)

// Memo remembers what set-ups come to for one body under one stance. It may be
// used by many at once.
type Memo struct {
	y  *effort.Yardstick
	st *stance.Stance
	mu sync.Mutex
	of map[memoKey]*known
}

// memoKey is a set-up: the movement as an object, so that a studio's own of the
// same name is another.
type memoKey struct {
	movement *movement.Movement
	key      string
}

// known is what one set-up comes to, before any dose.
type known struct {
	profile *effort.Profile
	refused string
	reading stance.Reading
	gives   [arm.HeadCount]Effective  // of one hard set
	zones   [arm.HeadCount][3]float64 // of it at short, middle and long length
	joints  movement.JointScores
	station string
	group   string
	carry   person.Carry
	shape   *fitting.Shape // nil where there is none
}

// mostKnown bounds the memory; beyond it everything is worked out anew.
const mostKnown = 4000

// NewMemo makes an empty memo.
func NewMemo(y *effort.Yardstick, st *stance.Stance) *Memo {
	return &Memo{y: y, st: st, of: map[memoKey]*known{}}
}

func (m *Memo) look(s movement.SetUp) *known {
	key := memoKey{s.Movement, s.Key()}
	m.mu.Lock()
	k := m.of[key]
	m.mu.Unlock()
	if k != nil {
		return k
	}
	k = learn(s, m.y, m.st) // nobody waits for it; that two learn the same at once does no harm
	m.mu.Lock()
	defer m.mu.Unlock()
	if len(m.of) >= mostKnown {
		m.of = map[memoKey]*known{}
	}
	m.of[key] = k
	return k
}

// learn works a set-up out.
func learn(s movement.SetUp, y *effort.Yardstick, st *stance.Stance) *known {
	k := &known{joints: s.Joints(), station: plan.StationOf(s), group: plan.GroupOf(s), carry: person.CarryOf(s)}
	if s.Movement.Computed() {
		p, err := s.Profile(y)
		if err != nil {
			k.refused = err.Error()
			var refused *effort.Refused
			if errors.As(err, &refused) {
				k.refused = refused.Reason
			}
			return k
		}
		k.profile = p
	}
	k.reading = stance.Shipped.Read(st, s, k.profile)
	for h := range k.reading {
		k.gives[h] = creditOf(&k.reading[h], k.profile == nil)
		if k.profile != nil && k.profile.Heads[h].Agonist {
			for z, part := range k.profile.Heads[h].InZone {
				k.zones[h][z] = dose.Counted(k.gives[h].Mid * dose.Counted(part))
			}
		}
	}
	shape := fitting.ShapeFrom(s, k.profile, &k.reading)
	k.shape = &shape
	return k
}
