# What the machine must have. Debian's packages are installed where they lack and we may; the rest is asked for.

say() { printf '%s\n' "$*" >&2; }
fail() { printf 'rendal: %s\n' "$*" >&2; exit 2; }

dotnet_wanted=10
node_wanted=20.19

# 20.20.2 is at least 20.19
at_least() { [ "$(printf '%s\n%s\n' "$2" "$1" | sort -V | head -n 1)" = "$2" ]; }

dotnet_version() { command -v dotnet >/dev/null && (cd / && dotnet --list-sdks | cut -d ' ' -f 1 | sort -V | tail -n 1) || true; }
node_version() { command -v node >/dev/null && node --version | tr -d v || true; }

# The newest server where Debian puts it, else the one on the PATH; nothing where there is none.
postgres_folder() {
  local found
  found=$(find /usr/lib/postgresql -mindepth 3 -maxdepth 3 -path '*/bin/initdb' 2>/dev/null | sort -V | tail -n 1 || true)
  [ -n "$found" ] || found=$(command -v initdb || true)
  [ -z "$found" ] || dirname "$found"
}

chromium_path() { command -v chromium || command -v chromium-browser || true; }

need_dotnet() {
  local found
  found=$(dotnet_version)
  [ -n "$found" ] || fail "the .NET SDK $dotnet_wanted is missing; install it from Microsoft's package source (package dotnet-sdk-$dotnet_wanted.0)."
  at_least "$found" "$dotnet_wanted" || fail "the .NET SDK is $found; version $dotnet_wanted is needed (package dotnet-sdk-$dotnet_wanted.0)."
  export DOTNET_NOLOGO=1 DOTNET_CLI_TELEMETRY_OPTOUT=1 MSBUILDDISABLENODEREUSE=1
}

need_node() {
  local found
  found=$(node_version)
  [ -n "$found" ] || fail "Node.js is missing; install version $node_wanted or newer (package nodejs of NodeSource, or nodejs.org)."
  at_least "$found" "$node_wanted" || fail "Node.js is $found; version $node_wanted or newer is needed."
  command -v npm >/dev/null || fail "npm is missing; install it together with Node.js."
}

need_postgres() {
  [ -n "${RENDAL_DATABASE_URL:-}" ] && return
  [ -n "$(postgres_folder)" ] && return
  # Only the programs are wanted: Debian's package would also make and start a server of its own on port 5432.
  local keep_out=/etc/postgresql-common/createcluster.d/rendal-no-cluster.conf
  install_package postgresql-common "PostgreSQL"
  as_root mkdir -p "$(dirname "$keep_out")"
  echo 'create_main_cluster = false' | as_root tee "$keep_out" >/dev/null
  install_package postgresql "PostgreSQL"
  as_root rm -f "$keep_out"
}

need_chromium() { [ -n "$(chromium_path)" ] || install_package chromium "Chromium"; }

may_install() { command -v apt-get >/dev/null && { [ "$(id -u)" = 0 ] || sudo -n true 2>/dev/null; }; }

# Without it the tests that look PDFs through are skipped.
offer_qpdf() { if [ -z "$(command -v qpdf || true)" ] && may_install; then install_package qpdf "qpdf"; fi; }

# Without them the tests against real mail servers are skipped. Only the programs are wanted: Debian's packages would also
# configure and start servers of their own.
offer_mail_servers() {
  if { [ -x /usr/sbin/postfix ] && [ -e /usr/lib/dovecot/modules/lib90_sieve_plugin.so ]; } || ! may_install; then return; fi
  local policy=/usr/sbin/policy-rc.d had=yes
  if [ ! -e "$policy" ]; then
    had=no
    printf '#!/bin/sh\nexit 101\n' | as_root tee "$policy" >/dev/null
    as_root chmod 755 "$policy"
  fi
  echo 'postfix postfix/main_mailer_type select No configuration' | as_root debconf-set-selections
  for package in postfix dovecot-imapd dovecot-lmtpd dovecot-sieve; do install_package "$package" "$package"; done
  [ "$had" = yes ] || as_root rm -f "$policy"
}

as_root() { if [ "$(id -u)" = 0 ]; then "$@"; else sudo -n "$@"; fi; }

# install_package NAME WHAT
install_package() {
  if ! command -v apt-get >/dev/null; then
    fail "$2 is missing; install it with the package manager of this system."
  fi
  if [ "$(id -u)" != 0 ] && ! sudo -n true 2>/dev/null; then
    fail "$2 is missing; run: sudo apt-get install $1"
  fi
  say "Installing $2 (Debian package $1) …"
  local log
  log=$(mktemp)
  if ! { as_root apt-get update && as_root env DEBIAN_FRONTEND=noninteractive apt-get install -y --no-install-recommends "$1"; } >"$log" 2>&1; then
    tail -n 3 "$log" >&2
    rm -f "$log"
    fail "$2 could not be installed; run: apt-get install $1"
  fi
  rm -f "$log"
}
