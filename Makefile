# make demo    builds everything and serves the demo on 127.0.0.1 (PORT changes 8420)
# make test    installs what the tests need and runs them all
# make quick   the core alone, in under half a minute
# make page-bench  the page's own speed, by the browser's clock
SHELL := /bin/bash
# gin without MessagePack, the path library without its TeX engine: nothing here uses them.
export GOFLAGS := -buildvcs=false -tags=nomsgpack,latex
export CGO_ENABLED := 0
PORT ?= 8420
GO_DIRS := arch cmd core demo e2e exchange say server store tools vision web/web.go
GO_SRC := $(shell find cmd core demo exchange say server store vision -name '*.go' -o -name '*.sql' -o -name '*.svg' -o -name '*.woff' -o -path 'say/*.json') go.mod go.sum web/web.go
WEB_SRC := $(shell find web/src web/public web/index.html web/vite.config.ts -type f 2>/dev/null)

# make dist    archives for Windows, macOS and Linux, to give away
.PHONY: audit kills trials mutate dist demo demo-reset build test quick check bench page-bench explore fuzz hostile shots types clean

demo: bin/ochrestone
	PORT=$(PORT) ./bin/ochrestone demo --data data/demo.db

demo-reset: bin/ochrestone
	PORT=$(PORT) ./bin/ochrestone demo --data data/demo.db --reset

build: bin/ochrestone

# npm install rather than npm ci: the registry here leaves optional packages for
# other systems out of the lock file, which ci refuses. Every version is exact.
web/node_modules/.stamp: web/package.json web/package-lock.json
	cd web && npm install --no-audit --no-fund --loglevel=error
	touch $@

web/dist/index.html: web/node_modules/.stamp $(WEB_SRC)
	cd web && npx vite build --logLevel warn
	touch $@

bin/ochrestone: web/dist/index.html $(GO_SRC)
	go build -trimpath -ldflags='-s -w' -o $@ ./cmd/ochrestone

# The page's types follow the Go types.
types: build
	./bin/ochrestone openapi > web/openapi.json
	cd web && npm run types --silent

test: build
	bash tools/chromium.sh
	cd web && npx vitest run
	set -o pipefail; go test -timeout 25m -json ./e2e $$(go list ./... | grep -v /e2e) | go run ./tools/tests

# The trial cards: what of them the program tells, into docs/TRIALS.md, and what is held by a test.
trials:
	go run ./tools/trials -out docs/TRIALS.md -keep tools/trials/reached.json
	@grep '^\*\*' docs/TRIALS.md

# The core alone, with fewer random cases: under half a minute.
quick:
	go test -short -timeout 2m ./core/...

# Property tests with fresh cases, many of them: run it now and then, and after
# changing geometry. What it finds becomes a named test.
explore:
	EXPLORE=1 go test -count=1 -timeout 60m ./core/shape ./core/measure ./core/colour ./core/register ./core/work ./core/assemble ./core/plan ./vision/mat -rapid.checks=1000

# Three hundred lines of the core broken, one at a time: which of them no test of the core notices.
# It takes hours; N=20 breaks twenty.
mutate:
	go run ./tools/mutate -n $(or $(N),300)

# What is known to be wrong with what we build on; it needs the lists of vuln.go.dev and of the
# npm registry.
audit:
	go run golang.org/x/vuln/cmd/govulncheck@v1.1.4 ./...
	cd web && npm audit

# A program killed a thousand times while it writes, in all the ways it writes.
kills:
	KILLS=1000 go test -count=1 -timeout 30m -run KillsLose -v ./store

check: build
	@test -z "$$(gofmt -l $(GO_DIRS))" || { gofmt -l $(GO_DIRS); exit 1; }
	go vet ./...
	go run honnef.co/go/tools/cmd/staticcheck@v0.8.2 ./...
	cd web && npx tsc --noEmit && npx biome check src scripts

bench: build
	go test -run '^$$' -bench . -benchtime 5x -timeout 60m ./...

# The page alone: the first picture, taps, drags; run it on a machine left alone.
page-bench: build
	bash tools/chromium.sh
	go test -run '^$$' -bench Page -benchtime 3x -timeout 20m ./e2e

# What is given away: one archive for each system, in dist/.
dist: build
	go run ./tools/dist -out dist

# Every reader with bytes nobody would write, ten minutes each (FUZZTIME changes it).
fuzz: build
	bash tools/fuzz.sh

# Five hundred files meant to take the program down.
hostile: build
	go run ./tools/hostile

# Pictures of every main view for docs/screenshots.
shots: build
	bash tools/chromium.sh
	SHOTS=$(CURDIR)/docs/screenshots go test -count=1 -run TestShots ./e2e

clean:
	rm -rf bin web/dist/assets web/dist/index.html web/node_modules
