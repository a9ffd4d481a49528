#!/usr/bin/env bash
# licences_test.sh BUILD: whatever is compiled into the programs has its licence in third_party/licences, and nothing else has.
set -euo pipefail
build=$1
source=$(cd "$(dirname "$0")/../.." && pwd)
cd "$source"
fail() {
  echo "FAILED: $1"
  exit 1
}
licences() { sed -n 's/^From: //p' third_party/licences/*.txt; }

# The headers and sources that our objects were made of, as the compiler told them.
used=$(ninja -C "$build" -t deps | awk '/^[^ ].*: #deps/ { ours = /^(src|CMakeFiles\/grammars)/ } ours && /^ / { print $1 }' | sort -u)
[ "$(wc -l <<<"$used")" -gt 500 ] || fail "the build does not tell what it was made of"

# Packages of the system, but for those whose library stays a file of its own beside the program, and what declares the
# compiler's, the kernel's and the display's own.
from=$(grep ^/ <<<"$used" | grep -v -e "^$source" -e "^$build" | xargs realpath | sort -u | xargs dpkg -S 2>/dev/null | sed 's/: .*//; s/:[a-z0-9]*$//' | sort -u)
needed=$(readelf -dW "$build"/bin/boldh "$build"/bin/bold-harness | sed -n 's/.*(NEEDED).*\[\(.*\)\]/\1/p' | sort -u)
beside() {
  local library
  for library in $(dpkg -L "$1" | grep -E '/lib[^/]*\.so(\.[0-9.]+)?$'); do
    grep -qxF "$(basename "$(realpath "$library")")" <<<"$needed" && return 0
    for name in $needed; do [[ $(basename "$(realpath "$library")") == "$name"* ]] && return 0; done
  done
  return 1
}
for package in $from; do
  case "$package" in libc6-dev | libstdc++-*-dev | libgcc-*-dev | linux-libc-dev | libgl-dev | libfmt-dev) continue ;; esac
  beside "$package" || licences | grep -qxF "$package" || fail "$package is compiled in, and third_party/licences says nothing of it"
done

# Sources that were fetched.
for package in $(sed -n 's,.*/node_modules/\([^/]*\)/.*,\1,p' <<<"$used" | sort -u); do
  licences | grep -qxF "$package" || fail "$package is compiled in, and third_party/licences says nothing of it"
done

for file in third_party/licences/*.txt; do
  package=$(sed -n 's/^From: //p' "$file")
  fetched="third_party/grammars/node_modules/$package"
  if [ -d "$fetched" ]; then
    grep -q "/node_modules/$package/" <<<"$used" || fail "$file: $package is not compiled in"
    diff <(sed '1,/^$/d' "$file") "$fetched/LICENSE" >/dev/null || fail "$file is not the licence that $package came with"
  else
    grep -qxF "$package" <<<"$from" || fail "$file: $package is not compiled in"
    # Every holder whom the package names for its main part.
    holders=$(awk '/^Files: \*/ { main = 1 } main && /^$/ { exit } main' "/usr/share/doc/$package/copyright" |
      sed -n 's/^Copyright: *//; /^[0-9 ]/p' | sed 's/<.*//; s/^ *//; s/^[0-9-]*,\{0,1\} *//; s/ *$//')
    [ -n "$holders" ] || fail "/usr/share/doc/$package/copyright names no holder"
    while read -r holder; do grep -qF "$holder" "$file" || fail "$file does not name $holder"; done <<<"$holders"
  fi
done
echo "$(licences | wc -l) licences, of all that is compiled in."
