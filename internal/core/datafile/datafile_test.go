package datafile_test

import (
	"testing"

	"github.com/stretchr/testify/assert"
	"github.com/stretchr/testify/require"

	"musculus/internal/core/datafile"
)

type row struct {
	ID    string   `yaml:"id"`
	Count int      `yaml:"count"`
	Words []string `yaml:"words"`
	Least *int     `yaml:"least"`
}

func TestFaultsHaveFileLineEntryAndField(t *testing.T) {
	for name, c := range map[string]struct {
		text string
		want []string
	}{
		"whole":          {"# a comment\n- {id: a, count: 3}\n", nil},
		"nothing":        {"", nil},
		"only a comment": {"# later\n", nil},
		"unknown field":  {"- id: a\n  cuont: 3\n", []string{"f:2: entry 1 (a): cuont: there is no such field"}},
		"wrong kinds": {"- id: a\n  count: many\n  words: 3\n- id: b\n  count: [1]\n",
			[]string{"f:2: entry 1 (a): count: ", "f:3: entry 1 (a): words: ", "f:5: entry 2 (b): count: "}},
		"written twice":       {"- id: a\n  count: 1\n  count: 2\n", []string{"f:3: "}},
		"syntax":              {"- id: a\n  words: [\n", []string{"f:2: "}},
		"no list":             {"id: a\n", []string{"f:1: not a list of entries"}},
		"an entry is a word":  {"- id: a\n- word\n", []string{"f:2: entry 2: not a list of fields"}},
		"several documents":   {"- id: a\n---\n- id: b\n  x: 1\n", []string{"f:4: entry 2 (b): x: there is no such field"}},
		"one field by itself": {"- id: a\n", nil},
	} {
		_, faults := datafile.Read[row]("f", []byte(c.text))
		require.Len(t, faults, len(c.want), "%s: %v", name, faults)
		for i, want := range c.want {
			assert.Contains(t, faults[i].Error(), want, name)
		}
	}
}

func TestOptionalFieldsAreFilled(t *testing.T) {
	entries, faults := datafile.Read[row]("f", []byte("- {id: a, least: 3, words: [x, y]}\n- {id: b}\n"))
	require.Empty(t, faults)
	require.NotNil(t, entries[0].Row.Least)
	assert.Equal(t, 3, *entries[0].Row.Least)
	assert.Equal(t, []string{"x", "y"}, entries[0].Row.Words)
	assert.Nil(t, entries[1].Row.Least)
}

func TestAFaultOfAPathStandsAtItsFirstPart(t *testing.T) {
	entries, faults := datafile.Read[row]("f", []byte("- id: a\n  count: 1\n  words: [x]\n"))
	require.Empty(t, faults)
	assert.Equal(t, "f:3: entry 1 (a): words.x: too long", entries[0].Fault("words.x", "too %s", "long").Error())
	assert.Equal(t, 1, entries[0].Fault("missing", "is not there").Line)
	assert.Equal(t, []string{"count", "id", "least", "words"}, datafile.Fields(row{}))
}
