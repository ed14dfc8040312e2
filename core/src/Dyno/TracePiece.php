<?php

declare(strict_types=1);

namespace Yard\Core\Dyno;

/**
 * What was read off one stretch of a run; times in seconds from its first sample.
 *
 * @phpstan-import-type Lockup from LockupMeter
 *
 * @phpstan-type Gear array{gear: string, from_s: float, to_s: float, ratioMean: float, ratioErrorPct: float}
 * @phpstan-type Event array<string, mixed>
 * @phpstan-type Line array{min: float, max: float, sum: float, count: int, gears: array<string, array{float, int}>}
 * @phpstan-type Warmth array{start: float, end: float, max: float, count: int, middle: float, mean: float, sxx: float,
 *     sxy: float}
 */
final readonly class TracePiece
{
    /**
     * @param  list<Gear>  $gears
     * @param  array<string, list<Event>>  $events  shifts, unmeasured, slips, tieUps and dropouts
     * @param  Lockup|null  $lockup
     * @param  list<array{code: string, message: string}>  $warnings
     * @param  list<array{string, float, float}>  $stays  gear, from and to, its passages included
     * @param  list<?float>  $tails  the ratio at the end of each command
     * @param  Line|null  $line
     * @param  Warmth|null  $temperature
     * @param  int  $last  the last sample that is this stretch's own
     */
    public function __construct(
        public array $gears,
        public array $events,
        public ?array $lockup,
        public array $warnings,
        public array $stays,
        public array $tails,
        public ?array $line,
        public ?array $temperature,
        public int $last,
    ) {
    }
}
