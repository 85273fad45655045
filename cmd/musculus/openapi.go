package main

import (
	"flag"
	"os"

	"musculus/internal/httpapi"
)

// runOpenAPI writes the document of the interface, or the schema of a plan's file.
func runOpenAPI(args []string) int {
	flags := flag.NewFlagSet("openapi", flag.ExitOnError)
	plan := flags.Bool("plan", false, "the schema of a plan's file instead")
	if err := flags.Parse(args); err != nil {
		return fail(err)
	}
	write := httpapi.OpenAPI
	if *plan {
		write = httpapi.PlanSchema
	}
	b, err := write()
	if err != nil {
		return fail(err)
	}
	if _, err := os.Stdout.Write(b); err != nil {
		return fail(err)
	}
	return 0
}
