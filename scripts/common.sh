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
  # Nor is anything else to be started by being installed.
  local quiet=/usr/sbin/policy-rc.d
  [ -e "$quiet" ] && quiet="" || { printf '#!/bin/sh\nexit 101\n' > "$quiet"; chmod +x "$quiet"; }
  local done=yes
  { apt-get update -qq && apt-get install -y -qq --no-install-recommends -o Dpkg::Options::=--force-confold "$@"; } </dev/null >&2 || done=no
  [ -z "$quiet" ] || rm -f "$quiet"
  [ "$done" = yes ] || fail "could not install $*"
}

need_tools() {
  command -v dotnet >/dev/null || fail "the .NET SDK 10 is needed (dotnet is not on the PATH)"
  command -v npm >/dev/null || fail "Node.js 20 or later with npm is needed"
  find_postgres || { install_missing postgresql; find_postgres || fail "PostgreSQL is not where it was expected, in /usr/lib/postgresql"; }
}

# need_everything : all that the tests use.
need_everything() { need_tools; need_browser; need_proxy; }

need_proxy() { [ -x /usr/sbin/nginx ] || install_missing nginx-light; }

need_browser() {
  [ -x /usr/lib/chromium/chromium-headless-shell ] && command -v chromedriver >/dev/null || install_missing chromium-headless-shell chromium-driver
}

# fingerprint PATH... : changes when any of these files does.
fingerprint() { find "$@" -type f -not -path '*/bin/*' -not -path '*/obj/*' -not -path '*/node_modules/*' -not -path '*/wwwroot/*' -print0 | sort -z | xargs -0 sha256sum | sha256sum | cut -d' ' -f1; }

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
bundle_web() { say "Building the page ..."; (cd web && npm run --silent bundle </dev/null >&2); }

# install_page : the page's packages, if they have changed.
install_page() {
  [ -d web/node_modules ] || rm -f .stamps/npm
  unless_done npm "$(fingerprint web/package-lock.json)" install_web
}

# bundle_page : the page itself, if its code has changed. Types are checked by ./test, not here.
bundle_page() {
  local print; print=$(fingerprint web/src web/public web/index.html web/package-lock.json web/vite.config.ts web/tsconfig.json)
  [ -e src/DeepBaize.Web/wwwroot/index.html ] || rm -f .stamps/web
  unless_done web "$print" bundle_web
}

build_web() { install_page && bundle_page; }

build_dotnet() { # build_dotnet PROJECT-OR-SOLUTION
  export DOTNET_CLI_TELEMETRY_OPTOUT=1 DOTNET_NOLOGO=1
  say "Building $1 ..."
  dotnet build "$1" -c Release -v quiet -nologo </dev/null >&2
}

# --- PostgreSQL -----------------------------------------------------------------------------------------------
# It refuses to run as root, so as root it runs as the user postgres that Debian's package made. What it was started by holds a lock on
# the folder through descriptor 9, which nothing that lives longer inherits.

ADMIN=deep_baize        # owns the server, and is used by these scripts alone
APP=deep_baize_app      # as which the application connects: it owns its database, and nothing else
DATABASE=deep_baize
MOST_CONNECTIONS=50

as_postgres() {
  if [ "$(id -u)" = 0 ]; then (cd / && runuser -u postgres -- "$@" 9>&-); else "$@" 9>&-; fi
}

# pg_folder WISH : the wish, if the server's user can get there, else a folder of this project's under /var/lib.
pg_folder() {
  local wish=$1
  mkdir -p "$wish" 2>/dev/null || fail "the folder $wish cannot be made: is its parent writable, and is there room?"
  wish=$(cd "$wish" && pwd)
  if [ "$(id -u)" = 0 ]; then
    if ! as_postgres test -x "$wish"; then
      wish="/var/lib/deep-baize/$(printf %s "$wish" | sha256sum | cut -c1-12)"
      mkdir -p "$wish"
      chmod 711 /var/lib/deep-baize
    fi
    mkdir -p "$wish/postgres" 2>/dev/null && chown postgres: "$wish/postgres" 2>/dev/null || fail "the folder $wish is not writable"
  else
    mkdir -p "$wish/postgres" 2>/dev/null && [ -w "$wish/postgres" ] || fail "the folder $wish is not writable for $(id -un)"
  fi
  chmod 700 "$wish/postgres"
  echo "$wish/postgres"
}

