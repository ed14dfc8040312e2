# Proves that whatever dies comes back and whatever was kept is kept: a restored shop is the shop that was backed up, row
# by row and file by file, also when people worked meanwhile. Run by `./yard test operations`; sourced, so that it uses
# the functions of ./yard.

SENT=0
API=
check() { [ "$2" = "$3" ] || { say "FAILED: $1"; diff <(echo "$2") <(echo "$3") | head -20; return 1; }; }

knock() { # METHOD PATH [JSON] > body; the status in $STATUS
  local token
  token=$(awk '/XSRF/ {print $7}' "$JAR" 2>/dev/null | php -r 'echo urldecode(trim(stream_get_contents(STDIN)));')
  SENT=$((SENT + 1))
  STATUS=$(curl -s -b "$JAR" -c "$JAR" -X "$1" "$API$2" -o "$JAR.body" -w '%{http_code}' -H "X-XSRF-TOKEN: $token" \
    -H 'Accept: application/json' -H 'Content-Type: application/json' -H "Idempotency-Key: b-$(date +%s%N)-$SENT" ${3:+-d "$3"})
}

enter() {
  JAR=$STATE.cookies; rm -f "$JAR"; API=http://127.0.0.1:$WEB_PORT/api
  knock GET /session
  knock POST /session "{\"badge\": \"${1:-101}\", \"pin\": \"${2:-193742}\"}"
  [ "$STATUS" = 200 ] || { say "FAILED: the badge cannot sign in: $(cat "$JAR.body")"; return 1; }
}

receive_core() {
  knock POST /receiving "{\"coreTag\": \"$1\", \"jobType\": \"rebuild\", \"ownership\": \"exchange\", \"family\": \"RD4\",
    \"customer\": \"WS-LOW\", \"vehicle\": \"\", \"vin\": \"\", \"odometer\": \"98000 km\", \"complaint\": \"No drive\",
    \"codes\": [\"P0730\"], \"clues\": {}, \"missing\": [], \"failedHard\": [], \"repairHours\": 1, \"grade\": \"B\",
    \"gradeReason\": \"Looks worn.\", \"sender\": \"own\"}"
}

tables() { owner_sql -N yard -e "SELECT table_name FROM information_schema.tables WHERE table_schema = 'yard' AND table_name NOT IN ('cache', 'jobs', 'open_sessions', 'sign_ins', 'tablets') ORDER BY 1"; }

# One line a table: its name, its rows and a hash over all of them in order, history of versioned tables included.
rows() {
  local t
  for t in $(tables); do
    printf '%s %s\n' "$t" "$(mariadb-dump --no-defaults --socket="$RUN/db.sock" -u "$(id -un)" --compact --no-create-info \
      --skip-extended-insert --order-by-primary --hex-blob --dump-history yard "$t" | sed 's/ AUTO_INCREMENT=[0-9]*//' | sha256sum | cut -c1-16)"
  done
}
files() { (cd "$STATE/app" && find . -type f ! -path './anchors/*' -print0 | sort -z | xargs -0 -r sha256sum); }
chains_hold() { as_web php artisan ledger:verify --state > "$LOGS/verify.log" 2>&1 || { say "FAILED: $1"; grep -v compared "$LOGS/verify.log" | head -5; return 1; }; }

