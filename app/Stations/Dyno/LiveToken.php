<?php

namespace App\Stations\Dyno;

use App\Stations\Dyno\Models\Run;

/** Lets a signed-in browser watch one run at the gateway, which knows no sessions. */
final class LiveToken
{
    public static function url(Run $run): string
    {
        $until = time() + 3600;

        return "/live/runs/$run->id?until=$until&sign=".self::sign($run->id, $until);
    }

    public static function valid(int $run, int $until, string $sign): bool
    {
        return $until >= time() && hash_equals(self::sign($run, $until), $sign);
    }

    private static function sign(int $run, int $until): string
    {
        return hash_hmac('sha256', "run:$run:$until", (string) config('app.key'));
    }
}