# lock_data : this process owns the folder from now on; fails if another does.
lock_data() {
  exec 9>>"$PG_FOLDER/lock" || fail "the folder $PG_FOLDER is not writable"
  if ! flock -n 9; then
    fail "another Deep Baize (process $(cat "$PG_FOLDER/owner" 2>/dev/null || echo '?')) uses $PG_FOLDER. End it, or choose another folder: DEEPBAIZE_DATA=/some/folder $0"
  fi
  echo $$ > "$PG_FOLDER/owner"
}

# left_over_app FOLDER : the process of an application that an earlier ./start over this folder left when it was killed; empty if none.
left_over_app() {
  local file="$1/postgres/app" pid
  [ -r "$file" ] || file="/var/lib/deep-baize/$(printf %s "$(realpath -m "$1")" | sha256sum | cut -c1-12)/postgres/app"
  pid=$(cat "$file" 2>/dev/null) || return 0
  # The number may belong to another program by now; and while that ./start lives, the application is not left over.
  [[ $(tr '\0' ' ' < "/proc/$pid/cmdline" 2>/dev/null) == *DeepBaize.Web.dll* ]] || return 0
  [ "$(ps -o ppid= -p "$pid" | tr -d ' ')" = 1 ] || ! kill -0 "$(cat "${file%app}owner" 2>/dev/null || echo 0)" 2>/dev/null || return 0
  echo "$pid"
}

# end_app PID : ends it in order, or after three seconds at once.
end_app() {
  kill "$1" 2>/dev/null || return 0
  local i
  for i in $(seq 30); do kill -0 "$1" 2>/dev/null || return 0; sleep 0.1; done
  kill -9 "$1" 2>/dev/null || true
}

# listener PORT : what listens there, for a message; empty if that cannot be told.
listener() { command -v ss >/dev/null && ss -ltnpH "sport = :$1" 2>/dev/null | sed -n 's/.*users:((\("[^"]*"\),pid=\([0-9]*\).*/ by \1 (process \2)/p' || true; }

need_room() {
  local free; free=$(df -Pk "$PG_FOLDER" | awk 'NR==2 {print int($4/1024)}')
  [ "$free" -ge 100 ] || fail "the disk that holds $PG_FOLDER is full: $free MB are free, and at least 100 are needed"
}

free_port() { python3 - 2>/dev/null <<'PY' || node -e 'const s=require("net").createServer();s.listen(0,"127.0.0.1",()=>{console.log(s.address().port);s.close()})'
import socket
s = socket.socket(); s.bind(("127.0.0.1", 0)); print(s.getsockname()[1])
PY
}

secret_in() { (umask 077; head -c 24 /dev/urandom | od -An -tx1 | tr -d ' \n' > "$1"); }

# create_cluster : made aside and renamed when it is whole, so that whoever kills it in the midst can start again.
create_cluster() {
  say "Creating the database in $PG_FOLDER ..."
  local new="$PG_FOLDER/new.$$"
  secret_in "$PG_FOLDER/password"
  [ "$(id -u)" != 0 ] || chown postgres: "$PG_FOLDER/password"
  as_postgres "$PG_BIN/initdb" -D "$new" -U "$ADMIN" -A scram-sha-256 --pwfile "$PG_FOLDER/password" --data-checksums -E UTF8 --locale=C.UTF-8 \
    > "$PG_FOLDER/initdb.log" 2>&1 || fail "PostgreSQL's folder could not be made: $(cause "$PG_FOLDER/initdb.log")"
  mv -T "$new" "$PG_FOLDER/data"
}

