// Command musculus is the whole product in one binary: the server with its
// embedded front end, the demo, and the interchange on the command line.
package main

import (
	"fmt"
	"log/slog"
	"os"
)

type command struct {
	name, what string
	run        func(args []string) int
}

// commands are the subcommands, one file each.
var commands = []command{
	{"serve", "serve the product on a database of your own", runServe},
	{"demo", "serve the made-up studio on a private database", runDemo},
	{"account", "studios and accounts without a browser: list, studio-add, add, reset, disable, enable", runAccount},
	{"posture", "postures in, lengths and moment arms out (JSON lines)", runPosture},
	{"profile", "set-ups in, profiles out (JSON lines)", runProfile},
	{"movements", "write the catalogue (JSON lines)", runMovements},
	{"words", "plain gym words in, what they say out (JSON lines)", runWords},
	{"series", "courses of a set-up in, what they do out (JSON lines)", runSeries},
	{"draft", "problems of a week in, composed weeks out (JSON lines)", runDraft},
	{"openapi", "write the description of the API", runOpenAPI},
}

// logLevel is from where on the log tells: of every request where it serves, of what
// went wrong only where somebody tries the demo in a terminal.
var logLevel slog.LevelVar

func main() {
	slog.SetDefault(slog.New(slog.NewJSONHandler(os.Stderr, &slog.HandlerOptions{Level: &logLevel})))
	if len(os.Args) > 1 {
		for _, c := range commands {
			if c.name == os.Args[1] {
				os.Exit(c.run(os.Args[2:]))
			}
		}
		fmt.Fprintf(os.Stderr, "musculus: there is no command %q\n", os.Args[1])
	}
	fmt.Fprintln(os.Stderr, "usage: musculus COMMAND [flags]")
	for _, c := range commands {
		fmt.Fprintf(os.Stderr, "  %-10s %s\n", c.name, c.what)
	}
	os.Exit(2)
}

// fail prints an error and returns the exit status for it.
func fail(err error) int {
	fmt.Fprintln(os.Stderr, "musculus:", err)
	return 1
}