# Whoever has the web workers' rights can neither rewrite the sealed heads nor sign new ones; whoever has the machine's
# leaves a broken signature.
test_seal() {
  local sealed=$STATE/sealed/heads.jsonl i before
  for i in $(seq 1 50); do [ -s "$sealed" ] && [ ! -s "$STATE/app/anchors/heads.jsonl" ] && break; sleep 0.2; done
  [ -s "$sealed" ] || { say "FAILED: nothing was sealed"; return 1; }
  if [ "$WEB_USER_OS" != "$(id -un)" ]; then
    check "the web user cannot write the sealed heads" "refused" "$(as_web sh -c "echo x >> $sealed" 2> /dev/null || echo refused)" || return 1
    check "the web user cannot put another file there" "refused" "$(as_web sh -c "mv $sealed $sealed.old" 2> /dev/null || echo refused)" || return 1
    check "the web user cannot read the key" "refused" "$(as_web cat "$STATE/sealed/key" 2> /dev/null || echo refused)" || return 1
  fi
  before=$(cat "$sealed")
  sed -i '2s/hash/hush/' "$sealed"
  as_owner php artisan ledger:verify > "$LOGS/verify.log" 2>&1 && { say "FAILED: a sealed head altered by root is not found"; return 1; }
  grep -q "does not carry the seal's signature" "$LOGS/verify.log" || { say "FAILED: another fault is told"; cat "$LOGS/verify.log"; return 1; }
  printf '%s\n' "$before" > "$sealed"
  as_owner php artisan ledger:verify > "$LOGS/verify.log" 2>&1 || { say "FAILED: the seal does not hold"; head -5 "$LOGS/verify.log"; return 1; }
  as_owner php artisan ledger:rebuild > "$LOGS/verify.log" 2>&1 || { say "FAILED: the state cannot be rebuilt"; tail -5 "$LOGS/verify.log"; return 1; }
  check "the rebuilt measurements are the shop's" \
    "$(owner_sql -N yard -e "SELECT COUNT(*), SUM(si), SUM(measured_by) FROM measurements")" \
    "$(owner_sql -N yard_rebuilt -e "SELECT COUNT(*), SUM(si), SUM(measured_by) FROM measurements")" || return 1
  say "Seal: the heads cannot be rewritten by the web user, and a rewritten one is found."
}

cores_meanwhile() { owner_sql -N yard -e "SELECT COUNT(*) FROM units WHERE core_tag LIKE 'C-77%'"; }
rule_versions() { owner_sql -N yard -e "SELECT COUNT(*) FROM house_rules FOR SYSTEM_TIME ALL WHERE code = 'labour-rate'"; }

test_backup() {
  start_instance || return 1
  local backups=$BACKUPS quiet busy total before_rows before_files writer n received
  enter || return 1
  secrets_are_apart && test_seal || return 1

  # While people work: every core that is in the backup is there whole.
  (enter; n=0; until [ -e "$STATE.enough" ]; do n=$((n + 1)); receive_core "C-77$n"; done) > /dev/null 2>&1 & writer=$!
  for n in $(seq 1 100); do [ "$(cores_meanwhile)" -ge 5 ] && break; sleep 0.2; done
  (backup_instance "$backups" && echo "$BACKUP_FILE" > "$STATE.busy") || return 1
  touch "$STATE.enough"
  wait "$writer"
  total=$(cores_meanwhile)
  busy=$(cat "$STATE.busy")
  sleep 1.1

  check "the doctor finds nothing" "All is well." "$(examine | tail -1)" || return 1
  chmod 644 "$STATE/secrets"
  owner_sql yard -e "INSERT INTO jobs (queue, payload, attempts, available_at, created_at) VALUES ('nobody', '{}', 0, 1, 1)"
  check "the doctor names what is wrong" "1 pieces of work wait longer than five minutes.|$STATE/secrets can be read by others." \
    "$(examine | sed -n 's/^  WRONG  //p' | paste -sd '|')" || return 1
  chmod 600 "$STATE/secrets"; owner_sql yard -e "DELETE FROM jobs"

  # An evil day later the shop is as it was, to the row and the byte.
  receive_core C-7801
  [ "$STATUS" = 201 ] || { say "FAILED: a core is not received: $(cat "$JAR.body")"; return 1; }
  for n in 1 2 3; do owner_sql yard -e "REPLACE INTO house_rules (code, choice, reason, version) VALUES ('labour-rate', '$n', 'test', $n)"; done
  check "a house rule has a history" 3 "$(rule_versions)" || return 1
  before_rows=$(rows); before_files=$(files)
  (backup_instance "$backups" && echo "$BACKUP_FILE" > "$STATE.quiet") || return 1
  quiet=$(cat "$STATE.quiet")
  receive_core C-7802
  owner_sql yard -e "DELETE FROM credit_lines"
  (restore_instance "$quiet") || return 1
  check "every row is back, history included" "$before_rows" "$(rows)" || return 1
  check "every photo and recording is back" "$before_files" "$(files)" || return 1
  check "the house rules kept their history" 3 "$(rule_versions)" || return 1
  chains_hold "the chains of the restored shop" || return 1
  enter || return 1
  receive_core C-7803
  [ "$STATUS" = 201 ] || { say "FAILED: work does not go on after a restore: $(cat "$JAR.body")"; return 1; }

  (restore_instance "$busy") || return 1
  chains_hold "the chains of a backup made while people worked" || return 1
  n=$(cores_meanwhile)
  [ "$n" -ge 5 ] && [ "$n" -lt "$total" ] || { say "FAILED: the backup has $n of $total cores, so nobody worked while it was made"; return 1; }
  received=$(owner_sql -N yard -e "SELECT COUNT(*) FROM ledger l JOIN units u ON u.id = l.unit_id WHERE l.kind = 'core.received' AND u.core_tag LIKE 'C-77%'")
  check "each core of the busy backup has its event" "$n" "$received" || return 1

  # What is no backup, or was touched, changes nothing.
  cp "$quiet" "$STATE.torn"; truncate -s -4096 "$STATE.torn"
  check "a torn backup is refused" "refused" "$( (restore_instance "$STATE.torn" 2>&1) > /dev/null || echo refused)" || return 1
  mkdir -p "$STATE.open" && tar -C "$STATE.open" -xzf "$quiet" && echo '-- more' >> "$STATE.open/yard.sql" && tar -C "$STATE.open" -czf "$STATE.touched" .
  check "an altered backup is refused" "refused" "$( (restore_instance "$STATE.touched" 2>&1) > /dev/null || echo refused)" || return 1
  check "the shop still runs after the refusals" "$n" "$(cores_meanwhile)" || return 1

  retention || return 1
  say "Backup and restore: rows of $(tables | wc -l) tables and $(echo "$before_files" | wc -l) files alike; $n of $total cores in the backup made meanwhile."
}

