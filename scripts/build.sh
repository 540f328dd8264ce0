# Builds what changed since it was built last, quietly; what goes wrong is shown.

program() { printf '%s' "$here/artifacts/bin/$1/release/$1.dll"; }

# is_newer STAMP PATH…: whether anything below the paths changed after the stamp was set
is_newer() {
  local stamp=$1
  shift
  [ ! -e "$stamp" ] && return 0
  [ -n "$(find "$@" \( -name node_modules -o -name bin -o -name obj -o -name test-results \) -prune -o -newer "$stamp" -print -quit 2>/dev/null)" ]
}

# quietly WHAT COMMAND…: runs it, and shows its output only when it fails
quietly() {
  local what=$1 log
  shift
  log=$(mktemp)
  say "$what …"
  if ! "$@" >"$log" 2>&1; then
    cat "$log" >&2
    rm -f "$log"
    return 1
  fi
  rm -f "$log"
}

sources=(src demo Directory.Build.props Directory.Packages.props global.json .editorconfig)

# build_project FOLDER: builds one project in release form
build_project() {
  local name stamp
  name=$(basename "$1")
  stamp=artifacts/built-$name
  is_newer "$stamp" "${sources[@]}" "$1" || return 0
  mkdir -p artifacts
  touch "$stamp.begun"
  quietly "Building $name" dotnet build "$1" -c Release -v quiet -p:RestoreLockedMode=true || fail "$name could not be built; see above."
  mv "$stamp.begun" "$stamp"
}

build_everything() {
  local stamp=artifacts/built-everything
  is_newer "$stamp" "${sources[@]}" tests Rendal.slnx || return 0
  mkdir -p artifacts
  touch "$stamp.begun"
  quietly "Building everything" dotnet build Rendal.slnx -c Release -v quiet -p:RestoreLockedMode=true || fail "the program could not be built; see above."
  cp -p "$stamp.begun" artifacts/built-Rendal.Web
  cp -p "$stamp.begun" artifacts/built-Rendal.Cli
  mv "$stamp.begun" "$stamp"
}

# install_packages FOLDER: the npm packages named in its lock file
install_packages() {
  [ "$1/node_modules/.package-lock.json" -nt "$1/package-lock.json" ] && return 0
  quietly "Fetching the npm packages of $1" npm ci --prefix "$1" --no-audit --no-fund || fail "the npm packages of $1 could not be fetched; see above."
  touch "$1/node_modules/.package-lock.json"
}

build_web_pages() {
  install_packages web
  build_project src/Rendal.Web
  local stamp=artifacts/built-web
  is_newer "$stamp" web artifacts/openapi/rendal.json || return 0
  # The types are written among the sources, so that they have to be there before the stamp is set.
  quietly "Writing the types of the API" npm run --prefix web api || fail "the types of the API could not be written; see above."
  touch "$stamp.begun"
  quietly "Building the pages" npm run --prefix web build || fail "the pages could not be built; see above."
  mv "$stamp.begun" "$stamp"
}
