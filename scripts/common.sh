# Shared by ./start and ./test: what the machine needs, the builds, and a PostgreSQL of the project's own.
# Sourced with the project's root as the working directory and `set -euo pipefail`.

say() { printf '%s\n' "$*" >&2; }
fail() { say "Error: $*"; exit 1; }

PG_BIN=""
find_postgres() {
  PG_BIN=$(ls -d /usr/lib/postgresql/*/bin 2>/dev/null | sort -V | tail -1 || true)
  [ -n "$PG_BIN" ] && [ -x "$PG_BIN/initdb" ]
}

# install_missing PACKAGE... : installs Debian packages; nothing is asked.
install_missing() {
  [ "$(id -u)" = 0 ] || fail "these Debian packages are missing, and only root can install them: $*"
  command -v apt-get >/dev/null || fail "these packages are missing, and this is no Debian: $*"
  say "Installing $* ..."
  export DEBIAN_FRONTEND=noninteractive
  # The server that Debian would start by itself is not wanted.
  mkdir -p /etc/postgresql-common
  [ -e /etc/postgresql-common/createcluster.conf ] || echo "create_main_cluster = false" > /etc/postgresql-common/createcluster.conf
  { apt-get update -qq && apt-get install -y -qq --no-install-recommends -o Dpkg::Options::=--force-confold "$@"; } </dev/null >&2 || fail "could not install $*"
}

need_tools() {
  command -v dotnet >/dev/null || fail "the .NET SDK 10 is needed (dotnet is not on the PATH)"
  command -v npm >/dev/null || fail "Node.js 20 or later with npm is needed"
  find_postgres || { install_missing postgresql; find_postgres || fail "PostgreSQL is not where it was expected, in /usr/lib/postgresql"; }
}

need_browser() {
  command -v chromium >/dev/null && command -v chromedriver >/dev/null || install_missing chromium chromium-driver
}

# fingerprint PATH... : changes when any of these files does.
fingerprint() { find "$@" -type f -not -path '*/bin/*' -not -path '*/obj/*' -not -path '*/node_modules/*' -print0 | sort -z | xargs -0 sha256sum | sha256sum | cut -d' ' -f1; }

# unless_done NAME FINGERPRINT COMMAND... : runs the command if it has not been run for this fingerprint.
unless_done() {
  local stamp=".stamps/$1" print=$2
  shift 2
  mkdir -p .stamps
  [ -e "$stamp" ] && [ "$(cat "$stamp")" = "$print" ] && return 0
  rm -f "$stamp"
  "$@" || return 1
  echo "$print" > "$stamp"
}

install_web() { say "Installing the page's packages ..."; (cd web && npm ci --no-audit --no-fund --loglevel=error </dev/null >&2); }
bundle_web() { say "Building the page ..."; (cd web && npm run --silent build </dev/null >&2); }

build_web() {
  unless_done npm "$(fingerprint web/package-lock.json)" install_web
  [ -d web/node_modules ] || install_web
  local print; print=$(fingerprint web/src web/index.html web/package-lock.json web/vite.config.ts web/tsconfig.json)
  [ -e src/DeepBaize.Web/wwwroot/index.html ] || rm -f .stamps/web
  unless_done web "$print" bundle_web
}

build_dotnet() { # build_dotnet PROJECT-OR-SOLUTION
  export DOTNET_CLI_TELEMETRY_OPTOUT=1 DOTNET_NOLOGO=1
  say "Building $1 ..."
  dotnet build "$1" -c Release -v quiet -nologo </dev/null >&2
}

# --- PostgreSQL -----------------------------------------------------------------------------------------------
# It refuses to run as root, so as root it runs as the user postgres that Debian's package made.

as_postgres() {
  if [ "$(id -u)" = 0 ]; then (cd / && runuser -u postgres -- "$@"); else "$@"; fi
}

# pg_folder WISH : the wish, if the server's user can get there, else a folder of this project's under /var/lib.
pg_folder() {
  local wish=$1
  mkdir -p "$wish"
  wish=$(cd "$wish" && pwd)
  if [ "$(id -u)" = 0 ]; then
    if ! as_postgres test -x "$wish"; then
      wish="/var/lib/deep-baize/$(printf %s "$wish" | sha256sum | cut -c1-12)"
      mkdir -p "$wish"
      chmod 711 /var/lib/deep-baize
    fi
    mkdir -p "$wish/postgres"
    chown postgres: "$wish/postgres"
  else
    mkdir -p "$wish/postgres"
  fi
  chmod 700 "$wish/postgres"
  echo "$wish/postgres"
}

free_port() { python3 - 2>/dev/null <<'PY' || node -e 'const s=require("net").createServer();s.listen(0,"127.0.0.1",()=>{console.log(s.address().port);s.close()})'
import socket
s = socket.socket(); s.bind(("127.0.0.1", 0)); print(s.getsockname()[1])
PY
}

# start_postgres FOLDER : sets PG_FOLDER and PG_CONNECTION (without a database).
start_postgres() {
  PG_FOLDER=$(pg_folder "$1")
  local data="$PG_FOLDER/data" secret="$PG_FOLDER/password"
  if [ ! -e "$data/PG_VERSION" ]; then
    say "Creating the database in $PG_FOLDER ..."
    rm -rf "$data"
    (umask 077; head -c 24 /dev/urandom | od -An -tx1 | tr -d ' \n' > "$secret")
    [ "$(id -u)" != 0 ] || chown postgres: "$secret"
    as_postgres "$PG_BIN/initdb" -D "$data" -U deep_baize -A scram-sha-256 --pwfile "$secret" -E UTF8 --locale=C.UTF-8 >/dev/null
  fi
  # Left over from a run that was killed.
  if as_postgres "$PG_BIN/pg_ctl" -D "$data" status >/dev/null 2>&1; then stop_postgres; fi
  local port; port=$(free_port)
  as_postgres "$PG_BIN/pg_ctl" -D "$data" -w -t 60 -l "$PG_FOLDER/log" \
    -o "-c listen_addresses=127.0.0.1 -c port=$port -c unix_socket_directories= -c max_connections=50" start >/dev/null \
    || { tail -20 "$PG_FOLDER/log" >&2; fail "PostgreSQL did not start; its log is $PG_FOLDER/log"; }
  PG_CONNECTION="Host=127.0.0.1;Port=$port;Username=deep_baize;Password=$(cat "$secret");Timeout=5;Command Timeout=20"
}

stop_postgres() {
  [ -z "${PG_FOLDER:-}" ] || as_postgres "$PG_BIN/pg_ctl" -D "$PG_FOLDER/data" -m fast -w -t 30 stop >/dev/null 2>&1 || true
}
