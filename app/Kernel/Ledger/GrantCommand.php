<?php

namespace App\Kernel\Ledger;

use Illuminate\Console\Command;
use Illuminate\Support\Facades\DB;

/** Gives the application's database account what it needs and no more: the ledger it may read and append to only. */
final class GrantCommand extends Command
{
    protected $signature = 'db:grants';

    protected $description = 'Set the rights of the application account on every table';

    private const APPEND_ONLY = ['ledger', 'papers'];

    private const READ_ONLY = ['migrations'];

    public function handle(): int
    {
        $owner = DB::connection('owner');
        $database = $owner->getDatabaseName();
        $account = config('database.connections.yard.username')."@'127.0.0.1'";
        foreach (
            $owner->select(
                'SELECT table_name AS name FROM information_schema.tables WHERE table_schema = ? AND table_type IN '
                    ."('BASE TABLE', 'SYSTEM VERSIONED')",
                [$database],
            ) as $table
        ) {
            $rights = match (true) {
                in_array($table->name, self::APPEND_ONLY, true) => 'SELECT, INSERT',
                in_array($table->name, self::READ_ONLY, true) => 'SELECT',
                default => 'SELECT, INSERT, UPDATE, DELETE',
            };
            $owner->unprepared("GRANT $rights ON `$database`.`$table->name` TO $account");
        }

        // What the events say is laid beside the rows in a table of the session.
        $owner->unprepared("GRANT CREATE TEMPORARY TABLES ON `$database`.* TO $account");

        return 0;
    }
}
