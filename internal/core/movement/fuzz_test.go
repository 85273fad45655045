package movement_test

import (
	"testing"

	"musculus/internal/core/movement"
)

// A studio's own entry, whatever somebody wrote: told what is wrong, or taken as a
// movement that can be worn at its defaults.
func FuzzCheckOwn(f *testing.F) {
	f.Add(
		"- id: own_x\n  name: X\n  action: flexion\n  family: curl_upright\n  implements: [dumbbell]\n  load: free\n  from: " +
			"{elbow_flexion: 10}\n  to: {elbow_flexion: 120}\n",
	)
	for _, id := range []string{"lying_bar", "dip_bars", "curl_reclined", "turn_lever"} {
		text, err := movement.OwnText(movement.Shipped.Get(id).Default(), "own_x", "X")
		if err != nil {
			f.Fatal(err)
		}
		f.Add(text)
	}
	f.Fuzz(func(t *testing.T, text string) {
		if len(text) > 20_000 {
			return
		}
		m, wrong := movement.Shipped.CheckOwn(movement.Own{ID: "own_x", Text: text})
		if (m == nil) == (len(wrong) == 0) {
			t.Fatalf("%v, %v", m, wrong)
		}
		if m != nil {
			s := m.Default()
			_, _, _, _ = s.Name(), s.Key(), s.Cautions(), s.Effort()
		}
	})
}
