#!/usr/bin/env bash
# package_test.sh BUILD: makes the package, installs it in a root of its own, runs both programs from there, takes it away.
set -euo pipefail
build=$1
source=$(cd "$(dirname "$0")/../.." && pwd)
work=$(mktemp -d)
trap 'rm -rf "$work"' EXIT
fail() {
  echo "FAILED: $1"
  exit 1
}

(cd "$build" && umask 022 && cpack -G DEB >"$work/cpack.log" 2>&1) || { cat "$work/cpack.log"; fail "cpack"; }
deb=$(ls -t "$build"/package/bold-harness_*.deb | head -1)

lintian --fail-on error,warning "$deb" || fail "lintian"
desktop-file-validate "$source/packaging/bold-harness.desktop" || fail "desktop entry"
appstreamcli validate --no-net "$source/packaging/local.boldharness.BoldHarness.metainfo.xml" || fail "AppStream metadata"

root="$work/root"
mkdir -p "$root/var/lib/dpkg/info" "$root/var/lib/dpkg/updates" "$root/var/lib/dpkg/triggers"
touch "$root/var/lib/dpkg/status" "$root/var/lib/dpkg/available"
dpkg --root="$root" --log="$work/dpkg.log" --force-not-root --force-depends --force-script-chrootless -i "$deb" >"$work/install.log" 2>&1 ||
  { cat "$work/install.log"; fail "install"; }

version=$(dpkg-deb -f "$deb" Version)
[ "$("$root/usr/bin/boldh" --version)" = "boldh $version" ] || fail "boldh --version"
"$root/usr/bin/boldh" check "$source/demo/wave-tank.harness" >"$work/report" || fail "boldh check"
grep -q "Clear to switch on" "$work/report" || fail "the report"
export HOME="$work/home" XDG_RUNTIME_DIR="$work/run" QT_QPA_PLATFORM=offscreen
mkdir -p "$HOME" && mkdir -m 700 "$XDG_RUNTIME_DIR"
"$root/usr/bin/bold-harness" --picture "$work/window.png" "$source/demo/wave-tank.harness" || fail "bold-harness"
[ "$(head -c 4 "$work/window.png" | tail -c 3)" = PNG ] || fail "the picture"
"$root/usr/bin/bold-harness" --report "$work/report.pdf" "$source/demo/wave-tank-first-try.harness" || fail "the report on paper"
[ "$(head -c 4 "$work/report.pdf")" = %PDF ] || fail "the PDF"
# What the programs left in the user's home lies where XDG says.
[ -z "$(find "$HOME" -mindepth 1 -maxdepth 1 ! -name .local ! -name .config ! -name .cache)" ] || fail "files outside of XDG folders"

# The licence of everything that is compiled in, word for word.
squeezed() { tr -s ' \n' ' ' | sed 's/ \. / /g'; }
for licence in "$source"/third_party/licences/*.txt; do
  wanted=$(sed '1,/^$/d' "$licence" | squeezed)
  squeezed <"$root/usr/share/doc/bold-harness/copyright" | grep -qF -- "${wanted:0:2000}" || fail "the package does not hold $licence"
done

# A bench is known by its name, opens with the program, and has manuals.
update-mime-database "$root/usr/share/mime"
grep -q 'application/x-bold-harness+json:\*.harness' "$root/usr/share/mime/globs" || fail "the MIME type"
update-desktop-database "$root/usr/share/applications"
grep -q 'application/x-bold-harness+json=bold-harness.desktop' "$root/usr/share/applications/mimeinfo.cache" || fail "double click"
# The manuals are typeset without a warning and leave out no option.
manual() {
  local page="$work/$1.1" option
  zcat "$root/usr/share/man/man1/$1.1.gz" >"$page"
  [ -z "$(groff -man -ww -z -Tutf8 "$page" 2>&1)" ] || fail "the manual of $1"
  for option in $("$root/usr/bin/$1" "$2" | grep -o -e '--[a-z][a-z-]*' | sort -u); do
    sed 's/\\-/-/g' "$page" | grep -e "$option" >/dev/null || fail "$option is not in the manual of $1"
  done
}
manual boldh --help-all
manual bold-harness --help

# What is completed is what the programs say.
completed=$(PATH="$root/usr/bin:$PATH" bash -c '
  _init_completion() { cur=${COMP_WORDS[COMP_CWORD]}; prev=${COMP_WORDS[COMP_CWORD-1]}; words=("${COMP_WORDS[@]}"); cword=$COMP_CWORD; }
  _filedir() { COMPREPLY+=(FILES); }
  . '"$root"'/usr/share/bash-completion/completions/boldh
  for line in "boldh " "boldh check --format " "boldh solve -" "boldh check " "boldh explain base-d" "boldh part l298n-m" "bold-harness --step "; do
    COMP_WORDS=($line); [[ $line == *" " ]] && COMP_WORDS+=(""); COMP_CWORD=$((${#COMP_WORDS[@]} - 1)); COMPREPLY=()
    case $line in bold-harness*) _bold_harness ;; *) _boldh ;; esac
    echo "$line: ${COMPREPLY[*]}"
  done')
for wanted in "boldh : check solve explain checks parts part place stages choose pins diff wires program export class --help --version" "boldh check --format : text json sarif junit" "boldh solve -:.* --supply" \
  "boldh check :.* FILES" "boldh explain base-d: base-drive" "boldh part l298n-m: .*l298n-module" "bold-harness --step : bench stages wiring limits currents"; do
  grep -q -e "$wanted" <<<"$completed" || { echo "$completed"; fail "completion: $wanted"; }
done

# What is installed is hardened: every call bound at the start, position independent, bounds checked.
for program in boldh bold-harness; do
  readelf -d "$root/usr/bin/$program" | grep BIND_NOW >/dev/null || fail "$program is not bound at its start"
  readelf -l "$root/usr/bin/$program" | grep GNU_RELRO >/dev/null || fail "$program has no read-only relocations"
  readelf -h "$root/usr/bin/$program" | grep 'DYN' >/dev/null || fail "$program stands at a fixed place"
  readelf --dyn-syms -W "$root/usr/bin/$program" | grep '__stack_chk_fail' >/dev/null || fail "$program has no stack protection"
done
readelf --dyn-syms -W "$root/usr/bin/boldh" | grep '_chk@' >/dev/null || fail "boldh is not fortified"
bash -n "$root/usr/share/bash-completion/completions/boldh" || fail "completion"

dpkg --root="$root" --log="$work/dpkg.log" --force-not-root --force-script-chrootless -P bold-harness >"$work/remove.log" 2>&1 ||
  { cat "$work/remove.log"; fail "removal"; }
left=$(find "$root/usr" -type f ! -path '*/mime/*' ! -name mimeinfo.cache)
[ -z "$left" ] || fail "left behind: $left"
echo "installed, run and removed: $(basename "$deb")"