# No run stays open, whatever the rig does, and the next one can be started.
test_rigs() {
  local how says tag run i state
  enter 104 627014 || return 1
  tag=$(owner_sql -N yard -e "SELECT u.core_tag FROM units u JOIN builds b ON b.id = u.current_build_id WHERE u.station = 'dyno' AND NOT EXISTS (SELECT 1 FROM dyno_runs r WHERE r.build_id = b.id AND r.state IN ('queued', 'running', 'recorded')) AND NOT EXISTS (SELECT 1 FROM holds h WHERE h.unit_id = u.id AND h.lifted_at IS NULL) LIMIT 1")
  [ -n "$tag" ] || { say "FAILED: the demo shop has no unit to test at the dyno"; return 1; }
  ctl stop rig > /dev/null
  while IFS='|' read -r how says; do
    php tests/fixtures/evil-rig.php "$RIG_PORT" "$how" > /dev/null 2>&1 &
    sleep 0.5
    knock POST "/units/$tag/dyno/runs" '{"cell":"A"}'
    [ "$STATUS" = 201 ] || { say "FAILED: no run can be started before the rig is $how: $(cat "$JAR.body")"; return 1; }
    run=$(owner_sql -N yard -e "SELECT MAX(id) FROM dyno_runs")
    for i in $(seq 1 100); do
      state=$(owner_sql -N yard -e "SELECT state FROM dyno_runs WHERE id = $run")
      case $state in queued | running) sleep 0.2 ;; *) break ;; esac
    done
    check "a run with a rig that is $how" "failed: yes" "$state: $(owner_sql -N yard -e "SELECT IF(error LIKE '%$says%', 'yes', error) FROM dyno_runs WHERE id = $run")" || return 1
    pkill -f evil-rig.php; sleep 0.2
  done << 'RIGS'
silent|fell silent
chatty|fell silent
endless|a line without an end
text|no sample
leaves|broke off
miscounts|lost its count
forever|after the end of the program
RIGS
  test_cable "$tag" || return 1
  ctl start rig > /dev/null
  test_run_deaths "$tag" || return 1
  test_two_cells "$tag" || return 1
  say "Rigs: every run that went wrong ended by itself."
}

