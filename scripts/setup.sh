#!/usr/bin/env bash
# Makes .venv ready. Usage: setup.sh run | dev
# Installs only what is missing; a finished set-up is recognised by the pin file's checksum.
set -euo pipefail
cd "$(dirname "$0")/.."
kind=${1:-run}
pins=requirements.txt
[ "$kind" = dev ] && pins=requirements-dev.txt
stamp=.venv/.ready-$kind
sum=$(cat "$pins" requirements-build.txt pyproject.toml | sha256sum | cut -d' ' -f1)

as_root() { if [ "$(id -u)" = 0 ]; then "$@"; else sudo "$@"; fi; }

if [ ! -x .venv/bin/python ]; then
  python=${PYTHON:-python3}
  if ! "$python" -c 'import ensurepip' 2>/dev/null; then
    echo "Installing python3-venv ..."
    as_root apt-get update -qq && as_root apt-get install -y -qq --no-install-recommends python3-venv
  fi
  "$python" -m venv .venv
fi

if [ "$(cat "$stamp" 2>/dev/null)" != "$sum" ]; then
  echo "Installing the $kind packages ..."
  if ! .venv/bin/python -m uv --version >/dev/null 2>&1; then
    .venv/bin/python -m pip install -q --disable-pip-version-check --require-hashes -r requirements-uv.txt \
      2>/dev/null || true
  fi
  .venv/bin/python -m pip install -q --disable-pip-version-check --require-hashes -r requirements-build.txt
  if .venv/bin/python -m uv --version >/dev/null 2>&1; then
    .venv/bin/python -m uv pip install -q --python .venv/bin/python --require-hashes -r "$pins"
    .venv/bin/python -m uv pip install -q --python .venv/bin/python --no-deps --no-build-isolation -e .
  else
    .venv/bin/python -m pip install -q --disable-pip-version-check --require-hashes -r "$pins"
    .venv/bin/python -m pip install -q --disable-pip-version-check --no-deps --no-build-isolation -e .
  fi
  echo "$sum" > "$stamp"
fi
