# Backup and restore of one instance; sourced by ./yard. Formats: docs/formats/backup.md.

BACKUP_KEEP_DAYS=14
BACKUP_KEEP_WEEKS=8

# A backup while the shop works: the database as it was at one moment, and every file that moment knows of. Files are
# written before the rows that name them, so copying them after the dump misses none.
backup_instance() {
  local folder=$1 name stage
  alive db || fail "the database is not running; start the shop, then make the backup."
  mkdir -p "$folder" 2>/dev/null && chmod 700 "$folder" || fail "cannot write to $folder."
  local need have
  need=$(($(du -sk "$STATE/db" "$STATE/app" | awk '{s += $1} END {print s}') * 2))
  have=$(df -Pk "$folder" | awk 'NR==2 {print $4}')
  [ "${have:-0}" -ge "$need" ] || fail "the disk holding $folder has $((have / 1024)) MB free; a backup may need $((need / 1024))."
  name=yard-$(date -u +%Y%m%dT%H%M%SZ)
  stage=$folder/.$name
  (umask 077; rm -rf "$stage"; mkdir "$stage")
  mariadb-dump --no-defaults --socket="$RUN/db.sock" -u "$(id -un)" --single-transaction --quick --hex-blob \
    --dump-history --routines --triggers --skip-dump-date yard > "$stage/yard.sql" 2> "$LOGS/backup.log" \
    || { rm -rf "$stage"; fail "the database could not be dumped: $(tail -1 "$LOGS/backup.log")"; }
  cp -a "$STATE/sealed/heads.jsonl" "$stage/sealed.jsonl" 2>/dev/null
  cp -a "$STATE/app" "$stage/app" || { rm -rf "$stage"; fail "the photos and recordings could not be copied."; }
  printf '{"format": "yard-backup", "version": 1, "made": "%s", "database": "%s"}\n' \
    "$(date -u +%Y-%m-%dT%H:%M:%SZ)" "$(mariadb --version | grep -oE '[0-9]+\.[0-9]+\.[0-9]+' | head -1)" > "$stage/backup.json"
  (cd "$stage" && find . -type f ! -name SHA256SUMS -print0 | sort -z | xargs -0 sha256sum > SHA256SUMS)
  tar -C "$stage" -czf "$folder/$name.part" . || { rm -rf "$stage" "$folder/$name.part"; fail "the backup could not be written to $folder."; }
  mv "$folder/$name.part" "$folder/$name.tar.gz"
  rm -rf "$stage"
  (umask 077; cp "$STATE/secrets" "$folder/$name.secrets")
  printf '{"at": "%s", "file": "%s", "bytes": %s}\n' "$(date -u +%Y-%m-%dT%H:%M:%SZ)" "$name.tar.gz" \
    "$(stat -c %s "$folder/$name.tar.gz")" > "$RUN/last-backup.json.new" && mv "$RUN/last-backup.json.new" "$RUN/last-backup.json"
  chmod 644 "$RUN/last-backup.json"
  BACKUP_FILE=$folder/$name.tar.gz
}

# Of the scheduled backups every one of the last days stays, then the last of each week, then none.
prune_backups() {
  local folder=$1 file day week kept=" " today
  today=$(($(date -u +%s) / 86400))
  for file in $(find "$folder" -maxdepth 1 -name 'yard-*.tar.gz' -printf '%f\n' | sort -r); do
    day=$(($(date -u -d "$(echo "$file" | sed -E 's/yard-(.{4})(..)(..)T.*/\1-\2-\3/')" +%s) / 86400))
    week=$((day / 7))
    [ $((today - day)) -ge "$BACKUP_KEEP_DAYS" ] || continue
    if [ $((today - day)) -lt $((7 * BACKUP_KEEP_WEEKS)) ]; then
      case $kept in *" $week "*) ;; *) kept="$kept$week "; continue ;; esac
    fi
    rm -f "$folder/$file" "$folder/${file%.tar.gz}.secrets"
  done
}

# Everything is looked at before anything is touched; what was there before stays beside it until somebody removes it.
restore_instance() {
  local file=$1 stage aside
  [ -r "$file" ] || fail "there is no backup at $file."
  mkdir -p "$STATE"
  stage=$STATE.restoring
  rm -rf "$stage"
  (umask 077; mkdir "$stage")
  tar -C "$stage" -xzf "$file" 2>/dev/null || { rm -rf "$stage"; fail "$file is no whole backup: it cannot be unpacked."; }
  grep -q '"format": "yard-backup", "version": 1' "$stage/backup.json" 2>/dev/null \
    || { rm -rf "$stage"; fail "$file is no backup of this program, or of a version it does not know."; }
  (cd "$stage" && sha256sum --quiet --strict -c SHA256SUMS > ../restore.log 2>&1) \
    || { tail -3 "$STATE/../restore.log" >&2; rm -rf "$stage"; fail "$file was altered or damaged; nothing was changed."; }
  stop_instance
  if [ -d "$STATE/db" ]; then
    aside=$STATE.before-$(date -u +%Y%m%dT%H%M%SZ)
    mv "$STATE" "$aside"
    mkdir -p "$STATE"
    cp -p "$aside/secrets" "$STATE/secrets" 2>/dev/null
    say "What was there is kept in $aside."
  fi
  mkdir -p "$STATE"
  mv "$stage/app" "$STATE/app"
  prepare_state
  [ ! -f "$stage/sealed.jsonl" ] || cp "$stage/sealed.jsonl" "$STATE/sealed/heads.jsonl"
  start_db
  owner_sql yard < "$stage/yard.sql" 2> "$LOGS/restore.log" || fail "the database could not be loaded: $(tail -1 "$LOGS/restore.log")"
  touch "$STATE/demo.loaded"
  migrate
  as_web php artisan ledger:trim-anchors > "$LOGS/restore.log" 2>&1 || fail "the anchors could not be read: $(tail -1 "$LOGS/restore.log")"
  rm -rf "$stage" "$STATE/sealed" # what is left is sealed anew
  start_instance
}
