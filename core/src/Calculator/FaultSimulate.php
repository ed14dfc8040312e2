<?php

declare(strict_types=1);

namespace Yard\Core\Calculator;

use Yard\Core\BadInput;
use Yard\Core\Drivetrain\ApplyChart;
use Yard\Core\Drivetrain\SolvedGear;
use Yard\Core\Drivetrain\Train;
use Yard\Core\Faults\FaultedTrain;
use Yard\Core\Input;

/** fault.simulate: what every gear does when elements are stuck, dead or built in the wrong way round. */
final class FaultSimulate implements Calculator
{
    private const OF_ONE_WAYS = ['locked', 'free', 'reversed'];

    private const OF_OTHERS = ['stuck-on', 'stuck-off'];

    public function calculate(Input $in): array
    {
        $chart = ApplyChart::read($in, 1);
        $faults = self::faults($in, $chart->train);
        [$sound, $faulted] = $in->within(static fn (): array => [
            new FaultedTrain($chart->train, []),
            new FaultedTrain($chart->train, $faults),
        ]);
        $was = array_map($sound->gear(...), $chart->applied);
        $gears = [];
        foreach ($chart->applied as $name => $applied) {
            $gears[] = self::gear((string) $name, $faulted->gear($applied), $was);
        }
        $neutral = $faulted->gear($chart->applied['N'] ?? []);

        return [
            'gears' => $gears,
            'neutral' => ['creeps' => $neutral->state === 'driven'] + self::solved($neutral),
        ];
    }

    /** @return array<string, string> */
    private static function faults(Input $in, Train $train): array
    {
        $faults = [];
        $list = $in->optional('faults')?->asList() ?? [];
        if (count($list) > FaultedTrain::MOST_FAULTS) {
            $most = FaultedTrain::MOST_FAULTS;
            throw $in->at('faults')->fail('too-many', "No more than $most faults can be looked at together.");
        }
        foreach ($list as $fault) {
            $id = $fault->name('element');
            $element =
                $train->elements[$id] ??
                throw $fault->at('element')->fail('unknown-element', "There is no element \"$id\".");
            if (isset($faults[$id])) {
                throw $fault->at('element')->fail('duplicate', "The element \"$id\" has two faults at once.");
            }
            $faults[$id] = $fault->choice('state', $element->kind === 'one-way' ? self::OF_ONE_WAYS : self::OF_OTHERS);
            if ($faults[$id] === 'reversed' && $element->locks === null) {
                throw new BadInput(
                    'no-direction',
                    "The one-way \"$id\" names no direction that could be the wrong one.",
                    "$fault->path/state",
                );
            }
        }

        return $faults;
    }

    /**
     * @param  array<string, SolvedGear>  $sound  gear => as it should be
     * @return array<string, mixed>
     */
    private static function gear(string $name, SolvedGear $now, array $sound): array
    {
        $was = $sound[$name];
        $changed = $now->state !== $was->state || ! self::alike($now, $was);

        return ['name' => $name] + self::solved($now) + [
            'sound' => self::solved($was),
            'changed' => $changed,
            'sentence' => $changed ? self::sentence($name, $now, $sound) : "Gear $name is as it should be.",
        ];
    }

    private static function alike(SolvedGear $a, SolvedGear $b): bool
    {
        return $a->ratio === null || $b->ratio === null
            ? $a->ratio === $b->ratio
            : abs($a->ratio - $b->ratio) <= 1e-9 * abs($b->ratio);
    }

    /** @return array{state: string, ratio?: float} */
    private static function solved(SolvedGear $gear): array
    {
        return ['state' => $gear->state] + ($gear->ratio === null ? [] : ['ratio' => $gear->ratio]);
    }

    /** @param  array<string, SolvedGear>  $sound */
    private static function sentence(string $name, SolvedGear $now, array $sound): string
    {
        if ($now->ratio !== null) {
            foreach ($sound as $other => $gear) {
                if ($gear->ratio !== null && self::alike($now, $gear)) {
                    return "Asked for gear $name, it drives as gear $other does.";
                }
            }

            return sprintf('Asked for gear %s, it drives at %.3f, which is no gear.', $name, $now->ratio);
        }

        return match ($now->state) {
            'locked' => "Gear $name ties up: nothing can turn.",
            'held' => "Gear $name holds the output still.",
            default => "Gear $name does not drive: the output is free.",
        };
    }
}
