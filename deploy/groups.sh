# Process groups of this folder's programs; sourced by ./yard and by deploy/child.sh.

HOUSE=$(cd "$(dirname "${BASH_SOURCE[0]}")/.." && pwd -P)

# Who of a group still runs out of this folder: numbers are given again, so the working folder is asked too.
members_of() {
  local p
  [ -n "$1" ] || return 0
  for p in $(pgrep -g "$1" 2>/dev/null); do
    [ "$p" != $$ ] || continue
    case $(readlink "/proc/$p/cwd" 2>/dev/null) in "$HOUSE" | "$HOUSE"/*) echo "$p" ;; esac
  done
}

# A database is given a minute to write what it holds; nothing else is.
end_group() {
  local group=$1 patience=5 i
  [ "$2" != db ] || patience=60
  [ -n "$(members_of "$group")" ] || return 0
  kill -TERM $(members_of "$group") 2>/dev/null
  for i in $(seq 1 $((patience * 10))); do [ -n "$(members_of "$group")" ] || return 0; sleep 0.1; done
  kill -KILL $(members_of "$group") 2>/dev/null
  sleep 0.2
}
