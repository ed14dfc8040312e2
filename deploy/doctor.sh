# What is wrong with the shop on this machine and how to mend it; sourced by ./yard.

good() { printf '  good   %s\n' "$1"; }
wrong() { printf '  WRONG  %s\n         %s\n' "$1" "$2"; WRONG=$((WRONG + 1)); }

examine_machine() {
  local tool free state=$STATE
  for tool in php composer node npm; do command -v $tool > /dev/null || wrong "$tool is not installed." "Install it; ./yard start installs the rest."; done
  local missing="" p
  for p in $DEBIAN_PACKAGES; do dpkg-query -W -f='${Status}' "$p" 2> /dev/null | grep -q 'ok installed' || missing="$missing $p"; done
  [ -z "$missing" ] && good "every Debian package is there" || wrong "Debian packages are missing:$missing." "Run ./yard start as root."
  [ -d "$state" ] || state=$ROOT
  free=$(df -Pk "$state" | awk 'NR==2 {print int($4 / 1024)}')
  [ "$free" -ge 2000 ] && good "$free MB free on the disk" || wrong "Only $free MB are free on the disk of $state." "Make room: old backups and storage/*.before-* first."
}

examine_processes() {
  local name port
  if ! supervised; then
    wrong "The supervisor does not run." "Run ./yard start."
  fi
  for name in $CHILDREN; do
    [ "$name" != backups ] || [ "$INSTANCE" = shop ] || continue
    alive "$name" && good "$name runs" || wrong "$name does not run." "Run ./yard start; its last words are in $LOGS/$name.log."
  done
  for port in "web $WEB_PORT" "rig $RIG_PORT" "second-rig $RIG_B_PORT" "gateway $GATEWAY_PORT" "database $DB_PORT"; do
    port_open "${port#* }" && good "the port of the ${port% *} (${port#* }) answers" || wrong "The port of the ${port% *} (${port#* }) does not answer." "Another program may hold it: see ss -ltnp; set YARD_PORT or YARD_DB_PORT."
  done
}

examine_data() {
  local waiting failed
  if ! owner_sql yard -e 'SELECT 1' > /dev/null 2>&1; then
    wrong "The database does not answer." "See $LOGS/db.log; ./yard stop and ./yard start bring it back, ./yard restore FILE the last backup."
    return
  fi
  good "the database answers"
  waiting=$(owner_sql -N yard -e "SELECT COUNT(*) FROM jobs WHERE available_at < UNIX_TIMESTAMP() - 300")
  [ "$waiting" = 0 ] && good "no work waits longer than five minutes" || wrong "$waiting pieces of work wait longer than five minutes." "See $LOGS/queue.log and $LOGS/imports.log."
  failed=$(owner_sql -N yard -e "SELECT COUNT(*) FROM failed_jobs" 2> /dev/null || echo 0)
  [ "$failed" = 0 ] && good "no work has failed" || wrong "$failed pieces of work have failed." "See them: ./yard artisan queue:failed; try again: ./yard artisan queue:retry all."
  as_web php artisan migrate:status 2> /dev/null | grep -q Pending && wrong "Tables are of an earlier version." "Run ./yard start." || good "the tables are of this version"
}

examine_safety() {
  local last
  last=$(find "$BACKUPS" -maxdepth 1 -name 'yard-*.tar.gz' -mmin -2880 2> /dev/null | sort | tail -1)
  [ -n "$last" ] && good "the last backup is $(basename "$last")" || wrong "There is no backup of the last two days." "Run ./yard backup; see $LOGS/backups.log."
  [ "$WEB_USER_OS" != "$(id -un)" ] && good "the chain heads are sealed by another user than the web's" \
    || wrong "The chain heads are sealed by the web's own user, who could rewrite them." "Start the shop as root in a folder every user can enter."
  [ "$(stat -c %a "$STATE/secrets" 2> /dev/null)" = 600 ] && good "the secrets are their owner's alone" || wrong "$STATE/secrets can be read by others." "chmod 600 $STATE/secrets"
}

examine() {
  WRONG=0
  say "The machine:"; examine_machine
  if [ ! -d "$STATE/db" ]; then
    wrong "The shop has not been set up on this machine." "Run ./yard start."
  else
    say "The processes:"; examine_processes
    say "The data:"; examine_data
    say "Safety:"; examine_safety
  fi
  [ "$WRONG" = 0 ] && say "All is well." || { say "$WRONG $([ "$WRONG" = 1 ] && echo thing is || echo things are) wrong."; return 1; }
}