# enable_checksums : of a folder that was made without them; only of one that was stopped in order.
enable_checksums() {
  local control; control=$(as_postgres "$PG_BIN/pg_controldata" "$PG_FOLDER/data") || return 0
  [[ $control =~ "Data page checksum version:"\ +0($|$'\n') ]] || return 0
  as_postgres "$PG_BIN/pg_checksums" --enable -D "$PG_FOLDER/data" >/dev/null 2>&1 || say "Checksums stay off until the next start in order."
}

# cause LOG : what went wrong, by the last lines of PostgreSQL's log.
cause() {
  local last; last=$(tail -20 "$1" 2>/dev/null)
  case $last in
    *"No space left"*) echo "the disk is full" ;;
    *"Permission denied"*) echo "its folder is not writable for the user it runs as" ;;
    *"could not bind"*|*"Address already in use"*) echo "its port is taken" ;;
    *"annot allocate memory"*|*"could not map anonymous shared memory"*) echo "there is not enough memory" ;;
    *"still in use"*) echo "what is left of an earlier one has not ended yet" ;;
    *"too many open files"*|*"Too many open files"*) echo "too many files are open" ;;
    *"invalid page"*|*"checksum"*) echo "what is on the disk is damaged; take the latest copy (./restore)" ;;
    *) printf '%s\n' "$last" | grep -E 'FATAL|PANIC|ERROR|error:' | tail -1 ;;
  esac
}

# launch_postgres : on PG_PORT.
launch_postgres() {
  as_postgres "$PG_BIN/pg_ctl" -D "$PG_FOLDER/data" -w -t 60 -l "$PG_FOLDER/log" \
    -o "-c listen_addresses=127.0.0.1 -c port=$PG_PORT -c unix_socket_directories= -c max_connections=$MOST_CONNECTIONS" start >/dev/null 2>&1
}

# start_postgres FOLDER : sets PG_FOLDER, PG_PORT and PG_CONNECTION (the server's owner, without a database).
start_postgres() {
  PG_FOLDER=$(pg_folder "$1") || exit 1
  lock_data
  need_room
  rm -rf "$PG_FOLDER"/new.*
  [ -e "$PG_FOLDER/data/PG_VERSION" ] || create_cluster
  # Left over from a run that was killed: nobody else's, for the lock is ours.
  if as_postgres "$PG_BIN/pg_ctl" -D "$PG_FOLDER/data" status >/dev/null 2>&1; then stop_postgres; fi
  enable_checksums
  PG_PORT=$(free_port)
  launch_postgres || fail "PostgreSQL did not start: $(cause "$PG_FOLDER/log"). Its log is $PG_FOLDER/log"
  PG_CONNECTION="Host=127.0.0.1;Port=$PG_PORT;Username=$ADMIN;Password=$(cat "$PG_FOLDER/password");Timeout=5;Command Timeout=20"
}

stop_postgres() {
  [ -z "${PG_FOLDER:-}" ] || as_postgres "$PG_BIN/pg_ctl" -D "$PG_FOLDER/data" -m fast -w -t 30 stop >/dev/null 2>&1 || true
}

postgres_lives() { kill -0 "$(head -1 "$PG_FOLDER/data/postmaster.pid" 2>/dev/null || echo 0)" 2>/dev/null; }

# revive_postgres : starts it again on the same port, for the application and its connections know it by that.
revive_postgres() {
  say "PostgreSQL has ended by itself ($(cause "$PG_FOLDER/log")); starting it again ..."
  local i
  for i in $(seq 20); do
    launch_postgres && { say "PostgreSQL is back."; return 0; }
    sleep 0.5
  done
  fail "PostgreSQL does not come back: $(cause "$PG_FOLDER/log"). Its log is $PG_FOLDER/log"
}

admin() { # admin PROGRAM ARGUMENT... : one of PostgreSQL's programs, as the server's owner
  local program=$1
  shift
  PGPASSWORD=$(cat "$PG_FOLDER/password") PGOPTIONS="-c client_min_messages=warning" "$PG_BIN/$program" -h 127.0.0.1 -p "$PG_PORT" -U "$ADMIN" "$@" 9>&-
}

