#!/usr/bin/env bash
# Everything that must pass, step by step: each step says what it ran and how long it took, and the first that fails
# ends it with what it printed. Checks that need no tests run beside them; the journeys run alone and never from the
# test cache, which cannot see what they drive.
set -uo pipefail
cd "$(dirname "$0")/.."
out=$(mktemp -d)
trap 'rm -rf "$out"; kill $(jobs -p) 2>/dev/null' EXIT
begun=$SECONDS

# Each of the API's operations is a function of its own to the compiler: without folding calls into them it takes a
# third less, and no test feels it.
export GOFLAGS="${GOFLAGS:-} -gcflags=mezzadro/api=-l"

# Compilers, checks and tests clear up less often: staticcheck takes a third less of the machine, deadcode an eighth.
export GOGC="${GOGC:-400}"

# step NAME WHAT COMMAND...: runs a command, and tells what it was and how long it took.
step() {
  local name=$1 what=$2 from=$SECONDS
  shift 2
  if "$@" >"$out/$name" 2>&1; then
    printf '%-10s %4d s  %s\n' "$name" $((SECONDS - from)) "$what"
    return 0
  fi
  printf '%-10s %4d s  FAILED: %s\n' "$name" $((SECONDS - from)) "$what"
  cat "$out/$name"
  return 1
}

formatted() {
  local loose
  loose=$(gofmt -l $(git ls-files '*.go'))
  [ -z "$loose" ] || { echo "not formatted, run make fmt: $loose"; return 1; }
  (cd web && npx prettier --check --log-level warn src vite.config.ts vite.device.config.ts vite.begin.ts)
}

vetted() { go vet ./... && go tool staticcheck ./...; }

reached() {
  local dead
  dead=$(go tool deadcode -test ./...) || return 1
  [ -z "$dead" ] || { echo "$dead"; return 1; }
}

typed() { (cd web && npx svelte-check --tsconfig ./tsconfig.json --fail-on-warnings --output human); }

described() {
  go run ./cmd/describe | cmp - api/types.json || { echo "api/types.json is stale: run make generate"; return 1; }
  go run ./cmd/mezzadro checks | cmp - web/src/api/checks.json || { echo "web/src/api/checks.json is stale: run make generate"; return 1; }
  go run ./cmd/mezzadro forms | cmp - web/src/api/forms.json || { echo "web/src/api/forms.json is stale: run make generate"; return 1; }
  (cd web && npx openapi-typescript ../openapi.json -o "$out/schema.d.ts" >/dev/null) || return 1
  cmp "$out/schema.d.ts" web/src/api/schema.d.ts || { echo "web/src/api/schema.d.ts is stale: run make generate"; return 1; }
  (cd web && REDOCLY_TELEMETRY=off npx redocly lint ../openapi.json --format=summary)
}

checks() {
  step format 'gofmt, prettier' formatted &&
    step types 'svelte-check' typed &&
    step api 'types.json, checks.json, forms.json, schema.d.ts as generated; openapi.json by the recommended rules' described &&
    step vet 'go vet, staticcheck' vetted &&
    step dead 'deadcode: nothing that nobody calls' reached
}

# Vetting is a step of its own.
tests() { go test -vet=off -timeout 25m $(go list ./... | grep -v /e2e$); }

# Journeys that fail beside others are gone through once more, one at a time: on a busy machine they wait on each other.
# Which those were is told, and what they said the first time; one that fails twice fails.
journeys() {
  go test ./e2e -vet=off -count 1 -timeout 25m -v >"$out/journeys.log" 2>&1 && return 0
  grep -v '^=== ' "$out/journeys.log"
  local failed
  failed=$(sed -nE 's/^--- FAIL: ([A-Za-z0-9_]+) .*/\1/p' "$out/journeys.log" | paste -sd'|')
  [ -n "$failed" ] || return 1
  echo "once more, one at a time: $failed"
  go test ./e2e -vet=off -count 1 -timeout 25m -v -parallel 1 -run "^($failed)\$" >"$out/again.log" 2>&1 || { grep -v '^=== ' "$out/again.log"; return 1; }
  echo "$failed" >"$out/twice"
}

checks & beside=$!
step tests 'go test of all packages but the journeys' tests || exit 1
wait $beside || exit 1
step journeys 'journeys through the browser, none from the cache' journeys || exit 1
if [ -e "$out/twice" ]; then
  cat "$out/journeys"
  echo "passed only alone, on a second try: $(cat "$out/twice")"
fi
printf '%-10s %4d s  %d Go packages tested, %d journeys\n' all $((SECONDS - begun)) \
  "$(grep -c '^ok' "$out/tests")" "$(grep -c '^--- PASS' "$out/journeys.log")"
