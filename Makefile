ADDR ?= 127.0.0.1:8080
# Every recipe works from a clean clone with Go, Node with npm, and make.
.PHONY: demo dev build web generate test bench soak sweep fuzz screenshots fmt chromium

build: web ## leaves ./mezzadro
	go build -o mezzadro ./cmd/mezzadro

demo: build ## serves the made-up sample firm
	./mezzadro demo --addr $(ADDR)

web/node_modules: web/package.json web/package-lock.json
	cd web && npm ci --no-audit --no-fund
	touch $@

web: web/dist/index.html

# The rules that name causes and judge plants, for a page that cannot reach the house, with the loader that Go ships for the browser.
web/src/field/rules.wasm: go.mod $(shell find cmd/field core -type f ! -name '*_test.go')
	GOOS=js GOARCH=wasm go build -trimpath -ldflags='-s -w' -o $@ ./cmd/field
	cp "$$(go env GOROOT)/lib/wasm/wasm_exec.js" web/src/field/wasm_exec.js

web/dist/index.html: web/node_modules web/src/field/rules.wasm $(shell find web/src web/public -type f) web/index.html web/vite.config.ts web/vite.begin.ts web/svelte.config.js
	cd web && npx vite build --logLevel warn

generate: web/node_modules ## openapi.json from the Go types and what they say, TypeScript types from it; the kinds of check for the phone
	go run ./cmd/describe > api/types.json.new && mv api/types.json.new api/types.json
	go run ./cmd/mezzadro openapi > openapi.json.new && mv openapi.json.new openapi.json
	go run ./cmd/mezzadro checks > checks.json.new && mv checks.json.new web/src/api/checks.json
	go run ./cmd/mezzadro forms > forms.json.new && mv forms.json.new web/src/api/forms.json
	cd web && npm run --silent generate

test: web web/dist-device/device.html chromium ## everything that must pass
	@./scripts/test.sh

# A page with what works on the device alone, for its tests; it ships with nothing.
web/dist-device/device.html: web/node_modules web/device.html web/vite.device.config.ts $(shell find web/src/field web/src/api web/src/lib web/src/garden web/src/firm -name '*.ts') web/src/device-page.ts
	cd web && npx vite build --config vite.device.config.ts --logLevel warn

bench: web
	go test -run '^$$' -bench . -benchmem ./...

soak: web ## a thousand kills, and two hundred restores broken off: half an hour
	go test ./e2e -run 'TestSoak|TestSlow|TestFullDisk|TestStartOnFullDisk|TestCutUpgrade|TestRestoreDrills' -count 1 -v -kills 1000 -drills 200 -timeout 120m

sweep: web ## all screens of the sample in four regions of the world, at four days of a year: some minutes
	go test ./e2e -run 'TestSweepRegions|TestTheDeviceJudgesAsTheHouse' -count 1 -v -everywhere -timeout 60m

fuzz: ## each reader of files for a while
	for t in core/catalogue:FuzzReadPack exchange:FuzzReadWeatherCSV exchange:FuzzReadPlantsCSV exchange:FuzzReadNormalsCSV exchange:FuzzReadPlanGeoJSON exchange:FuzzReadWays exchange:FuzzPhoto core/day:FuzzParse core/quantity:FuzzText; do \
		go test ./$${t%%:*} -run xxx -fuzz "^$${t##*:}$$" -fuzztime 30s -fuzzminimizetime 1x || exit 1; done

screenshots: web chromium
	go test ./e2e -run TestPictures -count 1 -pictures "$(CURDIR)/docs/screenshots"

fmt:
	gofmt -w $$(git ls-files '*.go')
	cd web && npx prettier --write --log-level warn src vite.config.ts vite.device.config.ts vite.begin.ts

dev: web ## Vite in front of the API; edits show at once
	go build -o mezzadro ./cmd/mezzadro
	./mezzadro demo --addr 127.0.0.1:8080 & trap "kill $$!" EXIT; cd web && npx vite

# The journeys want Debian's Chromium, rather the one that draws without a window: it takes a third less of the machine.
# Where it is missing and can be installed, it is; where it cannot, the other does.
chromium:
	@command -v chromium-headless-shell >/dev/null || { apt-get update -qq && DEBIAN_FRONTEND=noninteractive apt-get install -y -qq chromium-headless-shell >/dev/null; } || true
	@command -v chromium-headless-shell >/dev/null || command -v chromium >/dev/null || { apt-get update -qq && DEBIAN_FRONTEND=noninteractive apt-get install -y -qq chromium >/dev/null; }
