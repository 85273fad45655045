// Package secret is what a password must be, and how long whoever guesses waits. What
// is kept of one, and where, is the store's.
package secret

import (
	"bytes"
	"crypto/sha256"
	_ "embed"
	"fmt"
	"sort"
	"strings"
	"time"
	"unicode"
	"unicode/utf8"
)

// How long a password is, characters.
const (
	FewestCharacters = 12
	MostCharacters   = 128
)

// common are the first eight bytes of the SHA-256 of twenty thousand passwords that are
// used most, in order: enough to know one by, not to read them.
//
//go:embed common.bin
var common []byte

const hashed = 8 // bytes of each

// Check says what is wrong with a password, "" when nothing is; about are words of its
// owner's that it may not be made of, such as an address or a name.
func Check(password string, about ...string) string {
	n := utf8.RuneCountInString(password)
	switch {
	case !utf8.ValidString(password) || strings.ContainsRune(password, 0):
		return "this is no text"
	case n < FewestCharacters:
		return fmt.Sprintf("at least %d characters: several words are easy to keep in mind", FewestCharacters)
	case n > MostCharacters:
		return fmt.Sprintf("at most %d characters", MostCharacters)
	case strings.TrimSpace(password) == "":
		return "spaces alone are soon guessed"
	}
	stem := stem(password)
	left := stem
	for _, word := range about {
		for _, part := range strings.FieldsFunc(strings.ToLower(word), func(r rune) bool { return !unicode.IsLetter(r) && !unicode.IsDigit(r) }) {
			if utf8.RuneCountInString(part) >= 4 {
				left = strings.ReplaceAll(left, part, "")
			}
		}
	}
	if left != stem && utf8.RuneCountInString(strings.Trim(left, " .-_@")) < FewestCharacters/2 {
		return "made of your own name or address it is the first that is guessed"
	}
	if isCommon(strings.ToLower(password)) || isCommon(stem) || isRun(stem) {
		return "this is one of the first that are guessed: take several words that have nothing to do with one another"
	}
	return ""
}

// stem is what a password comes to without what is usually put round a word: letters as
// they are meant, no digits and signs at its ends, and one of what is said over and over.
func stem(password string) string {
	s := strings.Map(func(r rune) rune {
		if meant, ok := meant[r]; ok {
			return meant
		}
		return unicode.ToLower(r)
	}, strings.TrimFunc(password, func(r rune) bool { return !unicode.IsLetter(r) }))
	if s == "" {
		s = password
	}
	for k := 1; k <= len(s)/2; k++ {
		if len(s)%k == 0 && strings.Repeat(s[:k], len(s)/k) == s {
			return s[:k]
		}
	}
	return s
}

var meant = map[rune]rune{'@': 'a', '4': 'a', '0': 'o', '1': 'l', '!': 'i', '3': 'e', '$': 's', '5': 's', '7': 't'}

func isCommon(password string) bool {
	sum := sha256.Sum256([]byte(password))
	at := func(i int) []byte { return common[i*hashed : (i+1)*hashed] }
	n := len(common) / hashed
	i := sort.Search(n, func(i int) bool { return bytes.Compare(at(i), sum[:hashed]) >= 0 })
	return i < n && bytes.Equal(at(i), sum[:hashed])
}

// isRun says that it is one character, or goes up or down by one all the way.
func isRun(s string) bool {
	r := []rune(s)
	if len(r) < 2 {
		return true
	}
	step := r[1] - r[0]
	if step < -1 || step > 1 {
		return false
	}
	for i := 2; i < len(r); i++ {
		if r[i]-r[i-1] != step {
			return false
		}
	}
	return true
}

// What guesses are counted by.
type Door int

// The doors: an account, a browser that has signed in to it before, and an address of
// the network, behind which many may sit.
const (
	Account Door = iota
	Device
	Address
)

// free is how many may fail at a door before anybody waits.
var free = map[Door]int{Account: 5, Device: 10, Address: 30}

// Guesses are counted for an hour; nobody waits longer than MostWait after one. With both,
// fewer than a hundred an hour are tried at an account, however many try.
const (
	Counted  = time.Hour
	MostWait = time.Minute
)

// Wait is how long the next guess at a door waits after so many have failed: nothing at
// first, then a second, doubled each time.
func Wait(d Door, failures int) time.Duration {
	over := failures - free[d]
	switch {
	case over < 0:
		return 0
	case over >= 6:
		return MostWait
	}
	return time.Second << over
}

// How long a sign-in lasts: from when it was last used, on a device of one's own and
// elsewhere; and however often it is used.
const (
	Idle    = 12 * time.Hour
	IdleOwn = 30 * 24 * time.Hour
	Longest = 90 * 24 * time.Hour
)

// IdleOf is how long a sign-in may lie unused.
func IdleOf(ownDevice bool) time.Duration {
	if ownDevice {
		return IdleOwn
	}
	return Idle
}
