<?php

namespace App\Stations\Ordering;

use App\Catalog\Models\Vehicle;
use App\Kernel\Refusal;
use App\Kernel\TypedQuantity;
use App\Shop\HouseRules;
use Yard\Core\Calculators;

/** What a build will have to hold: the engine, the shift speed, the mass it moves and through which axle and tyre. */
final readonly class Duty
{
    /**
     * @param  list<array{speed_rpm: float, torque_nm: float}>  $curve  empty: the peak counts at every speed
     * @param  array{mass_kg: float, axleRatio: float, tyreRadius_mm: float}|null  $load null while one of the three is
     *     not known
     * @param  array<string, mixed>  $written
     */
    private function __construct(
        public float $engineTorque,
        private array $curve,
        public float $shiftSpeed,
        public ?array $load,
        public float $grade,
        public bool $hold,
        private array $written,
    ) {
    }

    /**
     * What the order says goes before what the catalog knows of the vehicle and what the house assumes.
     *
     * @param  array<string, mixed>|null  $in  as typed on the order
     * @return self|null null when neither the order nor the vehicle says how much torque comes in
     */
    public static function of(?array $in, ?Vehicle $vehicle): ?self
    {
        $typed = fn (string $field): string => trim((string) ($in[$field] ?? ''));
        $curve =
            $typed('engineCurve') !== ''
                ? self::curve($typed('engineCurve'))
                : array_map(
                    fn (array $p) => ['speed_rpm' => (float) $p['speed_rpm'], 'torque_nm' => (float) $p['torque_nm']],
                    $vehicle->engine_curve ?? [],
                );
        $peak = $curve === [] ? null : max(array_column($curve, 'torque_nm'));
        $torque =
            $typed('engineTorque') === ''
                ? $peak ?? ($vehicle === null ? null : (float) $vehicle->engine_torque_nm)
                : self::within(
                    $typed('engineTorque'),
                    'torque',
                    'N.m',
                    '/duty/engineTorque',
                    'engine torque',
                    0,
                    5000,
                );
        $number = fn (
            string $field,
            string $kind,
            string $unit,
            string $what,
            float $min,
            float $max,
            ?float $else,
        ): ?float => $typed($field) === ''
            ? $else
            : self::within($typed($field), $kind, $unit, "/duty/$field", $what, $min, $max);
        $house = app(HouseRules::class);
        $speed = $number(
            'shiftSpeed',
            'rotation',
            'rpm',
            'shift speed',
            500,
            12000,
            min([$house->number('shift-speed'), ...array_slice(array_column($curve, 'speed_rpm'), -1)]),
        );
        $mass = $number(
            'mass',
            'mass',
            'kg',
            'mass',
            100,
            60000,
            $vehicle === null ? null : (float) $vehicle->mass_kg,
        );
        $axle = $number(
            'axle',
            'number',
            '',
            'axle ratio',
            1,
            12,
            $vehicle === null ? null : (float) $vehicle->axle_ratio,
        );
        $grade = $number('grade', 'number', '', 'grade', 0, 60, $house->number('launch-grade'));
        $tyre = $typed('tyre') !== '' ? $typed('tyre') : $vehicle->tyre ?? '';
        $radius = $tyre === '' ? null : self::radius($tyre);
        if ($torque === null) {
            return null;
        }
        // The curve gives the shape, the torque the peak: a tuned engine of the same kind.
        $scaled =
            $peak === null || $peak <= 0
                ? []
                : array_map(
                    fn (array $p) => [
                        'speed_rpm' => $p['speed_rpm'],
                        'torque_nm' => ($p['torque_nm'] * $torque) / $peak,
                    ],
                    $curve,
                );

        return new self(
            $torque,
            array_values($scaled),
            (float) $speed,
            $mass === null || $axle === null || $radius === null
                ? null
                : ['mass_kg' => $mass, 'axleRatio' => $axle, 'tyreRadius_mm' => $radius],
            (float) $grade,
            (bool) ($in['hold'] ?? true),
            [
                'engineTorque_nm' => $torque,
                'typed' => $typed('engineTorque'),
                'curve' => $scaled,
                'curveFrom' => $scaled === [] ? null : ($typed('engineCurve') !== '' ? 'order' : 'vehicle'),
                'shiftSpeed_rpm' => $speed,
                'mass_kg' => $mass,
                'axleRatio' => $axle,
                'tyre' => $tyre === '' ? null : $tyre,
                'tyreRadius_mm' => $radius,
                'grade_pct' => $grade,
                'hold' => (bool) ($in['hold'] ?? true),
            ],
        );
    }

    /** @return array<string, mixed> as the order shows and freezes it */
    public function written(): array
    {
        return $this->written;
    }

    /** @return array<string, mixed> the engine as the calculators read it */
    public function engine(): array
    {
        return $this->curve === [] ? ['torque_nm' => $this->engineTorque] : ['curve' => $this->curve];
    }

    private static function within(
        string $text,
        string $kind,
        string $unit,
        string $pointer,
        string $what,
        float $min,
        float $max,
    ): float {
        if ($kind === 'number') {
            is_numeric($text) || throw Refusal::at($pointer, "The $what is a number with a point, not \"$text\".");
            $value = (float) $text;
        } else {
            $value = round(TypedQuantity::parse($text, $kind, $unit, $pointer)->in($unit), 6);
        }
        if ($value < $min || $value > $max || ($kind === 'torque' && $value <= 0)) {
            throw Refusal::at(
                $pointer,
                "The $what must lie between $min and $max".
                    ($unit === '' ? '' : ' '.($unit === 'rpm' ? 'rev/min' : $unit)).
                    '.',
            );
        }

        return $value;
    }

    /** @return list<array{speed_rpm: float, torque_nm: float}> from "1500 220, 3000 305" */
    private static function curve(string $text): array
    {
        $points = [];
        foreach (preg_split('/\s*[,;\n]\s*/', $text, -1, PREG_SPLIT_NO_EMPTY) ?: [] as $pair) {
            if (preg_match('/^\s*(\d+(?:\.\d+)?)[\s:]+(\d+(?:\.\d+)?)\s*$/', $pair, $m) !== 1) {
                throw Refusal::at(
                    '/duty/engineCurve',
                    "\"$pair\" is no point of the curve: write rev/min and N.m, such as 1500 220, 3000 305.",
                );
            }
            $points[] = ['speed_rpm' => (float) $m[1], 'torque_nm' => (float) $m[2]];
        }
        if ($points === [] || count($points) > 60) {
            throw Refusal::at('/duty/engineCurve', 'The engine curve needs 1 to 60 points.');
        }
        foreach ($points as $i => $point) {
            if (
                $point['torque_nm'] <= 0 ||
                $point['torque_nm'] > 5000 ||
                ($i > 0 && $point['speed_rpm'] <= $points[$i - 1]['speed_rpm'])
            ) {
                throw Refusal::at(
                    '/duty/engineCurve',
                    'The speeds of the engine curve must rise, and each torque lie above 0 and up to 5000 N.m.',
                );
            }
        }

        return $points;
    }

    private static function radius(string $tyre): float
    {
        try {
            return Calculators::call('tyre.size', ['size' => $tyre])['rollingRadius_mm'];
        } catch (\Yard\Core\BadInput $e) {
            throw Refusal::at('/duty/tyre', $e->getMessage());
        }
    }
}