# A cable that is out for a second loses nothing and doubles nothing; out for five, it ends the run.
test_cable() {
  local tag=$1 rig cable run pull seconds state far=$((RIG_PORT + 9))
  php $JIT rig/rig.php --port "$far" --state "$STATE/rig" --specimens "$STATE/app/specimens" --pace 6 > "$LOGS/far-rig.log" 2>&1 & rig=$!
  php tests/fixtures/cable.php "$RIG_PORT" "$far" > "$LOGS/cable.log" 2>&1 & cable=$!
  sleep 0.5
  while IFS='|' read -r pull seconds state; do
    knock POST "/units/$tag/dyno/runs" '{"cell":"A"}'
    [ "$STATUS" = 201 ] || { say "FAILED: no run can be started over the cable: $(cat "$JAR.body")"; return 1; }
    run=$(owner_sql -N yard -e "SELECT MAX(id) FROM dyno_runs")
    sleep 6; kill -"$pull" "$cable"
    for _ in $(seq 1 300); do
      case $(owner_sql -N yard -e "SELECT state FROM dyno_runs WHERE id = $run") in queued | running | recorded) sleep 0.2 ;; *) break ;; esac
    done
    check "a run whose cable is out for $seconds s" "$state" "$(owner_sql -N yard -e "SELECT state FROM dyno_runs WHERE id = $run")" || return 1
  done << 'CABLES'
USR1|1|analysed
USR2|5|failed
CABLES
  run=$((run - 1))
  check "no sample is lost or doubled over the cable" "1 0" "$(owner_sql -N yard -e "SELECT CONCAT(COUNT(*), ' ', SUM(value)) FROM run_checks WHERE run_id = $run AND name LIKE 'Samples%'")" || return 1
  kill "$cable" "$rig"; wait "$cable" "$rig" 2> /dev/null
  say "Cable: out for a second nothing is lost; out for five the run ends."
}

# Whatever dies in the middle of a run: it ends by itself, and what was recorded is there once and in its order.
test_run_deaths() {
  local tag=$1 name state run file
  comes_back "the rig is back" 20 rig || return 1
  while IFS='|' read -r name state; do
    enter 104 627014 || return 1
    knock POST "/units/$tag/dyno/runs" '{"cell":"A"}'
    [ "$STATUS" = 201 ] || { say "FAILED: no run can be started before the $name dies: $(cat "$JAR.body")"; return 1; }
    run=$(owner_sql -N yard -e "SELECT MAX(id) FROM dyno_runs")
    sleep 6; kill_hard "$name"
    comes_back "$name is killed in a run" 30 "$name" || return 1
    for _ in $(seq 1 300); do
      case $(owner_sql -N yard -e "SELECT state FROM dyno_runs WHERE id = $run" 2> /dev/null) in queued | running | recorded | '') sleep 0.2 ;; *) break ;; esac
    done
    check "a run in which the $name was killed" "$state" "$(owner_sql -N yard -e "SELECT state FROM dyno_runs WHERE id = $run")" \
      || { owner_sql -N yard -e "SELECT error FROM dyno_runs WHERE id = $run"; return 1; }
    file=$STATE/app/traces/run-$run.csv
    check "its recording, every sample once and 5 ms after the one before" "yes" "$( { [ -f "$file.gz" ] && zcat "$file.gz" || cat "$file"; } | awk -F, 'NR > 2 && ($1 - t < 0.0045 || $1 - t > 0.0055) { bad++ } { t = $1 } END { print (NR > 1000 && !bad ? "yes" : NR " lines, " bad+0 " wrong") }')" || return 1
  done << 'DEATHS'
rig|failed
gateway|failed
db|analysed
fpm|analysed
nginx|analysed
DEATHS
  say "Runs: rig, gateway, database and server killed in the middle, each run ended by itself with all that was recorded."
}

ticks_of() { awk '{ print $14 + $15 }' "/proc/$(cat "$RUN/$1.pid")/stat"; }

