<?php

declare(strict_types=1);

namespace Yard\Core\Power;

use Yard\Core\Drivetrain\ApplyChart;
use Yard\Core\Drivetrain\SolvedGear;
use Yard\Core\Faults\FaultedTrain;

/**
 * Elements that change hands between two gears, up and down, with the engine driving and on the overrun: who must come
 * first, what the train does when neither or both hold, how long the input takes, and the heat in what comes on. The
 * output keeps its speed meanwhile; one-way clutches that name a direction work by themselves.
 */
final readonly class HandOver
{
    private FaultedTrain $train;

    public function __construct(
        private ApplyChart $chart,
        private float $drive,
        private float $drag,
        private float $rpm,
        private float $inertia,
        private float $seconds,
    ) {
        $this->train = new FaultedTrain($chart->train, []);
    }

    /** @return list<array<string, mixed>> every shift between forward gears next to each other, the upshift
     *     first; a gear that only holds what another drives, too, is left out */
    public function shifts(): array
    {
        $gears = [];
        foreach ($this->chart->ratios() as $gear => $ratio) {
            if ($ratio > 0.0 && ! in_array($ratio, $gears, true)) {
                $gears[(string) $gear] = $ratio;
            }
        }
        $gears = array_map(strval(...), array_keys($gears));
        $out = [];
        foreach (array_slice($gears, 1) as $n => $upper) {
            $out[] = $this->shift($gears[$n], $upper);
            $out[] = $this->shift($upper, $gears[$n]);
        }

        return $out;
    }

    /** @return array<string, mixed> */
    private function shift(string $from, string $to): array
    {
        [$before, $after] = [$this->chart->applied[$from], $this->chart->applied[$to]];
        $off = array_values(array_diff($before, $after));
        $on = array_values(array_diff($after, $before));
        $stays = array_values(array_intersect($before, $after));
        $ratios = $this->chart->ratios();
        // Both directions run between the same two speeds: the lower gear turns the input faster.
        $falls = $this->rpm * (1.0 - min($ratios[$from], $ratios[$to]) / max($ratios[$from], $ratios[$to]));
        $down = $ratios[$to] > $ratios[$from];

        return compact('from', 'to', 'on', 'off') + [
            'changesHands' => $this->byCommand($on) && $this->byCommand($off),
            'neither' => $this->does($this->train->gear($stays)),
            'both' => $this->does($this->train->gear([...$before, ...$on])),
            'inputChange_rpm' => $down ? $falls : -$falls,
            'driving' => $this->led($falls, $down ? $this->drive : -$this->drive),
            'coasting' => $this->led($falls, $down ? -$this->drag : $this->drag),
        ];
    }

    /** @param  list<string>  $elements */
    private function byCommand(array $elements): bool
    {
        foreach ($elements as $id) {
            if ($this->chart->train->elements[$id]->kind !== 'one-way') {
                return true;
            }
        }

        return false;
    }

    /**
     * Where the engine's own torque takes the input towards its new speed the old element lets go first, and the new
     * one catches when the speeds agree: I dw / T. Otherwise the new one must come first and do the work itself: with X
     * = I dw / t + T as seen at the input, its heat is X dw t / 2.
     *
     * @param  float  $helps  N.m towards the new speed; below 0 away from it
     * @return array{first: 'release'|'apply', seconds?: float, heat_j?: float}
     */
    private function led(float $change, float $helps): array
    {
        $dw = ($change * M_PI) / 30.0;
        if ($helps > 0.0) {
            return ['first' => 'release', 'seconds' => ($this->inertia * $dw) / $helps];
        }
        $pulls = ($this->inertia * $dw) / $this->seconds - $helps;

        return ['first' => 'apply', 'seconds' => $this->seconds, 'heat_j' => ($pulls * $dw * $this->seconds) / 2.0];
    }

    /** @return array{state: string, ratio?: float, as?: string} as: the gear it then drives in */
    private function does(SolvedGear $now): array
    {
        if ($now->ratio === null) {
            return ['state' => $now->state];
        }
        foreach ($this->chart->ratios() as $gear => $ratio) {
            if (abs($now->ratio - $ratio) <= 1e-9 * abs($ratio)) {
                return ['state' => $now->state, 'ratio' => $now->ratio, 'as' => (string) $gear];
            }
        }

        return ['state' => $now->state, 'ratio' => $now->ratio];
    }
}
