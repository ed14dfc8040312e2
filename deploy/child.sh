#!/usr/bin/env bash
# One child of the supervisor: ends what an earlier one left behind, writes down who it is, becomes the program.
# Use: deploy/child.sh RUN-FOLDER NAME PROGRAM ARGUMENTS...
run=$1; name=$2; shift 2
. "$(dirname "$0")/groups.sh"
end_group "$(cat "$run/$name.pid" 2>/dev/null)" "$name"
echo $$ > "$run/$name.pid"
exec "$@"
