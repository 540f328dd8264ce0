# Takes the pictures in docs/screenshots again, from the sample firm.

take_screenshots() {
  if asks_for_help "$@"; then
    echo "./rendal screenshots    takes the pictures in docs/screenshots again, at 1280×800, from the sample firm"
    return
  fi
  . scripts/browser.sh
  need_dotnet
  need_node
  need_postgres
  need_chromium
  install_packages tests/e2e
  build_web_pages
  run_in_browser pictures
}
