#!/usr/bin/env bash
# Installs what the tests need: Chromium without its windows (the same engine, a third quicker), poppler to read a PDF back, librsvg as a second renderer.
set -eu
missing=()
command -v chromium-headless-shell >/dev/null || missing+=(chromium-headless-shell)
command -v pdftotext >/dev/null || missing+=(poppler-utils)
command -v rsvg-convert >/dev/null || missing+=(librsvg2-bin)
[ ${#missing[@]} -eq 0 ] && exit 0
if ! command -v apt-get >/dev/null; then
	echo "Install ${missing[*]} for the browser tests; this machine has no apt-get." >&2
	exit 1
fi
sudo=""
[ "$(id -u)" = 0 ] || sudo="sudo"
$sudo apt-get update -qq
DEBIAN_FRONTEND=noninteractive $sudo apt-get install -y -qq --no-install-recommends "${missing[@]}" >/dev/null
