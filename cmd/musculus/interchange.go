package main

import (
	"bufio"
	"os"

	"musculus/internal/core/arm"
	"musculus/internal/core/effort"
	"musculus/internal/core/movement"
	"musculus/internal/core/words"
	"musculus/internal/formats"
)

func runPosture([]string) int { return answerLines(formats.Posture) }

func runProfile([]string) int {
	var p formats.Profiles
	return answerLines(p.Answer)
}

func runSeries([]string) int { return answerLines(formats.Series) }

func runMovements([]string) int {
	y, err := effort.NewYardstick(arm.DefaultBody)
	if err != nil {
		return fail(err)
	}
	w := bufio.NewWriter(os.Stdout)
	if err := formats.WriteMovements(w, movement.Shipped, y); err != nil {
		return fail(err)
	}
	if err := w.Flush(); err != nil {
		return fail(err)
	}
	return 0
}

// answerLines answers standard input; 1 when a line was malformed.
func answerLines(answer func([]byte) (any, error)) int {
	malformed, err := formats.Lines(os.Stdin, os.Stdout, os.Stderr, answer)
	if err != nil {
		return fail(err)
	}
	if malformed > 0 {
		return 1
	}
	return 0
}

func runWords([]string) int {
	return answerLines(formats.Words(words.New(movement.Shipped, nil, words.Near)))
}
