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
        [$run, $dropouts] = $this->repaired();
        // Sensors that count teeth do not know the direction: then reverse shows up with a positive ratio.
        $unsigned = min($run->output) >= 0.0;
        $matched = $unsigned ? array_map(abs(...), $this->ratios) : $this->ratios;
        $ratio = self::ratios($run);
        $dwells = GearFinder::find($ratio, $matched, $run->rate);
        $signals = [$run->turbine ?? $run->input, $run->output, $ratio, $run->rate, $this->commands->gears];
        $meter = new ShiftMeter(...$signals);
        [$shifts, $unmeasured] = $meter->shifts($dwells, $run->missing);

        return [
            'gears' => array_map(fn (Dwell $d): array => $this->gear($d, $matched[$d->gear], $unsigned), $dwells),
            'shifts' => $shifts,
            'unmeasured' => $unmeasured,
            'slips' => (new SlipMeter(...$signals))->slips($dwells),
            'tieUps' => $meter->tieUpsInGear($dwells),
            'lockup' => $run->turbine === null ? null : LockupMeter::measure($run, $this->commands->lockup),
            'notReached' => $this->notReached($this->commands->gears, $dwells, $ratio, $run->rate),
            'dropouts' => $dropouts,
            'warnings' => $run->turbine === null ? [self::withoutTurbine()] : [],
        ] +
            ($run->line === null ? [] : ['pressure' => $this->pressure($run->line, $dwells)]) +
            ($run->temperature === null
                ? []
                : ['temperature' => $this->temperature($run->temperature)]);
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
     * Commanded gears the unit never settled in, with the ratio it ran at instead.
     *
     * @param  list<array{t: float, gear: string}>  $commands
     * @param  list<Dwell>  $dwells
     * @param  list<?float>  $ratio
     * @return list<array<string, mixed>>
     */
    private function notReached(array $commands, array $dwells, array $ratio, float $rate): array
    {
        $out = [];
        foreach ($commands as $i => ['t' => $t, 'gear' => $gear]) {
            $end = $commands[$i + 1]['t'] ?? count($ratio) / $rate;
            foreach ($dwells as $dwell) {
                if ($dwell->gear === $gear && $dwell->last / $rate > $t && $dwell->first / $rate < $end) {
                    continue 2;
                }
            }
            $last = array_values(
                array_filter(
                    array_slice($ratio, max(0, (int) (($end - 0.5) * $rate)), max(1, (int) (0.5 * $rate))),
                    is_float(...),
                ),
            );
            if ($gear !== 'N' && $gear !== 'P' && ! in_array($t, $this->commands->held, true)) {
                $out[] = ['gear' => $gear, 't' => $t] + ($last === [] ? [] : ['ratioMean' => Signal::median($last)]);
            }
        }

        return $out;
    }

    /**
     * @param  non-empty-list<float>  $line
     * @param  list<Dwell>  $dwells
     * @return array<string, mixed>
     */
    private function pressure(array $line, array $dwells): array
    {
        $sums = [];
        foreach ($dwells as $dwell) {
            $slice = array_slice($line, $dwell->steadyFirst, $dwell->steadyLast - $dwell->steadyFirst + 1);
            [$sum, $count] = $sums[$dwell->gear] ?? [0.0, 0];
            $sums[$dwell->gear] = [$sum + array_sum($slice), $count + count($slice)];
        }
        $measured = $this->run->measured($line) ?: [0.0];

        return [
            'min_kpa' => min($measured),
            'max_kpa' => max($measured),
            'mean_kpa' => Signal::mean($measured),
            'byGear_kpa' => (object) array_map(static fn (array $s): float => $s[0] / $s[1], $sums),
        ];
    }

    /**
     * @param  non-empty-list<float>  $temperature
     * @return array<string, float>
     */
    private function temperature(array $temperature): array
    {
        $measured = array_diff_key($temperature, $this->run->missing);
        $count = max(1, count($measured));
        $middle = array_sum(array_keys($measured)) / $count;
        $mean = array_sum($measured) / $count;
        $sxy = $sxx = 0.0;
        foreach ($measured as $k => $v) {
            $sxy += ($k - $middle) * ($v - $mean);
            $sxx += ($k - $middle) ** 2;
        }

        return [
            'start_degc' => $temperature[0],
            'end_degc' => $temperature[count($temperature) - 1],
            'max_degc' => max($temperature),
            'rise_per_min' => ($sxy / $sxx) * $this->run->rate * 60.0,
        ];
    }
}
