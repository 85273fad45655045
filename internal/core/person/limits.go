package person

import (
	"musculus/internal/core/movement"
)

// Limit is a setting's limit that a modification asks for: at most, at least or
// the word.
type Limit struct {
	Key         movement.Key
	Least, Most *float64
	Word        string
}

func otherWord(s movement.SetUp, k movement.Key, not string) string {
	if setting := s.Movement.Setting(k); setting != nil {
		for _, w := range setting.Choices {
			if w != not {
				return w
			}
		}
	}
	return ""
}

func least(k movement.Key, x float64) Limit { return Limit{Key: k, Least: &x} }
func most(k movement.Key, x float64) Limit  { return Limit{Key: k, Most: &x} }

// Met says whether a set-up keeps a limit.
func (l *Limit) Met(s movement.SetUp) bool {
	v, ok := s.Value(l.Key)
	switch {
	case !ok:
		return true
	case l.Word != "":
		return v.Word == l.Word
	}
	return (l.Least == nil || v.Number >= *l.Least-1e-9) && (l.Most == nil || v.Number <= *l.Most+1e-9)
}

// Follow turns a set-up to a reason's limits; false where it cannot be.
func (r *Reason) Follow(s movement.SetUp) (movement.SetUp, bool) {
	if len(r.Limits) == 0 {
		return s, false
	}
	for i := range r.Limits {
		l := &r.Limits[i]
		if l.Met(s) {
			continue
		}
		to := movement.Value{Word: l.Word}
		setting := s.Movement.Setting(l.Key)
		if setting == nil {
			return s, false
		}
		if l.Word == "" {
			found := false
			for _, x := range setting.Steps() { // the nearest step that keeps it
				near := movement.Num(x)
				if (l.Least == nil || x >= *l.Least-1e-9) && (l.Most == nil || x <= *l.Most+1e-9) &&
					(!found || abs(x-s.Number(l.Key)) < abs(to.Number-s.Number(l.Key))) {
					to, found = near, true
				}
			}
			if !found {
				return s, false
			}
		}
		var err error
		if s, err = s.With(l.Key, to); err != nil {
			return s, false
		}
	}
	return s, true
}

// limitWords tells limits: "bench at least 55°".
func limitWords(s movement.SetUp, limits []Limit) string {
	out := ""
	for i, l := range limits {
		if i > 0 {
			out += " and "
		}
		setting := s.Movement.Setting(l.Key)
		if setting == nil {
			continue
		}
		switch {
		case l.Word != "":
			out += "take the " + movement.ChoiceWords(l.Key, l.Word)
		case l.Least != nil:
			out += lower(setting.Label) + " at least " + setting.ValueWords(movement.Num(*l.Least))
		default:
			out += lower(setting.Label) + " at most " + setting.ValueWords(movement.Num(*l.Most))
		}
	}
	return out
}
