# make demo starts the program with the demo farm; make test installs what the tests need and passes them all.
.PHONY: demo test go-test race-test browser-test bench

demo:
	go run ./cmd/dewcount demo

test: go-test race-test browser-test

go-test:
	test -z "$$(gofmt -l $$(git ls-files '*.go'))"
	go mod tidy -diff
	go vet ./...
	go tool staticcheck ./...
	go test -timeout 30m ./...

# What many do at once is run once more under the race detector, which wants a C compiler. Other tests do one thing after the other, and take ten times as long there.
race-test:
	command -v gcc >/dev/null || (apt-get update -q && DEBIAN_FRONTEND=noninteractive apt-get install -y -q --no-install-recommends gcc libc6-dev)
	CGO_ENABLED=1 go test -race -timeout 30m ./people ./records ./web/page
	CGO_ENABLED=1 go test -race -timeout 30m -run 'AtOnce|TestLimitsHold|TestNoStemIsPromisedTwice' ./core/forecast ./core/plan ./farm ./farm/market ./web

# Chromium without its own windows: the whole one takes twice the processor's time for the same pages.
browser-test:
	command -v chromium-headless-shell >/dev/null || (apt-get update -q && DEBIAN_FRONTEND=noninteractive apt-get install -y -q --no-install-recommends chromium-headless-shell)
	go build -o e2e/bin/dewcount ./cmd/dewcount
	cd e2e && PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD=1 npm ci --no-fund --no-audit --loglevel=error && npx playwright test

bench:
	go test -run '^$$' -bench . -cpu 1 ./core/forecast ./demo ./web
