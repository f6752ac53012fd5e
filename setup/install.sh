#!/usr/bin/env bash
# Installs what is missing and only that: Debian packages, the Python environment,
# the npm packages and the built web parts. Each step leaves a stamp made from the
# files it depends on, so that a second run costs milliseconds.
#
#   setup/install.sh run     what serving needs
#   setup/install.sh desk    the same, and what the desktop agent and its stand-in programs need
#   setup/install.sh test    all of it, and what the tests need
set -euo pipefail
cd "$(dirname "$0")/.."
purpose=${1:-run}
stamps=.stamps
mkdir -p "$stamps"

fail() { printf '\n  ✗ %s\n    %s\n' "$1" "$2" >&2; exit 1; }

# stamped NAME SUM COMMAND...: runs COMMAND unless it last succeeded for the same SUM.
stamped() {
  local name=$1 sum=$2; shift 2
  [[ -f $stamps/$name && $(<"$stamps/$name") == "$sum" ]] && return 0
  local started=$SECONDS log="$stamps/$name.log"
  printf '  … %s\r' "$name"
  if ! "$@" >"$log" 2>&1; then
    tail -n 15 "$log" >&2
    fail "$name failed" "The whole output is in $log; mend what it names and run the same command again."
  fi
  printf '%s' "$sum" >"$stamps/$name"
  printf '  ✓ %-32s %3d s\n' "$name" $((SECONDS - started))
}

sum_of() { cat "$@" 2>/dev/null | sha256sum | cut -c1-16; }

# Names of the git-tracked or new, not ignored, files below the folders given.
files_below() { find "$@" -type f -not -path '*/node_modules/*' | LC_ALL=C sort; }

# Those of the packages that are not installed.
missing_packages() {
  for package in "$@"; do
    dpkg-query -W -f='${Status}' "$package" 2>/dev/null | grep -q 'ok installed' || echo "$package"
  done
}

debian_packages() {
  local as_root=()
  if ((EUID != 0)); then
    command -v sudo >/dev/null || { echo "Missing Debian packages: $*. Install them as root: apt-get install $*"; return 1; }
    as_root=(sudo)
  fi
  "${as_root[@]}" apt-get update -q
  # No service may start by itself: the database runs in a folder of the project's own.
  DEBIAN_FRONTEND=noninteractive "${as_root[@]}" apt-get install -y -q --no-install-recommends "$@"
}

# Started as root, the service steps down to an account of its own.
service_account() {
  local account=${ANCHORLINE_ACCOUNT:-anchorline}
  ((EUID != 0)) || id "$account" >/dev/null 2>&1 ||
    useradd --system --no-create-home --home-dir /nonexistent --shell /usr/sbin/nologin "$account"
}

python_environment() {
  local python=${PYTHON:-python3}
  "$python" -c 'import sys; sys.exit(sys.version_info < (3, 11))' || { echo "Python 3.11 or newer is needed; set PYTHON to its path."; return 1; }
  [[ -x .venv/bin/python ]] || "$python" -m venv .venv
  local extra=""
  [[ $purpose == test ]] && extra="[test,desk]"
  [[ $purpose == desk ]] && extra="[desk]"
  local constraints=()
  [[ -f setup/constraints.txt ]] && constraints=(-c setup/constraints.txt)
  .venv/bin/python -m pip install -q --disable-pip-version-check "${constraints[@]}" -e ".$extra"
}

# The service's account may not write beside the sources: what it runs is compiled beforehand.
python_bytecode() { .venv/bin/python -m compileall -q src/anchorline; }

# Only the tests need the libraries that other people's pages are built with.
npm_packages() {
  local parts=()
  [[ $purpose == test ]] || parts=(-w embed -w console -w api-types --include-workspace-root)
  npm ci --no-progress "${parts[@]}"
}
web_parts() { npm run --silent build; }
test_pages() { npm run --silent build -w tests/pages; }

debian=(mariadb-server)
# The innermost loops of searching are compiled: a compiler and Python's headers, where missing.
command -v cc >/dev/null || debian+=(gcc libc6-dev)
"${PYTHON:-python3}" -c 'import pathlib, sysconfig, sys
sys.exit(not pathlib.Path(sysconfig.get_path("include"), "Python.h").exists())' || debian+=(python3-dev)
[[ $purpose == test ]] && debian+=(chromium-headless-shell fonts-liberation fonts-noto-core)
# A display without a screen, a window manager, a terminal and a browser for the stand-in programs;
# the accessibility bus; and what Qt loads for X11.
[[ $purpose == run ]] || debian+=(
  xvfb openbox xterm chromium dbus at-spi2-core fonts-dejavu fonts-noto-cjk
  libxcb-icccm4 libxcb-keysyms1 libxcb-cursor0 libxcb-image0 libxcb-render-util0 libxkbcommon-x11-0
  libegl1 libgl1
)
# Tk comes with Python, unless it is Debian's.
if [[ $purpose != run ]] && ! "${PYTHON:-python3}" -c 'import tkinter' 2>/dev/null; then debian+=(python3-tk); fi
mapfile -t missing < <(missing_packages "${debian[@]}")
if ((${#missing[@]})); then
  rm -f "$stamps/Debian-packages"
  stamped Debian-packages "${missing[*]}" debian_packages "${missing[@]}"
fi
service_account || fail "The account of the service cannot be made" "Make it by hand, or name one that is there with ANCHORLINE_ACCOUNT."
# What was installed for more stays: packages that are there already are not taken away.
purpose_python=$purpose
if [[ -f "$stamps/Python-packages-test" ]]; then purpose_python=test
elif [[ $purpose == run && -f "$stamps/Python-packages-desk" ]]; then purpose_python=desk; fi
purpose=$purpose_python stamped "Python-packages-$purpose_python" "$(sum_of pyproject.toml setup.py setup/constraints.txt $(files_below src/anchorline/core | grep -E "\.(pyx|pxd)$"))$(readlink -f .venv)" python_environment
stamped Python-bytecode "$(files_below src/anchorline | grep -E "\.py$" | xargs -d '\n' stat -c '%n %Y' | sha256sum | cut -c1-16)$(readlink -f .venv)" python_bytecode
[[ $purpose_python == desk ]] && purpose_python=run
purpose=$purpose_python stamped "npm-packages-$purpose_python" "$(sum_of package.json package-lock.json console/package.json embed/package.json api-types/package.json tests/pages/package.json)" npm_packages
stamped web-parts "$(files_below console embed | xargs -d '\n' cat | sha256sum | cut -c1-16)" web_parts
[[ $purpose != test ]] || stamped test-pages "$(files_below tests/pages docs/examples | xargs -d '\n' cat | sha256sum | cut -c1-16)" test_pages
