<?php

namespace App\Kernel;

use App\Kernel\Ledger\Ledger;
use Closure;
use Illuminate\Support\Facades\DB;

/** Work that happens whole or not at all, outside of a request that already is one (IdempotentWrite). */
final class Transaction
{
    /**
     * @template T
     *
     * @param  Closure(): T  $work
     * @return T
     */
    public static function run(Closure $work): mixed
    {
        return DB::transaction(fn () => app(Ledger::class)->within($work));
    }

    /** Once what was written can be seen by others. */
    public static function afterCommit(Closure $work): void
    {
        DB::afterCommit($work);
    }

    /** A connection that broke is opened anew with the next query. */
    public static function reconnect(): void
    {
        DB::purge();
    }
}
