package main

import (
	"fmt"
	"net/url"
	"os"
	"strings"
)

// secretOf is what may not be seen by others on this machine: from the environment, or
// from a file that the environment names (NAME_FILE). In an argument it may stand only
// where there is no password in it, as every process sees the arguments of all.
func secretOf(argument, name string) (string, error) {
	if argument != "" {
		if u, err := url.Parse(argument); err == nil {
			if _, has := u.User.Password(); !has && !strings.Contains(argument, "password=") {
				return argument, nil
			}
		}
		return "", fmt.Errorf(
			"a password in an argument is seen by everybody on this machine: put the address into %s, or into a file named by %s_FILE",
			name,
			name,
		)
	}
	if file := os.Getenv(name + "_FILE"); file != "" {
		b, err := os.ReadFile(file)
		if err != nil {
			return "", fmt.Errorf("%s_FILE: %w", name, err)
		}
		return strings.TrimSpace(string(b)), nil
	}
	return os.Getenv(name), nil
}

// The names of what is told to the server in confidence.
const (
	databaseEnv = "MUSCULUS_DATABASE_URL"
	migrateEnv  = "MUSCULUS_MIGRATE_URL"
	mailEnv     = "MUSCULUS_MAIL_URL"
)
