package text_test

import (
	"strings"
	"testing"

	"github.com/stretchr/testify/assert"

	"musculus/internal/core/text"
)

func TestWhatATextMayHold(t *testing.T) {
	for _, s := range []string{"", "Arme, größer – “ja” 20 °", "腕", "tab\there"} {
		assert.Empty(t, text.Fault(s, true), s)
	}
	for _, s := range []string{"a\x00b", "\x1b[31m", "a\x7f", "a\u0085", "a\u2028b", "a\u202eb"} {
		assert.NotEmpty(t, text.Fault(s, false), "%q", s)
		assert.NotContains(t, text.Fault(s, false), s)
	}
	assert.NotEmpty(t, text.Fault("two\nlines", true))
	assert.Empty(t, text.Fault("two\nlines", false))
}

func TestWhatIsWrongInADocumentIsToldWithItsPlace(t *testing.T) {
	notes := func(field string) bool { return field == "notes" }
	for doc, want := range map[string]string{
		`{"name": "x", "notes": "a\nb", "slots": [{"load": 12.5}]}`: "",
		`{"slots": [{"load": 1e305}]}`:                              "slots[0].load",
		`{"slots": [{}, {"name": "a\u0000b"}]}`:                     "slots[1].name",
		`{"name": "a\nb"}`:                                          "name",
		`{"notes": ["a\nb"]}`:                                       "",
		`{"settings": {"a\nb": 1}}`:                                 "settings",
		`{"version": 99999999999}`:                                  "version",
		`[1, 2, -1e12]`:                                             "[2]",
		`{"half":`:                                                  "", // no JSON: somebody else tells
		`nonsense`:                                                  "",
	} {
		at, why := text.JSONFault([]byte(doc), notes)
		assert.Equal(t, want, at, doc)
		assert.Equal(t, want != "", why != "", doc)
	}
	deep := strings.Repeat("[", 50) + strings.Repeat("]", 50)
	_, why := text.JSONFault([]byte(deep), notes)
	assert.Contains(t, why, "nested")
}

func FuzzJSONFault(f *testing.F) {
	for _, s := range []string{`{"a":[1,{"b":"c"}]}`, `[[[[]]]]`, `{"a":1e999}`, "{\"\x00\":1}"} {
		f.Add([]byte(s))
	}
	f.Fuzz(func(t *testing.T, b []byte) {
		text.JSONFault(b, func(string) bool { return false })
	})
}
