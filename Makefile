# Everything a newcomer needs is here: make demo, make test.
SHELL := /bin/bash
GO ?= go
NPM ?= npm
SOURCES := $(shell find web/src web/public web/index.html web/vite.config.ts web/package.json -type f 2>/dev/null)
GOFILES := web/embed.go $(shell find cmd internal -name '*.go' -o -name '*.sql' -o -name '*.yaml')
STATICCHECK := honnef.co/go/tools/cmd/staticcheck@v0.8.2
# Not ./...: node_modules has Go files too.
PACKAGES := ./cmd/... ./internal/... ./web
SQLC := github.com/sqlc-dev/sqlc/cmd/sqlc@v1.31.1

.PHONY: demo demo-reset test build generate screenshots figures bench fuzz clean lint-api draft-check simulate

demo: bin/musculus
	@scripts/need postgresql
	@exec bin/musculus demo

demo-reset: bin/musculus
	@scripts/need postgresql
	@exec bin/musculus demo --reset

build: bin/musculus

# One binary with the front end embedded.
bin/musculus: web/dist/index.html $(GOFILES) go.mod
	$(GO) build -o $@ ./cmd/musculus

web/dist/index.html: web/node_modules/.installed $(SOURCES)
	cd web && $(NPM) run --silent build
	@touch $@

web/node_modules/.installed: web/package-lock.json
	cd web && $(NPM) ci --silent --no-audit --no-fund
	@touch $@

# Everything: Go (core, store, HTTP), front end (types, lint, units), browser.
test: bin/musculus
	@scripts/need postgresql chromium
	test -z "$$(gofmt -l cmd internal e2e web/*.go)" || { gofmt -l cmd internal e2e web/*.go; exit 1; }
	$(GO) vet $(PACKAGES) ./e2e
	$(GO) run $(STATICCHECK) $(PACKAGES) ./e2e
	cd web && $(NPM) run --silent typecheck && $(NPM) run --silent lint && $(NPM) run --silent test
	$(GO) test -timeout 10m $(PACKAGES)
	$(GO) test -timeout 14m ./e2e

# Generated code is committed; this makes it anew.
generate:
	$(GO) run $(SQLC) generate
	$(GO) run ./cmd/musculus openapi | python3 -m json.tool --no-ensure-ascii > docs/openapi.json
	$(GO) run ./cmd/musculus openapi --plan | python3 -m json.tool --no-ensure-ascii > docs/formats/plan.schema.json
	$(GO) run ./cmd/musculus openapi --draft | python3 -m json.tool --no-ensure-ascii > docs/formats/draft.schema.json
	$(GO) run ./cmd/musculus openapi --palette > web/src/app/palette.css
	cd web && $(NPM) run --silent api

# The pictures of docs/screenshots, from the demo data.
screenshots: bin/musculus
	@scripts/need postgresql chromium
	MUSCULUS_SHOTS=$(CURDIR)/docs/screenshots $(GO) test ./e2e -run TestScreenshots -count 1

# Every movement's figure on one page: what is looked at when the figure has changed.
figures: bin/musculus
	@scripts/need postgresql chromium
	MUSCULUS_FIGURES=$(CURDIR)/docs/screenshots $(GO) test ./e2e -run TestFigures -count 1

bench:
	$(GO) test -run '^$$' -bench . -benchtime 2s ./internal/...

# What is read from outside, thrown at for longer than a test may take: every
# reader for FUZZTIME, and a hundred thousand odd bodies over the whole API.
FUZZTIME ?= 60s
FUZZERS := formats:FuzzReadPlanJSON formats:FuzzReadPlanCSV formats:FuzzReadPlanXLSX formats:FuzzInterchange core/movement:FuzzCheckOwn core/stance:FuzzParse core/text:FuzzJSONFault
fuzz:
	@scripts/need postgresql
	set -e; for f in $(FUZZERS); do $(GO) test ./internal/$${f%%:*} -run '^$$' -fuzz "^$${f##*:}$$" -fuzztime $(FUZZTIME); done
	$(GO) test ./internal/httpapi -run TestOddBodies -bodies 100000 -timeout 60m -v

# Composed weeks of thirty clients, the demo's eight among them, held against an outside
# solver: its table for docs/performance.md. About an hour and a half.
SOLVER_SECONDS ?= 120
draft-check:
	@command -v cbc >/dev/null || apt-get install -y --no-install-recommends coinor-cbc
	@scripts/need postgresql
	MUSCULUS_PROBLEMS=/tmp/musculus-problems.jsonl $(GO) test -count=1 -run TestTheDemosProblemsCanBeWritten ./internal/httpapi/drafts
	MUSCULUS_SOLVER=cbc MUSCULUS_SOLVER_SECONDS=$(SOLVER_SECONDS) MUSCULUS_PROBLEMS=/tmp/musculus-problems.jsonl \
		$(GO) test -count=1 -timeout 300m -v -run TestAgainstASolver ./internal/core/draft

clean:
	rm -rf bin web/dist/* web/node_modules

# The API's description, read by an outside linter with its recommended rules.
lint-api:
	npx --yes @redocly/cli@1.34.5 lint --extends=recommended docs/openapi.json

# The rates at which a course is called right and wrong, in two thousand made-up histories each.
simulate:
	MUSCULUS_SIMULATE=1 $(GO) test ./internal/core/series -run TestRates -count 1 -v
