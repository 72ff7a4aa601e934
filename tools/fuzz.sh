#!/usr/bin/env bash
# Runs every fuzz target for FUZZTIME (10m), two at a time, and says how far each came.
# What crashes is left in the package's testdata/fuzz and becomes a named test.
set -u
cd "$(dirname "$0")/.."
time="${FUZZTIME:-10m}"
logs="${FUZZLOGS:-$(mktemp -d)}"
targets=(
	"exchange/svgin FuzzRead" "vision/picture FuzzDecode" "exchange/inkfile FuzzReadCSV" "exchange/inkfile FuzzReadGPL"
	"exchange/table FuzzText" "core/shape FuzzUnmarshalText" "core/measure FuzzParseSigned" "core/plan FuzzCard" "store FuzzOpen" "exchange/bundle FuzzRead" "exchange/shelf FuzzRead"
)
one() {
	read -r pkg name <<<"$1"
	log="$logs/$(basename "$pkg")-$name.log"
	if go test "./$pkg" -run '^$' -fuzz "^$name\$" -fuzztime "$time" -parallel "${FUZZPARALLEL:-1}" -timeout 60m >"$log" 2>&1; then
		echo "$name: $(grep -o 'execs: [0-9]*' "$log" | tail -1), $(grep -o 'total: [0-9]*' "$log" | tail -1) interesting, no crash"
	else
		echo "$name: FAILED, see $log"
		tail -20 "$log"
		return 1
	fi
}
export -f one
export logs time
printf '%s\n' "${targets[@]}" | xargs -P 2 -I{} bash -c 'one "{}"'
