package e2e

import (
	"os"
	"path/filepath"
	"testing"
	"time"

	"musculus/internal/demo"
)

// TestScreenshots refreshes the pictures of the main views from the demo data
// (make screenshots); without MUSCULUS_SHOTS it only checks that every view
// comes up.
func TestScreenshots(t *testing.T) {
	dir := os.Getenv("MUSCULUS_SHOTS")
	a := start(t)
	views := []struct {
		name, path, ready string
		size              [2]int64
	}{
		{"clients", "/clients", ".client-card", laptop},
		{"week", "/clients/" + demo.ClientID("Aurelio Finch").String() + "/week", ".stage .pose", laptop},
		{"sheet", "/clients/" + demo.ClientID("Aurelio Finch").String() + "/sheet", ".sheet-slot", laptop},
		{"log", "/clients/" + demo.ClientID("Tobias Quill").String() + "/log", ".set-form", laptop},
		{"log-phone", "/clients/" + demo.ClientID("Tobias Quill").String() + "/log", ".set-form", phone},
		{"week-phone", "/clients/" + demo.ClientID("Dario Vance").String() + "/week", ".stage .pose", phone},
	}
	for _, v := range views {
		p := a.signedIn(t, wren, v.size, v.path)
		p.until("document.querySelector('" + v.ready + "')")
		p.until("document.fonts.status === 'loaded'")
		if dir != "" {
			if v.name == "week" {
				p.click(".slot:nth-child(2) .slot-face")
				p.until("document.querySelector('.stage h2').innerText.includes('Reclined')")
			}
			time.Sleep(600 * time.Millisecond)
			p.shot(filepath.Join(dir, v.name+".png"))
		}
	}
}
