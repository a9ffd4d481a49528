#!/usr/bin/env bash
# no_foreign_code_test.sh PROGRAM…: nothing but the system's own libraries is run, wherever a program is started.
set -euo pipefail
work=$(mktemp -d)
trap 'rm -rf "$work"' EXIT
fail() {
  echo "FAILED: $1"
  exit 1
}

# A library that is none of those it is named after: a program that takes it does not start.
echo 'int planted;' >"$work/planted.c"
cc -shared -fPIC -o "$work/planted.so" "$work/planted.c"
export QT_QPA_PLATFORM=offscreen HOME="$work" XDG_RUNTIME_DIR="$work"
set -- $(realpath "$@")
folder="$work/folder of benches"
mkdir "$folder"
names=0
for program in "$@"; do
  dynamic=$(readelf -dW "$program") || fail "$program cannot be read"
  ! grep -E '\((RPATH|RUNPATH)\)' <<<"$dynamic" || fail "$program has a run path"
  for needed in $(sed -n 's/.*(NEEDED).*\[\(.*\)\]/\1/p' <<<"$dynamic"); do
    cp "$work/planted.so" "$folder/$needed"
    names=$((names + 1))
  done
done
[ "$names" -gt 10 ] || fail "the libraries that the programs need were not found"

# The trap works: whoever does look into the folder falls into it, and is seen looking.
starts() { (cd "$folder" && LD_DEBUG=libs "$@" --help >"$work/said" 2>&1); }
looked() { grep -E 'trying file=([^/]|$)' "$work/said"; }
! LD_LIBRARY_PATH=. starts "$1" || fail "the planted libraries stop nobody"
looked >/dev/null || fail "the loader does not tell where it looks"

for program in "$@"; do
  starts "$program" || { tail -3 "$work/said"; fail "$program does not start in the folder"; }
  ! looked || fail "$program looks for libraries in the folder it is started in"
done
echo "$# programs, $names names of libraries: none taken from the folder."
