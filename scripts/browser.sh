# Runs Playwright against the sample firm on free ports, with data that are thrown away afterwards.

free_port() { node -e 'const s = require("net").createServer().listen(0, "127.0.0.1", () => { console.log(s.address().port); s.close(); })'; }

# run_in_browser PROJECT [REPORT [SPEC]]: all specs of a project, or those whose file has SPEC in its name
run_in_browser() {
  local data status=0
  data=$(mktemp -d "${TMPDIR:-/tmp}/rendal-browser-XXXXXX")
  (
    cd tests/e2e
    export CI=1 RENDAL_E2E_DATA=$data RENDAL_E2E_REPORT=${2:+$here/$2}
    RENDAL_E2E_PORT=$(free_port) RENDAL_E2E_MAIL_PORT=$(free_port) RENDAL_E2E_IMAP_PORT=$(free_port) RENDAL_CHROMIUM=$(chromium_path) npx --no-install playwright test --project="$1" ${3:+"$3"} >&2
  ) || status=$?
  # Of a journey that failed: what the page said at the end.
  if [ "$status" -ne 0 ]; then
    find tests/e2e/test-results -name error-context.md -exec cat {} + >&2 || true
  fi
  rm -rf "$data"
  return "$status"
}
