package e2e

import (
	"os"
	"path/filepath"
	"testing"
	"time"

	"musculus/internal/core/movement"
)

// TestMovementsCanBeBuilt puts movements of the catalogue into one session, by
// search, and looks at them: every ninth, or with MUSCULUS_GALLERY set all, whose
// figures are then written there to be looked at by eye.
func TestMovementsCanBeBuilt(t *testing.T) {
	t.Parallel()
	a := start(t)
	p := a.signedIn(t, wren, laptop, builderPath("Aurelio Finch"))
	p.until(`document.querySelector('.stage_stage .pose_pose')`)
	dir := os.Getenv("MUSCULUS_GALLERY")
	for i, m := range movement.Shipped.Movements {
		if dir == "" && i%9 != 0 {
			continue
		}
		p.clickText("+ movement")
		p.typeInto(`input[aria-label="Find a movement"]`, m.ID)
		// The list closes up when the answer comes; before that a click would find another one.
		p.until(`(n => n > 0 && n < 40)(document.querySelectorAll('.stage_pick').length)`)
		p.clickText(m.Default().Title())
		p.until(`document.querySelector('.stage_stage h2')?.innerText === ` + "`" + m.Default().Title() + "`")
		if dir != "" {
			time.Sleep(150 * time.Millisecond)
			p.shotOf(".stage_figure", filepath.Join(dir, m.ID+".png"))
		}
		p.clickText("×")
	}
}
