package movement

import (
	"testing"

	"github.com/stretchr/testify/assert"
)

const goodFamilies = "- {id: f, label: x, stop: y, joints: {}, upper_arm: fixed}"

func TestFaultsOfTheCatalogueAreListedAtOnceWithTheirLines(t *testing.T) {
	_, err := load([]byte(goodFamilies), []byte("[]"), map[string][]byte{"a.yaml": []byte(`# a comment
- {id: one, name: One, action: flexion, family: nowhere, implements: [dumbbell], to: {elbow_flexion: 90}, load: free}

- id: two
  name: Two
  action: flexion
  family: f
  implements: [dumbbell]
  to: {elbow_flexion: 90}
  load: free
  settings: [{key: bench, min: 60, max: 30}]
- {id: three, name: Three, action: flexion, family: f, implements: [dumbbell], to: {elbow_flexion: 90}, load: free, settings: [tightness]}
- {id: three, name: Three, action: flexion, family: f, to: {elbow_flexion: 90}, load: free}
`), "b.yaml": []byte("- {id: four, nmae: Four}")}, "a.yaml", "b.yaml")
	for _, want := range []string{
		`a.yaml:2: entry 1 (one): family: there is no "nowhere"`,
		"a.yaml:4: entry 2 (two): settings.bench: needs min below max",
		"a.yaml:12: entry 3 (three): settings.tightness: there is no such setting",
		"a.yaml:13: entry 4 (three): implements: missing",
		"b.yaml: [1:", "nmae",
	} {
		assert.ErrorContains(t, err, want)
	}
}

func TestWordsLeadToMovements(t *testing.T) {
	found := false
	for _, p := range Phrases {
		for _, w := range p.Words {
			if w == "preacher" {
				found = true
				assert.Equal(t, "curl_pad_bar", p.IDs[0])
				assert.NotEmpty(t, p.Ask)
			}
			assert.NotContains(t, p.Ask, "_", "asked in words, not in ids: %s", w)
		}
	}
	assert.True(t, found)
}
