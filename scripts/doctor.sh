# Says what is there, what is missing, and what to do about it.

missing=0

have() { printf '  ✓ %-12s %s\n' "$1" "$2"; }
lack() { printf '  ✗ %-12s %s\n' "$1" "$2"; missing=$((missing + 1)); }
optional() { printf '  – %-12s %s\n' "$1" "$2"; }

examine() {
  if asks_for_help "$@"; then
    echo "./rendal doctor    says what is there, what is missing and what to do; changes nothing"
    return
  fi
  local found folder free
  found=$(dotnet_version)
  if [ -n "$found" ] && at_least "$found" "$dotnet_wanted"; then have .NET "SDK $found"; else lack .NET "SDK $dotnet_wanted is needed${found:+, $found is there}: install the package dotnet-sdk-$dotnet_wanted.0"; fi
  found=$(node_version)
  if [ -n "$found" ] && at_least "$found" "$node_wanted"; then have Node.js "$found"; else lack Node.js "$node_wanted or newer is needed${found:+, $found is there}"; fi
  folder=$(postgres_folder)
  if [ -n "${RENDAL_DATABASE_URL:-}" ]; then have PostgreSQL "the server named by RENDAL_DATABASE_URL"
  elif [ -n "$folder" ]; then have PostgreSQL "$("$folder/postgres" --version | sed 's/^postgres (PostgreSQL) //')"
  else lack PostgreSQL "is installed by ./rendal demo, or by: sudo apt-get install postgresql"; fi
  found=$(chromium_path)
  if [ -n "$found" ]; then have Chromium "$found"; else optional Chromium "only for tests, benchmarks and pictures, which install it"; fi
  if command -v smtp-source >/dev/null || [ -x /usr/sbin/smtp-source ]; then have smtp-source "for ./rendal bench"; else optional smtp-source "only for comparing in ./rendal bench (Debian package postfix)"; fi
  for port in "${RENDAL_PORT:-8420}" "${RENDAL_MAIL_PORT:-2525}"; do
    if (exec 3<>"/dev/tcp/127.0.0.1/$port") 2>/dev/null; then lack "Port $port" "is taken; name another one by --port or --mail-port"; else have "Port $port" "is free"; fi
  done
  free=$(df -Pm . | awk 'NR == 2 { print $4 }')
  if [ "$free" -ge 2000 ]; then have Disk "$free MB free"; else lack Disk "$free MB free; building needs about 2000 MB"; fi
  if [ -e artifacts/built-Rendal.Web ] && [ -e artifacts/built-web ]; then have Built "yes"; else optional Built "not yet; ./rendal demo does it"; fi
  if [ "$missing" -gt 0 ]; then
    echo "$missing to see to."
    return 1
  fi
  echo "Nothing is missing."
}
