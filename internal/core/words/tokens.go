package words

import (
	"strings"
	"unicode"
)

// This file cuts a text into plain words and mends what is misspelt.

// tokens are a text's words in small letters, without plurals; hyphens part words.
func tokens(text string) []string {
	fields := strings.FieldsFunc(strings.ToLower(text), func(r rune) bool {
		return !unicode.IsLetter(r) && !unicode.IsDigit(r) && r != markOf
	})
	for i := range fields {
		fields[i] = stem(fields[i])
	}
	return fields
}

// stem takes a plural's end off; muscles keep theirs.
func stem(w string) string {
	switch w {
	case "biceps", "triceps", "across", "abs":
		return w
	case "ups":
		return "up"
	}
	switch {
	case len(w) > 4 && strings.HasSuffix(w, "sses"), len(w) > 4 && strings.HasSuffix(w, "shes"), len(w) > 4 && strings.HasSuffix(w, "ches"):
		return w[:len(w)-2]
	case len(w) > 4 && strings.HasSuffix(w, "ies"):
		return w[:len(w)-3] + "y"
	case len(w) > 3 && strings.HasSuffix(w, "s") && !strings.HasSuffix(w, "ss") && !strings.HasSuffix(w, "us"):
		return w[:len(w)-1]
	}
	return w
}

// mended is the known word a misspelt one is nearest to; false where there is none, or
// more than one.
func (v *vocabulary) mended(w string) (string, bool) {
	if len(w) < 4 || strings.IndexFunc(w, unicode.IsDigit) >= 0 {
		return "", false
	}
	allowed := 1
	if len(w) >= 8 {
		allowed = 2
	}
	best, found, twice := allowed+1, "", false
	for known := range v.single {
		if len(known) < 4 || known[0] != w[0] { // the first letter is rarely wrong
			continue
		}
		switch d := distance(w, known, allowed); {
		case d < best:
			best, found, twice = d, known, false
		case d == best && known != found:
			twice = true
		}
	}
	return found, best <= allowed && !twice
}

// distance is how many letters must be changed, left out, put in or exchanged with their
// neighbour, at most most+1.
func distance(a, b string, most int) int {
	if d := len(a) - len(b); d > most || -d > most {
		return most + 1
	}
	prev2, prev, here := make([]int, len(b)+1), make([]int, len(b)+1), make([]int, len(b)+1)
	for j := range prev {
		prev[j] = j
	}
	for i := 1; i <= len(a); i++ {
		here[0] = i
		for j := 1; j <= len(b); j++ {
			cost := 1
			if a[i-1] == b[j-1] {
				cost = 0
			}
			here[j] = min(prev[j]+1, here[j-1]+1, prev[j-1]+cost)
			if i > 1 && j > 1 && a[i-1] == b[j-2] && a[i-2] == b[j-1] {
				here[j] = min(here[j], prev2[j-2]+1)
			}
		}
		prev2, prev, here = prev, here, prev2
	}
	return prev[len(b)]
}
