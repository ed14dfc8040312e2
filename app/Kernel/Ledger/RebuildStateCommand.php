<?php

namespace App\Kernel\Ledger;

use Illuminate\Console\Command;
use Illuminate\Database\Connection;
use Illuminate\Support\Facades\DB;

/** For whoever has to mend a shop: the state as the events say it, in a database beside the shop's. */
final class RebuildStateCommand extends Command
{
    private const INTO = 'yard_rebuilt';

    protected $signature = 'ledger:rebuild';

    protected $description = 'Rebuild the rows of the yard from the events, in a database of its own';

    public function handle(): int
    {
        $into = self::INTO;
        $owner = DB::connection('owner');
        $state = new RebuiltState($owner);
        $events = $state->fold($this->tell(...));
        $owner->unprepared("DROP DATABASE IF EXISTS `$into`; CREATE DATABASE `$into`");
        $owner->unprepared('SET foreign_key_checks = 0, check_constraint_checks = 0');
        $rows = 0;
        foreach (AccountedTables::ALL as $table) {
            $owner->unprepared("CREATE TABLE `$into`.`$table` LIKE `{$owner->getDatabaseName()}`.`$table`");
            foreach ($state->besideActual($table) as ['rebuilt' => $rebuilt]) {
                $rows += self::put($owner, "$into.$table", $rebuilt);
            }
        }
        $this->info("$rows rows from $events events are in the database $into.");

        return 0;
    }

    private function tell(int $events): void
    {
        if ($events % 50_000 === 0) {
            $this->line("$events events read");
        }
    }

    /** @param  array<int, RebuiltRow>  $rows */
    private static function put(Connection $owner, string $table, array $rows): int
    {
        foreach ($rows as $id => $row) {
            $owner->table($table)->insert(['id' => $id] + $row->columns);
        }

        return count($rows);
    }
}
