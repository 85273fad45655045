package main

import (
	"os"

	"musculus/internal/httpapi"
)

func runOpenAPI([]string) int {
	b, err := httpapi.OpenAPI()
	if err != nil {
		return fail(err)
	}
	if _, err := os.Stdout.Write(b); err != nil {
		return fail(err)
	}
	return 0
}
