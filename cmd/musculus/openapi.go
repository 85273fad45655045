package main

import (
	"flag"
	"os"

	"musculus/internal/figure"
	"musculus/internal/httpapi"
)

// runOpenAPI writes the document of the interface, or the schema of a plan's file.
func runOpenAPI(args []string) int {
	flags := flag.NewFlagSet("openapi", flag.ExitOnError)
	plan := flags.Bool("plan", false, "the schema of a plan's file instead")
	problem := flags.Bool("draft", false, "the schema of a week to be composed instead")
	palette := flags.Bool("palette", false, "the pictures' palette as a style sheet instead")
	if err := flags.Parse(args); err != nil {
		return fail(err)
	}
	write := httpapi.OpenAPI
	switch {
	case *plan:
		write = httpapi.PlanSchema
	case *problem:
		write = httpapi.DraftSchema
	case *palette:
		write = func() ([]byte, error) { return []byte(figure.PaletteCSS()), nil }
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
