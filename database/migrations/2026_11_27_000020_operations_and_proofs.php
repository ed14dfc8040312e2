<?php

use App\Catalog\Read\OperationsOfOld;
use App\Kernel\Ledger\Change;
use App\Kernel\Ledger\Ledger;
use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

// Steps become operations with proofs. What was counted is a proof of its own; what was measured beside the steps keeps
// its rows, and the operation that measures it is done where it was measured right.
return new class extends Migration
{
    private const ROWS_AT_ONCE = 200;

    private const MEASURED = ['pack' => 'pack', 'end-play' => 'end-play', 'air-check' => 'air', 'torque' => 'torque'];

    public function up(): void
    {
        DB::connection('owner')->unprepared($this->tables());
        $this->countsAreProofs();
        $this->measuredIsDone();
        $this->catalog();
        DB::connection('owner')->unprepared('ALTER TABLE operations DROP counts');
        foreach (['operations', 'proofs'] as $table) {
            $this->takeOver($table);
        }
    }

    private function tables(): string
    {
        return <<<'SQL'
            ALTER TABLE step_marks
                RENAME TO operations,
                CHANGE phase bench ENUM('teardown','assembly') NOT NULL,
                CHANGE step code VARCHAR(80) NOT NULL,
                ADD state ENUM('open','running','paused','done','jammed') NOT NULL DEFAULT 'done' AFTER code,
                ADD reason VARCHAR(400) NOT NULL DEFAULT '',
                ADD running_since DATETIME NULL,
                ADD worked_s INT UNSIGNED NOT NULL DEFAULT 0,
                ADD tablet_at DATETIME NULL;
            CREATE TABLE proofs (
                id BIGINT UNSIGNED AUTO_INCREMENT PRIMARY KEY,
                unit_id BIGINT UNSIGNED NOT NULL,
                generation SMALLINT UNSIGNED NOT NULL,
                bench ENUM('teardown','assembly') NOT NULL,
                operation VARCHAR(80) NOT NULL,
                proof VARCHAR(120) NOT NULL,
                kind ENUM('count','orientation','photo','scan','timer','sign') NOT NULL,
                answer LONGTEXT NOT NULL,
                satisfied BOOLEAN NOT NULL,
                note VARCHAR(400) NOT NULL DEFAULT '',
                taken_by INT UNSIGNED NOT NULL,
                taken_at DATETIME NOT NULL,
                tablet_at DATETIME NULL,
                undone_at DATETIME NULL,
                INDEX of_unit (unit_id, generation, bench, operation),
                FOREIGN KEY (unit_id) REFERENCES units(id),
                FOREIGN KEY (taken_by) REFERENCES people(id),
                CHECK (JSON_VALID(answer))
            ) PAGE_COMPRESSED=1;
            ALTER TABLE measurements ADD undone_at DATETIME NULL, ADD tablet_at DATETIME NULL;
            ALTER TABLE job_types ADD scopes LONGTEXT NOT NULL DEFAULT '[]' CHECK (JSON_VALID(scopes));
            ALTER TABLE photos ADD INDEX IF NOT EXISTS of_unit_by_id (unit_id, id);
        SQL;
    }

    private function countsAreProofs(): void
    {
        DB::statement(
            'INSERT INTO proofs (unit_id, generation, bench, operation, proof, kind, answer, satisfied, note, '
                ."taken_by, taken_at) SELECT unit_id, generation, bench, code, 'count', 'count', "
                .'JSON_OBJECT(\'counts\', JSON_COMPACT(counts)), 1, note, done_by, done_at FROM operations '
                ."WHERE counts NOT IN ('', '{}', '[]') ORDER BY id",
        );
    }

    private function measuredIsDone(): void
    {
        foreach (self::MEASURED as $kind => $word) {
            DB::insert(
                'INSERT IGNORE INTO operations (unit_id, generation, bench, code, state, note, done_by, done_at) '
                    ."SELECT b.unit_id, b.generation, 'assembly', CONCAT(?, m.code), 'done', '', m.measured_by, "
                    .'m.measured_at FROM measurements m JOIN builds b ON b.id = m.build_id WHERE m.kind = ? AND '
                    .'m.inside '
                    .'ORDER BY m.id DESC',
                ["measure-$word-", $kind],
            );
        }
    }

    private function catalog(): void
    {
        $steps = DB::table('specs')->whereIn('kind', ['teardown-step', 'assembly-step'])->get();
        foreach ($steps as $spec) {
            $body = OperationsOfOld::step(json_decode($spec->body, true));
            DB::table('specs')->where('id', $spec->id)->update(['body' => json_encode($body)]);
        }
        foreach ($steps->where('kind', 'assembly-step')->groupBy('family_id') as $family => $known) {
            $this->measuredInCatalog((int) $family, (int) $known->max('position'), (array) $known->last());
        }
    }

    /** @param  array<string, mixed>  $like  a step of the family */
    private function measuredInCatalog(int $family, int $position, array $like): void
    {
        $of = fn (string $kind): array => DB::table('specs')
            ->where('family_id', $family)
            ->where('kind', $kind)
            ->orderBy('position')
            ->get(['code', 'name'])
            ->map(fn ($s) => (array) $s)
            ->all();
        $lists = [
            'packs' => $of('pack'),
            'endPlays' => $of('end-play'),
            'airChecks' => $of('air-check'),
            'fasteners' => $of('fastener'),
        ];
        foreach (OperationsOfOld::measured($lists) as $n => $operation) {
            DB::table('specs')->insert([
                'code' => $operation['code'],
                'name' => $operation['name'],
                'body' => json_encode(array_diff_key($operation, ['code' => 0, 'name' => 0])),
                'position' => $position + 1 + $n,
            ] + array_intersect_key($like, array_flip(['family_id', 'kind', 'source', 'edition', 'confidence'])));
        }
    }

    private function takeOver(string $table): void
    {
        $ledger = app(Ledger::class);
        DB::table($table)->chunkById(
            self::ROWS_AT_ONCE,
            fn ($rows) => $ledger->within(function () use ($ledger, $table, $rows): void {
                $ledger->record('rows', 'rows.taken-over', ['table' => $table, 'rows' => count($rows)]);
                foreach ($rows as $row) {
                    $ledger->changed(new Change($table, (int) $row->id, (array) $row));
                }
            }),
        );
    }
};
