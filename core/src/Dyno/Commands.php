<?php

declare(strict_types=1);

namespace Yard\Core\Dyno;

/** What a test run was told to do. */
final readonly class Commands
{
    /** After lock-up is commanded the clutch is given this long to apply, seconds. */
    private const LOCKUP_SETTLE_S = 1.0;

    /**
     * @param  list<array{t: float, gear: string}>  $gears
     * @param  list<array{float, float}>|null  $lockup when it was commanded and had settled, seconds; null when it
     *     never was spoken of
     * @param  list<float>  $held  times of gears commanded with the output held and never let go
     */
    private function __construct(public array $gears, public ?array $lockup, public array $held)
    {
    }

    /**
     * @param  list<array{t: float, gear?: string, lockup?: string, hold?: string}>  $steps  in the order of time;
     *     lockup and hold (of the output) are on or off
     * @param  float  $seconds  how long the run is
     */
    public static function of(array $steps, float $seconds): self
    {
        $gears = [];
        $windows = null;
        $on = null;
        foreach ($steps as $step) {
            if (isset($step['gear'])) {
                $gears[] = ['t' => $step['t'], 'gear' => $step['gear']];
            }
            if (isset($step['lockup'])) {
                $windows ??= [];
                if ($on !== null && $step['lockup'] === 'off') {
                    $windows[] = [$on + self::LOCKUP_SETTLE_S, $step['t']];
                }
                $on = $step['lockup'] === 'on' ? $on ?? $step['t'] : null;
            }
        }
        if ($on !== null) {
            $windows[] = [$on + self::LOCKUP_SETTLE_S, $seconds];
        }

        return new self($gears, $windows, self::held($steps));
    }

    /** The same, told from a later moment of the run, seconds. */
    public function from(float $seconds): self
    {
        return $seconds === 0.0 ? $this : new self(
            array_map(static fn (array $g): array => ['t' => $g['t'] - $seconds, 'gear' => $g['gear']], $this->gears),
            $this->lockup === null ? null : array_map(
                static fn (array $w): array => [$w[0] - $seconds, $w[1] - $seconds],
                $this->lockup,
            ),
            array_map(static fn (float $t): float => $t - $seconds, $this->held),
        );
    }

    /**
     * @param  list<array{t: float, gear?: string, hold?: string}>  $steps
     * @return list<float>
     */
    private static function held(array $steps): array
    {
        $held = [];
        $isHeld = false;
        $last = null;
        foreach ($steps as $step) {
            if (isset($step['hold'])) {
                $isHeld = $step['hold'] === 'on';
                // What was commanded last turns the output from now on.
                $held = $isHeld ? $held : array_diff($held, [$last]);
            }
            if (isset($step['gear'])) {
                $last = $step['t'];
                $isHeld && $held[] = $last;
            }
        }

        return array_values($held);
    }

    /**
     * The changes between gears that drive the same way, each once.
     *
     * @param  array<string, float>  $ratios  gear => ratio; a gear that is not there does not drive
     * @return list<array{string, string}> from, to
     */
    public function changes(array $ratios): array
    {
        $changes = [];
        foreach (array_slice($this->gears, 1) as $i => ['gear' => $to]) {
            $from = $this->gears[$i]['gear'];
            $same = isset($ratios[$from], $ratios[$to]) && ($ratios[$from] > 0.0) === ($ratios[$to] > 0.0);
            if ($same && $from !== $to && ! in_array([$from, $to], $changes, true)) {
                $changes[] = [$from, $to];
            }
        }

        return $changes;
    }
}
