package secret_test

import (
	"fmt"
	"strings"
	"testing"
	"time"

	"github.com/stretchr/testify/assert"

	"musculus/internal/core/secret"
)

func TestWhatAPasswordMayBe(t *testing.T) {
	for _, good := range []string{
		"three quiet lamps", "correct lamp ferry nine", "żółw na łódce!", "🦀🦐🐙🐚🪸🐠🐡🦈🐳🦑🐬🐟", "a  b  c  d  e  f", "Tide-table-1926-marmalade",
	} {
		assert.Empty(t, secret.Check(good, "wren@saltmarsh.example", "Wren Adeyemi-Holt"), good)
	}
	for bad, says := range map[string]string{
		"":                             "at least 12",
		"short":                        "at least 12",
		"🦀🦀🦀":                          "at least 12",
		strings.Repeat(" ", 14):        "spaces alone",
		strings.Repeat("long ", 30):    "at most 128",
		"abcdefghijklmnop":             "first that are guessed",
		"111111111111":                 "first that are guessed",
		"PasswordPassword":             "first that are guessed",
		"P@ssw0rd!2026":                "first that are guessed",
		"password123456":               "first that are guessed",
		"qwertyuiop2026!":              "first that are guessed",
		"wren@saltmarsh":               "your own name",
		"Saltmarsh2026!!":              "your own name",
		"wren adeyemi-holt":            "your own name",
		"nul\x00in the middle of it":   "no text",
		"broken \xff\xfe utf eight ok": "no text",
	} {
		assert.Contains(t, secret.Check(bad, "wren@saltmarsh.example", "Wren Adeyemi-Holt"), says, "%q", bad)
	}
}

// Whoever guesses as often as may be tries fewer than a hundred an hour, in any hour.
func TestGuessesAreFewInAnyHour(t *testing.T) {
	var tries []time.Duration
	failures, since, next := 0, time.Duration(0), time.Duration(0)
	for at := time.Duration(0); at < 6*time.Hour; at += 100 * time.Millisecond {
		if at < next {
			continue
		}
		if at-since > secret.Counted {
			failures, since = 0, at
		}
		failures++
		tries, next = append(tries, at), at+secret.Wait(secret.Account, failures)
	}
	for i := range tries {
		n := 0
		for _, u := range tries[i:] {
			if u < tries[i]+time.Hour {
				n++
			}
		}
		assert.LessOrEqual(t, n, 100)
	}
	assert.Greater(t, len(tries), 6*40, "and whoever mistypes is not shut out")
}

func ExampleWait() {
	for _, failures := range []int{1, 4, 5, 7, 30} {
		fmt.Println(failures, secret.Wait(secret.Account, failures))
	}
	// Output:
	// 1 0s
	// 4 0s
	// 5 1s
	// 7 4s
	// 30 1m0s
}
