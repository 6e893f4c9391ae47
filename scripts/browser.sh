#!/usr/bin/env bash
# Installs Debian's Chromium and its driver when they are missing.
set -euo pipefail
if [ -x /usr/bin/chromium ] && [ -x /usr/bin/chromedriver ]; then exit 0; fi
as_root() { if [ "$(id -u)" = 0 ]; then "$@"; else sudo "$@"; fi; }
echo "Installing Chromium (about two minutes) ..."
as_root apt-get update -qq
as_root apt-get install -y -qq --no-install-recommends chromium chromium-driver
