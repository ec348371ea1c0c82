# make demo starts the program with the demo farm; make test installs what the tests need and passes them all.
.PHONY: demo test go-test browser-test bench

demo:
	go run ./cmd/dewcount demo

test: go-test browser-test

go-test:
	test -z "$$(gofmt -l $$(git ls-files '*.go'))"
	go vet ./...
	go test -timeout 30m ./...

browser-test:
	command -v chromium >/dev/null || (apt-get update -q && DEBIAN_FRONTEND=noninteractive apt-get install -y -q --no-install-recommends chromium)
	go build -o e2e/bin/dewcount ./cmd/dewcount
	cd e2e && PLAYWRIGHT_SKIP_BROWSER_DOWNLOAD=1 npm ci --no-fund --no-audit --loglevel=error && npx playwright test

bench:
	go test -run '^$$' -bench . -cpu 1 ./core/forecast ./demo ./web
