<?php

declare(strict_types=1);

namespace Yard\Rig;

/** A whole run at once, without a clock or a cable. */
final class Once
{
    /**
     * @param  array<string, mixed>  $specimen
     * @param  list<array{fault: string, where?: string, severity?: float}>  $faults
     * @param  list<array<string, mixed>>  $orders  each with its time t
     * @return \Generator<int, list<float>> time and channels of each sample
     */
    public static function run(array $specimen, array $faults, array $orders, float $end, int $seed): \Generator
    {
        $rig = new Rig(new Built($specimen, $faults), $seed);
        yield $rig->read();
        $next = 0;
        for ($k = 0; $k < (int) round($end * Rig::RATE_HZ); $k++) {
            while (isset($orders[$next]) && $orders[$next]['t'] <= $rig->time + 1e-6) {
                $rig->order($orders[$next++]);
            }
            yield $rig->sample();
        }
    }
}
