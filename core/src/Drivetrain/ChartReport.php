<?php

declare(strict_types=1);

namespace Yard\Core\Drivetrain;

/** A solved chart as geartrain.solve answers it. */
final class ChartReport
{
    /** @return array<string, mixed> */
    public static function of(ApplyChart $chart, ?Losses $losses = null): array
    {
        $warnings = array_merge(
            ...array_map(static fn (PlanetarySet $s): array => $s->warnings(), $chart->train->sets),
            ...[[]],
        );
        $gears = [];
        foreach ($chart->solved() as $name => $solved) {
            foreach ($solved->wouldLock as $id) {
                $warnings[] = [
                    'code' => 'one-way-would-lock',
                    'gear' => (string) $name,
                    'element' => $id,
                    'message' => "Gear $name: the one-way clutch $id would lock, because its slip is in the direction "
                        .'it refuses.',
                ];
            }
            $gears[] = self::gear((string) $name, $solved) + ($losses?->of($solved, $chart->train) ?? []);
        }
        $forward = array_values(array_filter($chart->ratios(), static fn (float $r): bool => $r > 0.0));
        $steps = [];
        foreach (array_slice($forward, 1) as $i => $ratio) {
            $steps[] = $forward[$i] / $ratio;
        }

        return ['gears' => $gears, 'step' => $steps, 'warnings' => $warnings] +
            ($forward === [] ? [] : ['spread' => max($forward) / min($forward)]);
    }

    /** @return array<string, mixed> */
    private static function gear(string $name, SolvedGear $solved): array
    {
        $out = ['name' => $name, 'state' => $solved->state, 'ratio' => $solved->ratio];
        foreach (['speeds', 'pinionSpeeds', 'elementTorque', 'setTorque', 'slip'] as $key) {
            $out[$key] = (object) $solved->{$key};
        }
        if ($solved->outputTorque !== null) {
            $out['outputTorque'] = $solved->outputTorque;
        }
        if ($solved->oneWayConsistent !== []) {
            $out['oneWayConsistent'] = (object) $solved->oneWayConsistent;
        }

        return $out;
    }
}