# Both cells at once while the shop is used: no sample is lost, and what it takes of the machine is printed.
test_two_cells() {
  local tag=$1 n=0 name began shares='' runs
  declare -A before
  enter 104 627014 || return 1
  for name in rig rig-b gateway; do before[$name]=$(ticks_of $name); done
  began=$(date +%s%N)
  knock POST /dyno/cells/A/reference-runs '{}'
  [ "$STATUS" = 201 ] || { say "FAILED: the reference unit does not run: $(cat "$JAR.body")"; return 1; }
  knock POST "/units/$tag/dyno/runs" '{"cell":"B"}'
  [ "$STATUS" = 201 ] || { say "FAILED: no run can be started in the second cell: $(cat "$JAR.body")"; return 1; }
  runs=$(owner_sql -N yard -e "SELECT GROUP_CONCAT(id) FROM (SELECT MAX(id) AS id FROM dyno_runs GROUP BY cell) r")
  while [ "$(owner_sql -N yard -e "SELECT COUNT(*) FROM dyno_runs WHERE id IN ($runs) AND state IN ('queued', 'running')")" != 0 ] && [ $n -lt 600 ]; do
    knock GET /yard; n=$((n + 1)); sleep 0.1
  done
  for name in rig rig-b gateway; do
    shares="$shares $name $(( ($(ticks_of $name) - before[$name]) * 1000000000 / ($(date +%s%N) - began) )) %"
  done
  for _ in $(seq 1 300); do [ "$(owner_sql -N yard -e "SELECT COUNT(*) FROM dyno_runs WHERE id IN ($runs) AND state = 'analysed'")" = 2 ] && break; sleep 0.2; done
  check "no sample of either cell is lost" "2 0" "$(owner_sql -N yard -e "SELECT CONCAT(COUNT(*), ' ', SUM(value)) FROM run_checks WHERE run_id IN ($runs) AND name LIKE 'Samples%'")" || return 1
  say "Cells: two runs at once beside $n requests, no sample lost; of one processor:$shares."
}

answers() { curl -fs -m 3 -o /dev/null "$API/session" && port_open "$GATEWAY_PORT" && port_open "$RIG_PORT" && port_open "$RIG_B_PORT"; }
comes_back() { local i; for i in $(seq 1 "$2"); do answers && { [ -z "${3:-}" ] || alive "$3"; } && return 0; sleep 1; done; say "FAILED: $1: the shop did not come back in $2 s"; ctl status; return 1; }
kill_hard() { kill -KILL "$(cat "$RUN/$1.pid")"; }
left_running() { pgrep -f -- "$STATE|rig.php --port ($RIG_PORT|$RIG_B_PORT)" | grep -vx "$$"; port_open "$WEB_PORT" && echo "port $WEB_PORT"; }

test_deaths() {
  local name
  start_instance || return 1
  test_rigs || return 1
  enter || return 1
  receive_core C-7901
  [ "$STATUS" = 201 ] || { say "FAILED: $(cat "$JAR.body")"; return 1; }
  for name in nginx fpm rig rig-b gateway queue db; do
    kill_hard $name
    sleep 0.3
    comes_back "$name is killed" 20 $name || return 1
  done
  kill_hard nginx; kill_hard db
  comes_back "web server and database are killed at once" 30 || return 1

  # Away for a while: a sentence within three seconds, and work goes on when it is back.
  ctl stop db > /dev/null
  local began=$SECONDS
  knock GET /units
  check "the database is away" "503 yes" "$STATUS $(grep -q 'what you typed is still here' "$JAR.body" && [ $((SECONDS - began)) -le 3 ] && echo yes)" || return 1
  ctl start db > /dev/null
  comes_back "the database was away" 20 db || return 1
  receive_core C-7902
  [ "$STATUS" = 201 ] || { say "FAILED: work does not go on when the database is back: $(cat "$JAR.body")"; return 1; }

  # The supervisor itself and the master of the web server: what is left holds the ports.
  kill_hard supervisord; kill_hard nginx
  start_instance || { say "FAILED: it does not start again after its supervisor was killed"; return 1; }
  comes_back "the supervisor was killed" 20 || return 1

  # The power goes.
  for name in supervisord $CHILDREN; do kill -KILL -- "-$(cat "$RUN/$name.pid" 2>/dev/null)" 2>/dev/null; done
  start_instance || { say "FAILED: it does not start again after a power cut"; return 1; }
  chains_hold "the chains after a power cut" || return 1
  check "what was acknowledged is there" 1 "$(owner_sql -N yard -e "SELECT COUNT(*) FROM units WHERE core_tag = 'C-7901'")" || return 1

  kill_hard supervisord
  stop_instance
  check "stop ends everything whatever died before" "" "$(left_running)" || return 1
  say "Deaths: every part came back, and nothing is left after a stop."
}

