<?php

namespace App\Stations\Ordering;

use App\Catalog\Models\Vehicle;
use App\Kernel\Refusal;
use App\Shop\HouseRules;
use Yard\Core\Power\Tyre;

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
        $typed = new TypedDuty($in ?? []);
        $curve = $typed->curve() ?? self::known($vehicle->engine_curve ?? []);
        $house = app(HouseRules::class);
        $fastest = array_slice(array_column($curve, 'speed_rpm'), -1);
        $speed = $typed->quantity('shiftSpeed') ?? min([$house->number('shift-speed'), ...$fastest]);
        $grade = $typed->quantity('grade') ?? $house->number('launch-grade');
        $road = self::road($typed, $vehicle);
        $torque = $typed->quantity('engineTorque') ?? self::peak($curve, $vehicle);
        if ($torque === null) {
            return null;
        }
        $scaled = self::scaled($curve, $torque);
        $hold = (bool) ($in['hold'] ?? true);

        return new self(
            $torque,
            $scaled,
            $speed,
            self::launched($road),
            $grade,
            $hold,
            [
                'engineTorque_nm' => $torque,
                'typed' => $typed->text('engineTorque'),
                ...self::curveFrom($typed, $scaled),
                'shiftSpeed_rpm' => $speed,
                ...$road,
                'grade_pct' => $grade,
                'hold' => $hold,
            ],
        );
    }

    /**
     * @param  array{mass_kg: ?float, axleRatio: ?float, tyre: ?string, tyreRadius_mm: ?float}  $road
     * @return array{mass_kg: float, axleRatio: float, tyreRadius_mm: float}|null null where one of them is not known
     */
    private static function launched(array $road): ?array
    {
        ['mass_kg' => $mass, 'axleRatio' => $axle, 'tyreRadius_mm' => $radius] = $road;

        return $mass === null || $axle === null || $radius === null
            ? null
            : ['mass_kg' => $mass, 'axleRatio' => $axle, 'tyreRadius_mm' => $radius];
    }

    /**
     * @param  list<array{speed_rpm: float, torque_nm: float}>  $curve
     * @return array{curve: list<array{speed_rpm: float, torque_nm: float}>, curveFrom: 'order'|'vehicle'|null}
     */
    private static function curveFrom(TypedDuty $typed, array $curve): array
    {
        $from = $typed->text('engineCurve') !== '' ? 'order' : 'vehicle';

        return ['curve' => $curve, 'curveFrom' => $curve === [] ? null : $from];
    }

    /**
     * @param  list<array{speed_rpm: float, torque_nm: float}>  $curve
     * @return float|null N.m; the peak of the curve, else what the catalog says of the engine
     */
    private static function peak(array $curve, ?Vehicle $vehicle): ?float
    {
        if ($curve !== []) {
            return max(array_column($curve, 'torque_nm'));
        }

        return $vehicle === null ? null : (float) $vehicle->engine_torque_nm;
    }

    /** @return array{mass_kg: ?float, axleRatio: ?float, tyre: ?string, tyreRadius_mm: ?float} */
    private static function road(TypedDuty $typed, ?Vehicle $vehicle): array
    {
        $known = fn (string $column): ?float => $vehicle === null ? null : (float) $vehicle->{$column};
        $tyre = $typed->text('tyre') ?: $vehicle->tyre ?? '';

        return [
            'mass_kg' => $typed->quantity('mass') ?? $known('mass_kg'),
            'axleRatio' => $typed->quantity('axle') ?? $known('axle_ratio'),
            'tyre' => $tyre === '' ? null : $tyre,
            'tyreRadius_mm' => $tyre === '' ? null : self::radius($tyre),
        ];
    }

    /**
     * @param  array<mixed>  $curve
     * @return list<array{speed_rpm: float, torque_nm: float}>
     */
    private static function known(array $curve): array
    {
        return array_values(
            array_map(
                fn (array $p) => ['speed_rpm' => (float) $p['speed_rpm'], 'torque_nm' => (float) $p['torque_nm']],
                $curve,
            ),
        );
    }

    /**
     * The curve gives the shape, the torque the peak: a tuned engine of the same kind.
     *
     * @param  list<array{speed_rpm: float, torque_nm: float}>  $curve
     * @return list<array{speed_rpm: float, torque_nm: float}>
     */
    private static function scaled(array $curve, float $torque): array
    {
        $peak = $curve === [] ? 0.0 : max(array_column($curve, 'torque_nm'));

        return $peak <= 0.0
            ? []
            : array_map(
                fn (array $p) => ['torque_nm' => ($p['torque_nm'] * $torque) / $peak] + $p,
                $curve,
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

    private static function radius(string $tyre): float
    {
        try {
            return Tyre::of($tyre)->rollingRadius();
        } catch (\Yard\Core\BadInput $e) {
            throw Refusal::at('/duty/tyre', $e->getMessage());
        }
    }
}
