<?php

declare(strict_types=1);

namespace Yard\Core\Dyno;

/** Gears, shifts, flare, tie-up, lock-up, pressure and temperature of a recorded test run. */
final readonly class TraceAnalysis
{
    /** Below this output speed a ratio means nothing, rev/min. */
    private const STANDSTILL_RPM = 20.0;

    /** A speed that stays away no longer than this was lost on the wire, seconds. */
    private const DROPOUT_S = 0.25;

    private const DROPOUT_RPM = 100.0;

    /** @param  array<string, float>  $ratios  gear => ratio of the chart */
    public function __construct(private Recording $run, private array $ratios, private Commands $commands)
    {
    }

    /** @return array<string, mixed> as trace.analyse answers */
    public function report(): array
    {
        $joined = new JoinedTrace($this->run->rate, $this->commands);
        // Sensors that count teeth do not know the direction: then reverse shows up with a positive ratio.
        $joined->add($this->piece(min($this->run->output) >= 0.0, 0, null), 0.0, 0, -INF);

        return $joined->report();
    }

    /**
     * What is read off this stretch of a run.
     *
     * @param  bool  $unsigned  the output never turns backwards, so its direction is not known
     * @param  int  $first  sums are taken from this sample on
     * @param  (callable(list<Dwell>, list<?float>): int)|null  $last  from the stretches in gear and the ratio of each
     *     sample, the last one that sums are taken of; null: all of them
     */
    public function piece(bool $unsigned, int $first, ?callable $last): TracePiece
    {
        [$run, $dropouts] = $this->repaired();
        $matched = $unsigned ? array_map(abs(...), $this->ratios) : $this->ratios;
        $ratio = self::ratios($run);
        $dwells = GearFinder::find($ratio, $matched, $run->rate);
        $signals = [$run->turbine ?? $run->input, $run->output, $ratio, $run->rate, $this->commands->gears];
        $meter = new ShiftMeter(...$signals);
        [$shifts, $unmeasured] = $meter->shifts($dwells, $run->missing);
        $end = count($run->output) - 1;
        $until = $last === null ? $end : $last($dwells, $ratio);

        return new TracePiece(
            array_map(fn (Dwell $d): array => $this->gear($d, $matched[$d->gear], $unsigned), $dwells),
            [
                'shifts' => $shifts,
                'unmeasured' => $unmeasured,
                'slips' => (new SlipMeter(...$signals))->slips($dwells),
                'tieUps' => $meter->tieUpsInGear($dwells),
                'dropouts' => $dropouts,
            ],
            $run->turbine === null ? null : LockupMeter::measure($run, $this->commands->lockup),
            $run->turbine === null ? [self::withoutTurbine()] : [],
            array_map(fn (Dwell $d): array => [$d->gear, $d->first / $run->rate, $d->last / $run->rate], $dwells),
            $this->tails($ratio, $run->rate),
            $run->line === null ? null : $this->pressure($run->line, $dwells, $first, $until),
            $run->temperature === null ? null : $this->temperature($run->temperature, $first, $until),
            $until,
        );
    }

    /** @return list<?float> null where the output stands or nothing was recorded */
    private static function ratios(Recording $run): array
    {
        $ratio = [];
        foreach ($run->turbine ?? $run->input as $k => $in) {
            $nothing = isset($run->missing[$k]) || abs($run->output[$k]) < self::STANDSTILL_RPM;
            $ratio[] = $nothing ? null : $in / $run->output[$k];
        }

        return $ratio;
    }

    /** @return array{Recording, list<array{channel: string, from_s: float, to_s: float, samples: int}>} */
    private function repaired(): array
    {
        $run = $this->run;
        [$input, $inInput] = $this->repair('input_rpm', $run->input);
        [$output, $inOutput] = $this->repair('output_rpm', $run->output);
        [$turbine, $inTurbine] = $run->turbine === null ? [null, []] : $this->repair('turbine_rpm', $run->turbine);

        return [
            new Recording($run->rate, $input, $output, $turbine, $run->line, $run->temperature, $run->missing),
            [...$inInput, ...$inOutput, ...$inTurbine],
        ];
    }

    /**
     * @param  non-empty-list<float>  $values
     * @return array{non-empty-list<float>, list<array{channel: string, from_s: float, to_s: float, samples: int}>}
     */
    private function repair(string $channel, array $values): array
    {
        $rate = $this->run->rate;
        $longest = (int) max(1, self::DROPOUT_S * $rate);
        [$repaired, $found] = Signal::repairDropouts($values, $longest, self::DROPOUT_RPM);

        return [
            $repaired,
            array_map(
                static fn (array $gap): array => [
                    'channel' => $channel,
                    'from_s' => $gap[0] / $rate,
                    'to_s' => $gap[1] / $rate,
                    'samples' => $gap[1] - $gap[0] + 1,
                ],
                $found,
            ),
        ];
    }

    /** @return array{gear: string, from_s: float, to_s: float, ratioMean: float, ratioErrorPct: float} */
    private function gear(Dwell $d, float $nominal, bool $unsigned): array
    {
        return [
            'gear' => $d->gear,
            'from_s' => $d->steadyFirst / $this->run->rate,
            'to_s' => $d->steadyLast / $this->run->rate,
            'ratioMean' => $d->ratio * ($unsigned && $this->ratios[$d->gear] < 0.0 ? -1.0 : 1.0),
            'ratioErrorPct' => 100.0 * ($d->ratio / $nominal - 1.0),
        ];
    }

    /** @return array{code: string, message: string} */
    private static function withoutTurbine(): array
    {
        return [
            'code' => 'ratio-from-input',
            'message' => 'No turbine speed was recorded: the ratios include the slip of the converter wherever it is '
                .'unlocked.',
        ];
    }

    /**
     * The ratio just before another gear was asked for, or the stretch ends.
     *
     * @param  list<?float>  $ratio
     * @return list<?float> one a gear commanded; null: the output stood
     */
    private function tails(array $ratio, float $rate): array
    {
        $out = [];
        foreach ($this->commands->gears as $i => $command) {
            $end = $this->commands->gears[$i + 1]['t'] ?? count($ratio) / $rate;
            if ($end <= 0.0) {
                $out[] = null;

                continue;
            }
            $near = array_slice($ratio, max(0, (int) (($end - 0.5) * $rate)), max(1, (int) (0.5 * $rate)));
            $turned = array_values(array_filter($near, is_float(...)));
            $out[] = $turned === [] ? null : Signal::median($turned);
        }

        return $out;
    }

    /**
     * @param  non-empty-list<float>  $line
     * @param  list<Dwell>  $dwells
     * @return array{min: float, max: float, sum: float, count: int, gears: array<string, array{float, int}>}
     */
    private function pressure(array $line, array $dwells, int $first, int $last): array
    {
        $sums = [];
        foreach ($dwells as $dwell) {
            $from = max($first, $dwell->steadyFirst);
            $slice = array_slice($line, $from, max(0, min($last, $dwell->steadyLast) - $from + 1));
            [$sum, $count] = $sums[$dwell->gear] ?? [0.0, 0];
            $sums[$dwell->gear] = [$sum + array_sum($slice), $count + count($slice)];
        }
        $measured = array_values($this->measured($line, $first, $last)) ?: [0.0];

        return [
            'min' => min($measured),
            'max' => max($measured),
            'sum' => array_sum($measured),
            'count' => count($measured),
            'gears' => $sums,
        ];
    }

    /**
     * @param  non-empty-list<float>  $temperature
     * @return array{start: float, end: float, max: float, count: int, middle: float, mean: float, sxx: float,
     *     sxy: float} sums of the straight line through it, over the number of the sample
     */
    private function temperature(array $temperature, int $first, int $last): array
    {
        $measured = $this->measured($temperature, $first, $last);
        $count = max(1, count($measured));
        $middle = array_sum(array_keys($measured)) / $count;
        $mean = array_sum($measured) / $count;
        $sxy = $sxx = 0.0;
        foreach ($measured as $k => $v) {
            $sxy += ($k - $middle) * ($v - $mean);
            $sxx += ($k - $middle) ** 2;
        }

        return [
            'start' => $temperature[$first] ?? $temperature[0],
            'end' => $temperature[$last] ?? $temperature[count($temperature) - 1],
            'max' => max($temperature),
            'count' => count($measured),
            'middle' => $middle,
            'mean' => $mean,
            'sxx' => $sxx,
            'sxy' => $sxy,
        ];
    }

    /**
     * @param  non-empty-list<float>  $values
     * @return array<int, float> those between two samples that were measured
     */
    private function measured(array $values, int $first, int $last): array
    {
        $missing = $this->run->missing;
        $all = $first === 0 && $last === count($values) - 1;
        $part = $all ? $values : array_slice($values, $first, max(0, $last - $first + 1), true);

        return $missing === [] ? $part : array_diff_key($part, $missing);
    }
}
