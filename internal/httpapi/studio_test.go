package httpapi_test

import (
	"testing"

	"musculus/internal/httpapi/studio"
	"musculus/internal/view"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"
)

// Today is the studio's: where it is tomorrow already, sessions, sets and sheets are
// of tomorrow; an unknown zone is refused at its field.
func TestTodayIsTheStudios(t *testing.T) {
	s := open(t)
	c := s.signedIn(t, wren)
	today := func() string { return got[struct{ Today string }](c, 200, c.call("GET", "/me", nil)).Today }
	when := func() string {
		return got[view.SessionView](c, 200, c.call("GET", sessionPath("Noor Halloran"), nil)).When
	}
	assert.Equal(t, "2026-11-25", today())
	assert.Equal(t, "tomorrow", when())
	far := got[studio.StudioView](c, 200, c.call("PUT", "/studio/zone", map[string]any{"zone": "Pacific/Kiritimati"}))
	assert.Equal(t, "Thursday, 26\u00a0November\u00a02026", far.Today, "14 hours ahead of ten in the morning")
	assert.Equal(t, far, got[studio.StudioView](c, 200, c.call("GET", "/studio", nil)))
	assert.Equal(t, "2026-11-26", today())
	assert.Equal(t, "today", when())
	set := loggedSet().(map[string]any)
	require.Equal(t, 200, c.call("POST", sessionPath("Aurelio Finch")+"/log", set).status)
	card := got[struct {
		Clients []struct{ Name, Trained string }
	}](c, 200, c.call("GET", "/clients", nil))
	for _, one := range card.Clients {
		if one.Name == "Aurelio Finch" {
			assert.Equal(t, "trained today", one.Trained)
		}
	}
	p := got[problem](c, 422, c.call("PUT", "/studio/zone", map[string]any{"zone": "Mars/Olympus"}))
	assert.Equal(t, []string{"body.zone"}, p.locations())
	other := s.signedIn(t, s.elsewhere(t))
	assert.Equal(t, "UTC", got[studio.StudioView](other, 200, other.call("GET", "/studio", nil)).Zone)
}
