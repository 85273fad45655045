package e2e

import (
	"os"
	"path/filepath"
	"testing"
	"time"

	"musculus/internal/core/movement"
)

// TestEveryMovementCanBeBuilt puts every movement of the catalogue into one
// session, by search, and looks at it; with MUSCULUS_GALLERY set the figures
// are written there, to be looked at by eye.
func TestEveryMovementCanBeBuilt(t *testing.T) {
	a := start(t)
	p := a.signedIn(t, wren, laptop, clientPath("Aurelio Finch", "week"))
	p.until(`document.querySelector('.stage .pose')`)
	for _, m := range movement.Shipped.Movements {
		p.clickText("+ movement")
		p.typeInto(`input[aria-label="Find a movement"]`, m.ID)
		p.click(`.pick`)
		p.until(`document.querySelector('.stage h2')?.innerText === ` + "`" + m.Default().Title() + "`")
		if dir := os.Getenv("MUSCULUS_GALLERY"); dir != "" {
			time.Sleep(150 * time.Millisecond)
			p.shotOf(".stage-figure", filepath.Join(dir, m.ID+".png"))
		}
		p.clickText("×")
	}
}
