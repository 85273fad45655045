package movement

// Ways lists how a set-up can be held otherwise: every implement of the movement with
// every laterality it can have, the rest as it is; itself first.
func (s SetUp) Ways() []SetUp {
	out := []SetUp{s}
	seen := map[string]bool{s.Key(): true}
	implements, hands := []Value{{}}, []Value{{}}
	if k := s.Movement.Setting(Implement); k != nil {
		implements = k.Values()
	}
	if k := s.Movement.Setting(Hands); k != nil {
		hands = k.Values()
	}
	for _, i := range implements {
		for _, h := range hands {
			to := s
			var err error
			if i.Word != "" {
				if to, err = to.With(Implement, i); err != nil {
					continue
				}
			}
			if h.Word != "" && to.Uses(Hands) {
				if to, err = to.With(Hands, h); err != nil {
					continue
				}
			}
			if !seen[to.Key()] {
				seen[to.Key()] = true
				out = append(out, to)
			}
		}
	}
	return out
}

// HeldWords tells what a way is held with: "with one arm, dumbbell".
func (s SetUp) HeldWords() string { return "with " + s.implementWords() }
