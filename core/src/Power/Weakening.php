<?php

declare(strict_types=1);

namespace Yard\Core\Power;

use Yard\Core\Input;

/** What wore, leaks or presses wrongly: a share of the torque left, a hole in a circuit, line pressure off. */
final readonly class Weakening
{
    /** No pump of a unit makes more than so many times its pressure. */
    private const MOST = 10.0;

    /**
     * @param  array<string, float>  $left  element => share of the torque it holds
     * @param  array<string, float>  $reaches  element => share of the pressure that reaches it
     */
    private function __construct(
        private array $left,
        public array $reaches,
        private HardwareChange $pressure,
    ) {
    }

    /** Reads worn, leaks, pressureFactor, boostFactor and springAdd_kpa. */
    public static function read(Input $in, TrainDuty $plan): self
    {
        $known = static function (Input $at, int|string $id) use ($plan): string {
            isset($plan->hardware->capacities[$id]) ||
                throw $at->fail('unknown-element', "What \"$id\" can hold is not described.");

            return (string) $id;
        };
        $left = $reaches = [];
        foreach ($in->optional('worn')?->asMap() ?? [] as $id => $share) {
            $left[$known($share, $id)] = $share->asNumber(min: 0.0, max: 1.0);
        }
        foreach ($in->optional('leaks')?->asMap() ?? [] as $id => $leak) {
            $reaches[$known($leak, $id)] = self::behind(
                $leak->number('hole_mm', min: 0.0),
                $leak->number('feed_mm', above: 0.0),
            );
        }

        foreach (['pressureFactor', 'boostFactor'] as $factor) {
            $in->numberIf($factor, above: 0.0, max: self::MOST);
        }

        return new self($left, $reaches, HardwareChange::read($in, $plan->chart->train, null));
    }

    public function of(Hardware $hardware): Hardware
    {
        $capacities = [];
        foreach ($hardware->capacities as $id => $capacity) {
            $capacities[$id] = $capacity->weakened($this->left[$id] ?? 1.0, $this->reaches[$id] ?? 1.0);
        }
        $changed = $hardware->with($this->pressure);

        return new Hardware(
            $capacities,
            $changed->accumulators,
            $changed->pressures,
            $changed->spring,
            $changed->converter,
        );
    }

    /**
     * The same flow through the feed and the hole, turbulent through both: d1^4 (p - pc) = d2^4 pc (orifice equation,
     * equal discharge coefficients, the hole open to no pressure).
     */
    private static function behind(float $hole, float $feed): float
    {
        return 1.0 / (1.0 + ($hole / $feed) ** 4);
    }
}
