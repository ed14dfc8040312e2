<?php

declare(strict_types=1);

namespace Yard\Core\Faults;

use Yard\Core\BadInput;
use Yard\Core\Drivetrain\ApplyChart;
use Yard\Core\Drivetrain\SolvedGear;

/** What each gear does when one element is stuck, dead or built in the wrong way round, as the train solves it. */
final class FaultOutcomes
{
    private const SAME = 1e-9;

    /** @var array<string, SolvedGear> gear => as it should be */
    private readonly array $sound;

    /** @var array<string, array<string, SolvedGear>> fault => gear => as it is */
    private array $solved = [];

    /** @throws BadInput at /elements when the train has more one-way clutches than can be tried */
    public function __construct(private readonly ApplyChart $chart)
    {
        $this->sound = self::gears($chart, []);
    }

    /**
     * @param  array<string, string>  $faults
     * @return array<string, SolvedGear>
     */
    private static function gears(ApplyChart $chart, array $faults): array
    {
        return array_map((new FaultedTrain($chart->train, $faults))->gear(...), $chart->applied);
    }

    /** @return 'same'|'locks'|'neutral'|'wrong-ratio' */
    public function of(string $element, string $state, string $gear): string
    {
        $now = $this->solve($element, $state)[$gear];
        if (self::alike($now, $this->sound[$gear])) {
            return 'same';
        }

        return match ($now->state) {
            'driven' => 'wrong-ratio',
            'neutral' => 'neutral',
            default => 'locks',
        };
    }

    /** Whether a shift changes nothing that turns: the gear before goes on. */
    public function stays(string $element, string $state, string $from, string $to): bool
    {
        $solved = $this->solve($element, $state);

        return $solved[$to]->state === 'driven' && self::alike($solved[$from], $solved[$to]);
    }

    /** Which sound gear it then drives as; null where as none. */
    public function drivesAs(string $element, string $state, string $gear): ?string
    {
        $now = $this->solve($element, $state)[$gear];
        foreach ($this->sound as $other => $gear) {
            if ($gear->state === 'driven' && self::alike($now, $gear)) {
                return (string) $other;
            }
        }

        return null;
    }

    /** @return array<string, SolvedGear> */
    private function solve(string $element, string $state): array
    {
        return $this->solved["$state\0$element"] ??= self::gears($this->chart, [$element => $state]);
    }

    private static function alike(SolvedGear $a, SolvedGear $b): bool
    {
        return $a->state === $b->state &&
            abs(($a->ratio ?? 0.0) - ($b->ratio ?? 0.0)) <= self::SAME * abs($b->ratio ?? 1.0);
    }
}
