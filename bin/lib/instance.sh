# Shared by bin/*: what an instance is, and how its parts are installed, started and stopped.
# An instance is a folder (VANTREL_HOME, .vantrel/ by default) with its own database, files, keys and ports.

set -euo pipefail
ROOT=$(cd "$(dirname "${BASH_SOURCE[0]}")/../.." && pwd)
export VANTREL_HOME=${VANTREL_HOME:-$ROOT/.vantrel}
case $VANTREL_HOME in /*) ;; *) VANTREL_HOME=$PWD/$VANTREL_HOME ;; esac
export COMPOSER_ALLOW_SUPERUSER=1 LC_ALL=C.UTF-8

step() { printf '  %s\n' "$*"; }

fail() {
  printf '\nFailed: %s\n' "$1" >&2
  [ -n "${2:-}" ] && printf 'What to do: %s\n' "$2" >&2
  exit 1
}

# Runs a command with its output in a log; on failure shows the end of the log and what to do.
quietly() { # what, cure, command...
  local what=$1 cure=$2 log
  shift 2
  mkdir -p "$VANTREL_HOME/log"
  log=$VANTREL_HOME/log/$(printf '%s' "$what" | tr -cs 'a-zA-Z0-9' '-').log
  if ! "$@" >"$log" 2>&1; then
    tail -n 25 "$log" >&2
    fail "$what (the whole log is in $log)" "$cure"
  fi
}

as_root() { if [ "$(id -u)" = 0 ]; then "$@"; else sudo "$@"; fi; }

debian_packages() { # package...
  local missing=()
  for p in "$@"; do
    dpkg-query -W -f='${Status}' "$p" 2>/dev/null | grep -q 'ok installed' || missing+=("$p")
  done
  [ ${#missing[@]} -eq 0 ] && return 0
  step "Installing from Debian: ${missing[*]}"
  quietly "apt-get update" "Check the network and /etc/apt/sources.list." as_root apt-get update
  quietly "apt-get install" "Check the network, then run this again." \
    as_root env DEBIAN_FRONTEND=noninteractive apt-get install -y --no-install-recommends "${missing[@]}"
}

NODE_VERSION=22.23.3
RUN_PACKAGES=(ca-certificates curl php8.2-cli php8.2-mysql php8.2-gd php8.2-zip php8.2-bcmath php8.2-curl php8.2-intl php8.2-mbstring php8.2-xml mariadb-server unzip fonts-dejavu-core fonts-droid-fallback)
TEST_PACKAGES=(chromium-headless-shell oathtool fido2-tools libreoffice-calc zbar-tools poppler-utils python3-openpyxl python3-jellyfish ruby-jaro-winkler libtext-soundex-perl python3-docx python3-pil python3-aiosmtpd xkcdpass)

php_packages() {
  if [ ! -f "$ROOT/vendor/autoload.php" ] || [ "$ROOT/composer.json" -nt "$ROOT/vendor/.from" ] || [ "$ROOT/composer.pins" -nt "$ROOT/vendor/.from" ]; then
    command -v composer >/dev/null || debian_packages composer
    step "Installing PHP packages"
    # Composer writes no lock file here: it installs from composer.json with the exact version of every package of the tree.
    php "$ROOT/bin/lib/pins.php" merge "$ROOT/composer.pinned.json"
    # openspout names PHP up to 8.1 and runs on 8.2.
    (cd "$ROOT" && COMPOSER=composer.pinned.json quietly "composer install" "Check the network, then run this again. If a version of composer.pins is not to be had any more, take another on purpose: change composer.json, install, and run php bin/lib/pins.php write." \
      composer install --ignore-platform-req=php+ --no-interaction --no-progress --no-scripts --prefer-dist)
    touch "$ROOT/vendor/.from"
  fi
  quietly "comparing PHP packages with composer.pins" "Delete vendor/ and run this again. If the change was meant: php bin/lib/pins.php write." php "$ROOT/bin/lib/pins.php" check
}

# What Vite and ESLint ask for; Debian 12 has Node.js 18.
node_will_do() {
  command -v node >/dev/null && command -v npm >/dev/null &&
    node -e 'const [major, minor] = process.versions.node.split(".").map(Number); process.exit(major > 22 || (major === 22 && minor >= 13) || (major === 20 && minor >= 19) ? 0 : 1)'
}

# Where the machine's Node.js is too old, one from the npm registry stands in .node/, for what runs from here only.
node_ready() {
  local own
  node_will_do && return 0
  own=node-linux-$(case $(uname -m) in x86_64) echo x64 ;; aarch64) echo arm64 ;; *) uname -m ;; esac)
  if [ ! -x "$ROOT/.node/node_modules/$own/bin/node" ]; then
    debian_packages nodejs npm
    step "Installing Node.js $NODE_VERSION"
    quietly "npm install $own" "Check the network, or install Node.js 22 and npm yourself; then run this again." \
      npm install --prefix "$ROOT/.node" --no-save --no-audit --no-fund "$own@$NODE_VERSION"
  fi
  export PATH=$ROOT/.node/node_modules/$own/bin:$PATH
  node_will_do || fail "Node.js is too old" "Install Node.js 22 and npm, then run this again."
}

node_packages() {
  node_ready
  if [ ! "$ROOT/node_modules/.from" -nt "$ROOT/package-lock.json" ]; then
    # Not npm ci: it wants entries for every other platform's binaries, which the registry need not hold.
    step "Installing front-end packages (1 to 2 minutes the first time)"
    (cd "$ROOT" && quietly "npm install" "Check the network, then run this again." npm install --no-save --no-audit --no-fund)
    touch "$ROOT/node_modules/.from"
  fi
  (cd "$ROOT" && quietly "comparing front-end packages with package-lock.json" "Delete node_modules/ and run this again." node bin/lib/pins.mjs)
}

front_end() {
  local built=$ROOT/public/build/manifest.json
  if [ ! -f "$built" ] || [ -n "$(find "$ROOT/resources" "$ROOT/vite.config.ts" "$ROOT/package-lock.json" -newer "$built" -print -quit)" ]; then
    step "Building the front end"
    (cd "$ROOT" && quietly "vite build" "Read the message above; a file under resources/ does not compile." npx vite build)
    touch "$built"
  fi
}

port_free() { ! (exec 3<>"/dev/tcp/127.0.0.1/$1") 2>/dev/null; }

free_port() { # first
  local p=$1
  until port_free "$p"; do p=$((p + 1)); done
  printf '%s' "$p"
}

setting() { # name: its value in the instance's env file
  sed -n "s/^$1=//p" "$VANTREL_HOME/env" 2>/dev/null | tail -n 1
}

set_setting() { # name value
  if grep -q "^$1=" "$VANTREL_HOME/env"; then
    sed -i "s|^$1=.*|$1=$2|" "$VANTREL_HOME/env"
  else
    printf '%s=%s\n' "$1" "$2" >>"$VANTREL_HOME/env"
  fi
}

instance_files() {
  mkdir -p "$VANTREL_HOME"/{log,run,tmp,storage/{app,fonts,logs,framework/{cache,views,sessions}}}
  chmod 700 "$VANTREL_HOME"
  if [ ! -f "$VANTREL_HOME/env" ]; then
    cat >"$VANTREL_HOME/env" <<ENV
APP_NAME=Vantrel
APP_ENV=production
APP_KEY=base64:$(head -c 32 /dev/urandom | base64)
APP_DEBUG=false
APP_URL=http://127.0.0.1:8080
DB_CONNECTION=mariadb
DB_HOST=127.0.0.1
DB_PORT=33070
DB_DATABASE=vantrel
DB_USERNAME=vantrel
DB_PASSWORD=$(head -c 18 /dev/urandom | base64 | tr -d '+/=')
SESSION_DRIVER=database
CACHE_STORE=database
QUEUE_CONNECTION=database
DB_QUEUE_RETRY_AFTER=330
LOG_CHANNEL=daily
BCRYPT_ROUNDS=12
ENV
    chmod 600 "$VANTREL_HOME/env"
  fi
}

alive() { # pid file
  [ -f "$1" ] && kill -0 "$(cat "$1")" 2>/dev/null
}

database_start() {
  local dir=$VANTREL_HOME/mysql pid=$VANTREL_HOME/run/mariadb.pid
  alive "$pid" && return 0
  local user=()
  [ "$(id -u)" = 0 ] && user=(--user=root)
  if [ ! -d "$dir/mysql" ]; then
    step "Making the database"
    quietly "mariadb-install-db" "Delete $dir and run this again." \
      mariadb-install-db --no-defaults "${user[@]}" --datadir="$dir" --tmpdir="$VANTREL_HOME/tmp" --auth-root-authentication-method=normal --skip-test-db
  fi
  # A socket's path has at most 107 characters, so it lives in a folder of its own under /tmp.
  local port socket tries
  socket=$(mktemp -d /tmp/vantrel-XXXXXX)/db.sock
  echo "$socket" >"$VANTREL_HOME/run/socket"
  port=$(setting DB_PORT)
  # A port that nobody listens at may still be the near end of a connection: then another one is tried.
  for tries in 1 2 3 4 5; do
    port=$(free_port "$port")
    setsid mariadbd --no-defaults "${user[@]}" --datadir="$dir" --tmpdir="$VANTREL_HOME/tmp" --socket="$socket" --bind-address=127.0.0.1 \
      --port="$port" --pid-file="$pid" --innodb-buffer-pool-size=256M --innodb-flush-log-at-trx-commit=1 --max-allowed-packet=64M \
      --character-set-server=utf8mb4 --skip-name-resolve ${DB_EXTRA:-} >"$VANTREL_HOME/log/mariadb.log" 2>&1 &
    local server=$!
    for _ in $(seq 150); do
      mariadb --no-defaults -uroot -S "$socket" -e 'select 1' >/dev/null 2>&1 && break 2
      kill -0 "$server" 2>/dev/null || break
      sleep 0.2
    done
    grep -q 'Address already in use' "$VANTREL_HOME/log/mariadb.log" || break
    port=$((port + 1))
  done
  set_setting DB_PORT "$port"
  mariadb --no-defaults -uroot -S "$socket" 2>"$VANTREL_HOME/log/grants.log" <<SQL || fail "MariaDB did not come up" "Read $VANTREL_HOME/log/mariadb.log."
CREATE DATABASE IF NOT EXISTS vantrel CHARACTER SET utf8mb4 COLLATE utf8mb4_uca1400_ai_ci;
CREATE USER IF NOT EXISTS vantrel@'127.0.0.1';
ALTER USER vantrel@'127.0.0.1' IDENTIFIED BY '$(setting DB_PASSWORD)';
GRANT ALL ON \`vantrel%\`.* TO vantrel@'127.0.0.1';
SQL
}

# Stops a process this instance started, by its own pid file.
stop_one() { # pid file
  local pid
  [ -f "$1" ] || return 0
  pid=$(cat "$1")
  if kill -0 "$pid" 2>/dev/null; then
    # Each was started as the leader of a group of its own: its children go with it.
    kill -TERM -- "-$pid" 2>/dev/null || kill -TERM "$pid" 2>/dev/null || true
    for _ in $(seq 100); do kill -0 "$pid" 2>/dev/null || break; sleep 0.1; done
  fi
  rm -f "$1"
}

# nginx and php-fpm with settings of their own, in the way docs/operations.md has them.
behind_nginx() { # port
  local run=$VANTREL_HOME/run socket
  socket=$(dirname "$(cat "$run/socket")")/fpm.sock
  cat >"$run/fpm.conf" <<CONF
[global]
error_log = $VANTREL_HOME/log/fpm.log
[vantrel]
listen = $socket
pm = static
pm.max_children = 4
clear_env = no
env[VANTREL_HOME] = $VANTREL_HOME
env[APP_CONFIG_CACHE] = ${APP_CONFIG_CACHE:-}
env[APP_ROUTES_CACHE] = ${APP_ROUTES_CACHE:-}
env[DB_PERSISTENT] = true
php_admin_value[memory_limit] = 512M
php_admin_value[opcache.validate_timestamps] = 0
$([ "$(id -u)" = 0 ] && printf 'user = root\ngroup = root\nlisten.mode = 0666')
CONF
  mkdir -p "$run/nginx"
  cat >"$run/nginx.conf" <<CONF
$([ "$(id -u)" = 0 ] && printf 'user root;')
worker_processes 2;
pid $run/nginx/pid;
error_log $VANTREL_HOME/log/nginx.log;
events { worker_connections 1024; }
http {
  access_log off;
  client_body_temp_path $run/nginx/body; proxy_temp_path $run/nginx/proxy; fastcgi_temp_path $run/nginx/fastcgi; uwsgi_temp_path $run/nginx/uwsgi; scgi_temp_path $run/nginx/scgi;
  include /etc/nginx/mime.types;
  server {
    listen 127.0.0.1:$1;
    root $ROOT/public;
    client_max_body_size 22m;
    gzip_types application/javascript text/css image/svg+xml;
    location /build/ { gzip on; gzip_vary on; add_header Cache-Control "public, max-age=31536000, immutable"; }
    location / { try_files \$uri /index.php?\$query_string; }
    location ~ ^/index\.php\$ { include /etc/nginx/fastcgi_params; fastcgi_param SCRIPT_FILENAME \$document_root/index.php; fastcgi_pass unix:$socket; }
  }
}
CONF
  setsid php-fpm8.2 --nodaemonize --fpm-config "$run/fpm.conf" -d opcache.preload="$ROOT/bootstrap/preload.php" -d opcache.preload_user="$(id -un)" -d opcache.max_accelerated_files=20000 -d opcache.memory_consumption=256 $([ "$(id -u)" = 0 ] && echo --allow-to-run-as-root) >"$VANTREL_HOME/log/fpm-out.log" 2>&1 &
  echo $! >"$run/fpm.pid"
  setsid nginx -e "$VANTREL_HOME/log/nginx.log" -c "$run/nginx.conf" -g 'daemon off;' >"$VANTREL_HOME/log/nginx-out.log" 2>&1 &
  echo $! >"$run/nginx.pid"
  for _ in $(seq 100); do
    curl -fsS -o /dev/null "http://127.0.0.1:$1/up" 2>/dev/null && return 0
    sleep 0.1
  done
  fail "nginx and php-fpm did not come up" "Read $VANTREL_HOME/log/fpm-out.log and $VANTREL_HOME/log/nginx.log."
}

instance_stop() {
  for part in web worker worker2 scheduler records mail nginx fpm mariadb; do stop_one "$VANTREL_HOME/run/$part.pid"; done
  if [ -f "$VANTREL_HOME/run/socket" ]; then
    rm -rf "$(dirname "$(cat "$VANTREL_HOME/run/socket")")"
    rm -f "$VANTREL_HOME/run/socket"
  fi
}

fonts() {
  [ -f "$VANTREL_HOME/storage/fonts/.from" ] && [ -z "$(find "$ROOT/resources/fonts" "$ROOT/app/Platform/Print/Face.php" -newer "$VANTREL_HOME/storage/fonts/.from" -print -quit)" ] && return 0
  quietly "converting fonts" "Check that resources/fonts is complete." php "$ROOT/artisan" vantrel:fonts
  touch "$VANTREL_HOME/storage/fonts/.from"
}
