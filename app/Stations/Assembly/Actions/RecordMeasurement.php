<?php

namespace App\Stations\Assembly\Actions;

use App\Kernel\Ledger\Ledger;
use App\Kernel\Refusal;
use App\Kernel\TypedQuantity;
use App\Shop\Models\Gauge;
use App\Shop\Models\Person;
use App\Stations\Assembly\Models\Measurement;
use App\Stations\Assembly\Models\PackFit;
use App\Yard\Gatekeeper;
use App\Yard\Models\Build;
use Yard\Core\Units\Unit as MeasureUnit;

/**
 * A reading with person, time and gauge. Outside the window it is still a fact and is kept; it only bars the sign-off.
 */
final class RecordMeasurement
{
    /**
     * Predicted and measured clearance may differ by this much before the tool asks why (common practice, no source).
     */
    private const SURPRISE_IN = 0.004;

    public function __construct(private readonly Ledger $ledger)
    {
    }

    public function record(
        Build $build,
        string $kind,
        string $code,
        string $typed,
        ?string $gaugeCode,
        string $note,
        Person $by,
    ): Measurement {
        $unit = $build->unit;
        Gatekeeper::at($unit, 'bench');
        Gatekeeper::noHold($unit);
        [$quantity, $measureIn, $window] = self::expected($build, $kind, $code);
        $reading = TypedQuantity::parse($typed, $quantity, $measureIn, '/reading');
        $value = $reading->in($measureIn);
        $gauge = $this->gauge($gaugeCode, $quantity, $reading);
        $inside =
            ($window['min'] === null || $value >= $window['min']) &&
            ($window['max'] === null || $value <= $window['max']);
        $fit =
            $kind === 'pack' || $kind === 'end-play'
                ? PackFit::query()
                    ->where('build_id', $build->id)
                    ->where('pack', $code)
                    ->whereNull('undone_at')
                    ->first()
                : null;
        if ($fit !== null && trim($note) === '') {
            $difference = abs(
                MeasureUnit::of($measureIn)->convert($value - (float) $fit->predicted, MeasureUnit::of('in')),
            );
            if (round($difference, 6) > self::SURPRISE_IN) {
                throw Refusal::at(
                    '/note',
                    'The reading is '.
                        round($difference, 4).
                        ' in away from the predicted clearance of '.
                        (float) $fit->predicted.
                        " $measureIn. Check the stack, then say why in the note.",
                );
            }
        }
        $measurement = Measurement::create([
            'build_id' => $build->id,
            'kind' => $kind,
            'code' => $code,
            'value' => $value,
            'unit' => $measureIn,
            'typed' => $reading->typed,
            'si' => $reading->si,
            'window_min' => $window['min'],
            'window_max' => $window['max'],
            'inside' => $inside,
            'gauge_id' => $gauge->id,
            'note' => $note,
            'measured_by' => $by->id,
            'measured_at' => now(),
        ]);
        $this->ledger->onUnit($unit, 'measurement.recorded', [
            'kind' => $kind,
            'code' => $code,
            'value' => $value,
            'unit' => $measureIn,
            'typed' => $reading->typed,
            'gauge' => $gauge->code,
            'inside' => $inside,
            'note' => $note,
        ]);

        return $measurement;
    }

    /** @return array{string, string, array{min: ?float, max: ?float}} kind of quantity, unit, window */
    public static function expected(Build $build, string $kind, string $code): array
    {
        $spec = $build->spec;
        $find = fn (string $list) => array_column($spec[$list], null, 'code')[$code] ??
            throw Refusal::at('/code', "There is no \"$code\" to measure in this build.");
        if ($kind === 'torque') {
            $torque = TypedQuantity::parse($find('fasteners')['torque'], 'torque', 'N.m', '/code');

            return [
                'torque',
                $torque->unit,
                ['min' => round($torque->value * 0.9, 6), 'max' => round($torque->value * 1.1, 6)],
            ];
        }
        $row = $find(['pack' => 'packs', 'end-play' => 'endPlays', 'air-check' => 'airChecks'][$kind]);

        return [
            $kind === 'air-check' ? 'pressure' : 'length',
            $row['unit'],
            ['min' => (float) $row['window']['min'], 'max' => (float) $row['window']['max']],
        ];
    }

    private function gauge(?string $code, string $quantity, TypedQuantity $reading): Gauge
    {
        $gauge =
            Gauge::query()->where('code', (string) $code)->first() ??
            throw Refusal::at('/gauge', 'Say which gauge was used.');
        if ($gauge->kind !== $quantity) {
            throw Refusal::at(
                '/gauge',
                "\"$gauge->name\" measures ".
                    MeasureUnit::noun($gauge->kind).
                    ', not '.
                    MeasureUnit::noun($quantity).
                    '.',
            );
        }
        $shown = $reading->in($gauge->unit);
        if ($shown < (float) $gauge->range_min - 1e-9 || $shown > (float) $gauge->range_max + 1e-9) {
            throw Refusal::at(
                '/reading',
                "\"$gauge->name\" shows ".
                    (float) $gauge->range_min.
                    ' to '.
                    (float) $gauge->range_max.
                    " $gauge->unit; it cannot have shown {$reading->typed}.",
            );
        }

        return $gauge;
    }
}