# People work while one part after the other is killed, again and again: what was acknowledged is there, once.
test_kill_rounds() {
  local rounds=$1 round names name writer tag
  start_instance && enter || return 1
  read -ra names <<< "db fpm queue nginx seal gateway db fpm"
  rm -f "$STATE.enough"; : > "$STATE.acknowledged"
  (enter; n=0; until [ -e "$STATE.enough" ]; do n=$((n + 1)); receive_core "C-6$n"; [ "$STATUS" != 201 ] || echo "C-6$n" >> "$STATE.acknowledged"; done) > /dev/null 2>&1 & writer=$!
  for round in $(seq 1 "$rounds"); do
    sleep "0.$((RANDOM % 9 + 1))"
    name=${names[$((round % ${#names[@]}))]}
    kill_hard "$name"
    comes_back "$name is killed in round $round" 30 "$name" || return 1
  done
  touch "$STATE.enough"; wait "$writer"
  comes_back "after $rounds rounds" 30 db || return 1
  [ "$(wc -l < "$STATE.acknowledged")" -ge "$rounds" ] || { say "FAILED: only $(wc -l < "$STATE.acknowledged") cores were acknowledged in $rounds rounds"; return 1; }
  while read -r tag; do
    check "what was acknowledged of $tag is there, once" "1 1" "$(owner_sql -N yard -e "SELECT COUNT(DISTINCT u.id), SUM(l.kind = 'core.received') FROM units u JOIN ledger l ON l.unit_id = u.id WHERE u.core_tag = '$tag'" | tr '\t' ' ')" || return 1
  done < "$STATE.acknowledged"
  sleep 1
  chains_hold "the chains and the state after $rounds rounds" || return 1
  stop_instance
  say "Kill rounds: $(wc -l < "$STATE.acknowledged") cores acknowledged in $rounds rounds, each there once."
}

# The disk fills up under a shop at work, and is emptied again: a sentence meanwhile, nothing half done, no hand after.
test_disk_full() {
  stop_instance; rm -rf "$STATE"; mkdir -p "$STATE"
  mount -t tmpfs -o size=1400m yard-operations "$STATE" 2> /dev/null || { say "Disk full: not tried, no small disk can be made here."; return 0; }
  trap 'stop_instance; umount "$STATE" 2> /dev/null' RETURN
  start_instance && enter || return 1
  local n before said
  receive_core C-6901
  [ "$STATUS" = 201 ] || { say "FAILED: $(cat "$JAR.body")"; return 1; }
  dd if=/dev/zero of="$STATE/filler" bs=64k 2> /dev/null
  for n in $(seq 1 400); do receive_core "C-7$n"; [ "$STATUS" = 201 ] || break; done
  said=$(grep -oE 'disk|what you typed is still here' "$JAR.body" | head -1)
  check "a full disk has its sentence" "yes" "$([ "$STATUS" -ge 500 ] && [ -n "$said" ] && echo yes || cat "$JAR.body")" || return 1
  before=$(owner_sql -N yard -e "SELECT COUNT(*) FROM units" 2> /dev/null)
  rm "$STATE/filler"
  comes_back "the disk has room again" 60 db || return 1
  enter || return 1
  receive_core C-6902
  check "work goes on without a hand" 201 "$STATUS" || return 1
  check "what was refused was not half done" $((before + 1)) "$(owner_sql -N yard -e "SELECT COUNT(*) FROM units")" || return 1
  for n in $(seq 1 60); do as_web php artisan ledger:verify > /dev/null 2>&1 && break; sleep 1; done # heads that found no room
  chains_hold "the chains and the state after the disk was full" || return 1
  say "Disk full: refused with a sentence after $n cores, and mended by room alone."
}

# What the user of the web workers can read, on the disk and of the processes that run, knows nothing of the owner.
secrets_are_apart() {
  check "the search finds the application's own password" found "$(readable_secrets "$APP_PASSWORD")" || return 1
  check "the owner's password is nowhere" "" "$(readable_secrets "$OWNER_PASSWORD")" || return 1
  check "the cached configuration is the web user's alone" 600 "$(stat -c %a "$STATE/bootstrap/config.php")"
}

# The secret comes through a pipe: what stands in the arguments of the search would be found there.
readable_secrets() {
  printf '%s' "$1" | as_web bash -c 'secret=$(cat); look() { grep -qsaF -f <(printf "%s" "$secret") "$@"; }
    { look -r --exclude-dir=db "$1" || look /proc/[0-9]*/environ /proc/[0-9]*/cmdline; } && echo found' search "$STATE"
}

# Two weeks of days, eight weeks of weeks.
retention() {
  local folder=$STATE.kept day
  mkdir -p "$folder"
  for day in $(seq 0 100); do : > "$folder/yard-$(date -u -d "-$day days" +%Y%m%dT020000Z).tar.gz"; done
  prune_backups "$folder"
  local left; left=$(find "$folder" -name '*.tar.gz' | wc -l)
  [ "$left" -ge 20 ] && [ "$left" -le 22 ] || { say "FAILED: $left backups are kept of 101 days"; return 1; }
  [ -e "$folder/yard-$(date -u -d "-13 days" +%Y%m%dT020000Z).tar.gz" ] || { say "FAILED: a day of the last two weeks is gone"; return 1; }
}

# Tablets come in by HTTPS only, under an authority that can vouch for this house alone; without --lan nobody does.
test_lan() {
  [ -n "$(lan_addresses)" ] || { say "Tablets: this machine has no address on a network, so there is none to let in."; return 0; }
  LAN=1
  start_instance || return 1
  local address tls=$STATE/tls site
  address=$(lan_addresses | head -1); site=https://$address:$((LAN_PORT + 1))
  curl -fsS "http://$address:$LAN_PORT/authority.crt" -o "$STATE.ca" || { say "FAILED: the authority is not handed out"; return 1; }
  check "the shop answers under its own authority" '{"person":null' "$(curl -fsS --cacert "$STATE.ca" "$site/api/session" | cut -c1-14)" || return 1
  check "a session goes over HTTPS only" 2 "$(curl -fsS --cacert "$STATE.ca" -D - -o /dev/null "$site/api/session" | grep -ci '^set-cookie:.*; secure')" || return 1
  check "who does not trust it does not get in" 60 "$(curl -s -o /dev/null "$site/"; echo $?)" || return 1
  check "the page of trust is no way in" 302 "$(curl -s -o /dev/null -w '%{http_code}' "http://$address:$LAN_PORT/api/session")" || return 1
  check "it names the fingerprint" 1 "$(curl -fsS "http://$address:$LAN_PORT/" | grep -c "$(lan_fingerprint "$tls")")" || return 1
  check "the plain address stays on loopback" 7 "$(curl -s -o /dev/null "http://$address:$WEB_PORT/"; echo $?)" || return 1
  check "the key is its owner's alone" "600 700" "$(stat -c %a "$tls/authority.key" "$tls" | paste -sd ' ')" || return 1
  # What it signs for somebody else's name is worth nothing, even on a tablet that trusts it.
  openssl req -newkey ec -pkeyopt ec_paramgen_curve:prime256v1 -noenc -subj "/CN=x" -keyout "$STATE.key" -out "$STATE.csr" 2> /dev/null
  openssl x509 -req -in "$STATE.csr" -CA "$tls/authority.crt" -CAkey "$tls/authority.key" -days 2 -out "$STATE.crt" \
    -extfile <(echo 'subjectAltName=DNS:bank.example') 2> /dev/null
  check "it cannot vouch for another house" "refused" "$(openssl verify -CAfile "$STATE.ca" "$STATE.crt" > /dev/null 2>&1 || echo refused)" || return 1
  local before; before=$(sha256sum < "$tls/server.crt")
  start_instance || return 1
  check "the certificate is kept while it is good" "$before" "$(sha256sum < "$tls/server.crt")" || return 1
  unset LAN
  start_instance || return 1
  check "without it nobody is let in" 7 "$(curl -s -o /dev/null "$site/"; echo $?)" || return 1
  say "Tablets: HTTPS at $site under the shop's own authority, and closed again."
}