sql() { admin psql -X -q -v ON_ERROR_STOP=1 -d "${2:-postgres}" -At <<<"$1"; }

# prepare_database : the role with the least it needs, and its database. Sets APP_CONNECTION.
prepare_database() {
  [ -s "$PG_FOLDER/app-password" ] || secret_in "$PG_FOLDER/app-password"
  local password; password=$(cat "$PG_FOLDER/app-password")
  sql "
    SELECT 'CREATE ROLE $APP' WHERE NOT EXISTS (SELECT FROM pg_roles WHERE rolname = '$APP') \\gexec
    ALTER ROLE $APP WITH LOGIN NOSUPERUSER NOCREATEDB NOCREATEROLE NOREPLICATION NOBYPASSRLS CONNECTION LIMIT $((MOST_CONNECTIONS - 5)) PASSWORD '$password';
    SELECT 'CREATE DATABASE $DATABASE OWNER $APP' WHERE NOT EXISTS (SELECT FROM pg_database WHERE datname = '$DATABASE') \\gexec
    ALTER DATABASE $DATABASE OWNER TO $APP;
    REVOKE ALL ON DATABASE $DATABASE FROM PUBLIC;
  " || fail "the database could not be prepared; PostgreSQL's log is $PG_FOLDER/log"
  # What an older version made belonged to the server's owner.
  sql "SELECT format('ALTER TABLE %I OWNER TO $APP', tablename) FROM pg_tables WHERE schemaname = 'public' AND tableowner <> '$APP' \\gexec" "$DATABASE"
  APP_CONNECTION="Host=127.0.0.1;Port=$PG_PORT;Username=$APP;Password=$password;Database=$DATABASE"
}

# reach_database FOLDER : the server of a Deep Baize that runs, or one started for the time; then leave_database.
reach_database() {
  PG_FOLDER=$(pg_folder "$1") || exit 1
  [ -e "$PG_FOLDER/data/PG_VERSION" ] || fail "there is no database in $PG_FOLDER yet; ./start makes one"
  REACHED=running
  exec 9>>"$PG_FOLDER/lock"
  if flock -n 9; then
    flock -u 9
    REACHED=started
    start_postgres "$1"
  else
    PG_PORT=$(sed -n 4p "$PG_FOLDER/data/postmaster.pid" 2>/dev/null)
    [ -n "$PG_PORT" ] || fail "the database in $PG_FOLDER is not ready; try again in a moment"
  fi
}
leave_database() { [ "${REACHED:-}" != started ] || stop_postgres; }

# write_copy FILE : the whole database as it is at one moment, read back once before it counts.
write_copy() {
  local file=$1 part="$1.part"
  [ ! -e "$file" ] || fail "$file is there already; choose another name"
  (umask 077; admin pg_dump -d "$DATABASE" --format=custom --no-owner --no-privileges --file "$part" 2> "$part.log") \
    || { local why; why=$(cause "$part.log"); rm -f "$part" "$part.log"; fail "no copy was written: $why"; }
  "$PG_BIN/pg_restore" --file=/dev/null "$part" 2>/dev/null || { rm -f "$part" "$part.log"; fail "the copy cannot be read back; nothing was kept"; }
  rm -f "$part.log"
  sync "$part"
  mv -T "$part" "$file"
}

# nightly_copy FOLDER KEPT : one a day, after three o'clock or as soon as the last is a day old; the oldest beyond KEPT go.
nightly_copy() {
  local folder=$1 kept=$2 file
  file="$folder/deep-baize-$(date +%F).dump"
  [ ! -e "$file" ] || return 0
  if [ "$(date +%-H)" -lt 3 ] && [ -n "$(find "$folder" -maxdepth 1 -name 'deep-baize-*.dump' -mmin -1440 -print -quit)" ]; then return 0; fi
  (write_copy "$file") || return 1
  say "Copied to $file"
  find "$folder" -maxdepth 1 -name 'deep-baize-????-??-??.dump' -printf '%f\n' | sort -r | tail -n "+$((kept + 1))" | while read -r old; do rm -f "$folder/$old"; done
}
