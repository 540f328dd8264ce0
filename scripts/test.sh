# Every check and test, with one closing line that counts them.

passed=0
failed=0
skipped=0

# check WHAT COMMAND…: a check that counts as one
check() {
  if quietly "Checking $1" "${@:2}"; then passed=$((passed + 1)); else failed=$((failed + 1)); fi
}

# number_of WORD TEXT: the number in "  failed: 3"
number_of() { sed -nE "s/^ *$1: ([0-9]+).*/\1/p" <<<"$2" | tail -n 1; }

dotnet_tests() {
  say "Testing the program …"
  local output status=0
  output=$(dotnet test --solution Rendal.slnx -c Release --no-build 2>&1) || status=$?
  grep -E '^ *(failed|Failed|error|passed|failed) |Assert|Exception|   at .*Tests|Zero tests' <<<"$output" >&2 || true
  [ "$status" -eq 0 ] || printf '%s\n' "$output" >&2
  local succeeded=$(number_of succeeded "$output")
  passed=$((passed + ${succeeded:-0}))
  failed=$((failed + $(number_of failed "$output" || echo 0)))
  skipped=$((skipped + $(number_of skipped "$output" || echo 0)))
  # A run that broke off counts, whatever it had counted by then.
  if [ "$status" -ne 0 ] && [ "$failed" -eq 0 ]; then failed=$((failed + 1)); fi
}

page_tests() {
  say "Testing the pages' own code …"
  local report=artifacts/test-web.json status=0
  npm run --silent --prefix web test -- --reporter=default --reporter=json --outputFile.json="$here/$report" >&2 || status=$?
  count_report "$report" "$status" 'const r = JSON.parse(text); [r.numPassedTests, r.numFailedTests, r.numPendingTests + r.numTodoTests]'
}

journey_tests() {
  say "Testing what a person sees, in Chromium …"
  local report=artifacts/test-e2e.json status=0
  run_in_browser journeys "$report" || status=$?
  count_report "$report" "$status" 'const s = JSON.parse(text).stats; [s.expected + s.flaky, s.unexpected, s.skipped]'
}

# count_report FILE STATUS EXPRESSION: adds what a report counted; a run without a report is a failure
count_report() {
  local counts
  if ! counts=$(node -e 'const text = require("fs").readFileSync(process.argv[1], "utf8"); console.log(eval(process.argv[2]).join(" "))' "$1" "$3"); then
    failed=$((failed + 1))
    return
  fi
  local p f s
  read -r p f s <<<"$counts"
  passed=$((passed + p))
  failed=$((failed + f))
  skipped=$((skipped + s))
  if [ "$2" -ne 0 ] && [ "$f" -eq 0 ]; then failed=$((failed + 1)); fi
}

# some_tests PLACE: those of one project, of one of its folders, of the pages' own code, or of one journey
some_tests() {
  local project=${1%%/*} folder=
  [[ $1 == */* ]] && folder=${1#*/}
  case "$project" in
    web)
      need_node
      install_packages web
      npm run --silent --prefix web test -- ${folder:+"src/$folder"}
      ;;
    e2e)
      . scripts/browser.sh
      need_dotnet
      need_node
      need_postgres
      need_chromium
      install_packages web
      install_packages tests/e2e
      build_project tests/e2e/PdfText
      run_in_browser journeys artifacts/test-e2e.json "$folder"
      ;;
    *)
      [ -d "tests/Rendal.$project.Tests${folder:+/$folder}" ] || fail "There are no tests in tests/Rendal.$project.Tests${folder:+/$folder}."
      need_dotnet
      need_postgres
      build_project "tests/Rendal.$project.Tests"
      local of=()
      [ -z "$folder" ] || of=(-namespace "Rendal.$project.Tests.${folder//\//.}*")
      "artifacts/bin/Rendal.$project.Tests/release/Rendal.$project.Tests" "${of[@]}"
      ;;
  esac
}

run_tests() {
  if asks_for_help "$@"; then
    cat <<'HELP'
./rendal test          builds everything, then checks form and style, runs all tests of the program
                       against a PostgreSQL and a postroom of their own, and the end-to-end tests in
                       Chromium; ends with a line  N passed, N failed, N skipped
./rendal test PLACE    only those of a project or of one of its folders: Core, Core/Statements, Web/Rounds,
                       web, web/features/rounds, e2e, e2e/sending
HELP
    return
  fi
  if [ $# -gt 0 ]; then
    for place in "$@"; do some_tests "$place"; done
    return
  fi
  . scripts/browser.sh
  need_dotnet
  need_node
  need_postgres
  need_chromium
  offer_qpdf
  install_packages web
  install_packages tests/e2e
  build_everything
  build_web_pages
  quietly "Fetching what formats the program" dotnet tool restore
  check "the form of the program" dotnet csharpier check src tests demo
  check "the form and types of the pages" npm run --prefix web check
  check "the form and types of the end-to-end tests" npm run --prefix tests/e2e check
  dotnet_tests
  page_tests
  journey_tests
  printf '%s passed, %s failed, %s skipped\n' "$passed" "$failed" "$skipped"
  [ "$failed" -eq 0 ]
}
