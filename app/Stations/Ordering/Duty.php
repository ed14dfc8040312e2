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
        $peak = $curve === [] ? null : max(array_column($curve, 'torque_nm'));
        $torque =
            $typed->quantity('engineTorque') ??
            ($peak ?? ($vehicle === null ? null : (float) $vehicle->engine_torque_nm));
        $house = app(HouseRules::class);
        $fastest = array_slice(array_column($curve, 'speed_rpm'), -1);
        $speed = $typed->quantity('shiftSpeed') ?? min([$house->number('shift-speed'), ...$fastest]);
        $mass = $typed->quantity('mass') ?? ($vehicle === null ? null : (float) $vehicle->mass_kg);
        $axle = $typed->quantity('axle') ?? ($vehicle === null ? null : (float) $vehicle->axle_ratio);
        $grade = $typed->quantity('grade') ?? $house->number('launch-grade');
        $tyre = $typed->text('tyre') ?: $vehicle->tyre ?? '';
        $radius = $tyre === '' ? null : self::radius($tyre);
        if ($torque === null) {
            return null;
        }
        $scaled = self::scaled($curve, $torque);
        $from = $typed->text('engineCurve') !== '' ? 'order' : 'vehicle';
        $hold = (bool) ($in['hold'] ?? true);

        return new self(
            $torque,
            $scaled,
            $speed,
            $mass === null || $axle === null || $radius === null
                ? null
                : ['mass_kg' => $mass, 'axleRatio' => $axle, 'tyreRadius_mm' => $radius],
            $grade,
            $hold,
            [
                'engineTorque_nm' => $torque,
                'typed' => $typed->text('engineTorque'),
                'curve' => $scaled,
                'curveFrom' => $scaled === [] ? null : $from,
                'shiftSpeed_rpm' => $speed,
                'mass_kg' => $mass,
                'axleRatio' => $axle,
                'tyre' => $tyre === '' ? null : $tyre,
                'tyreRadius_mm' => $radius,
                'grade_pct' => $grade,
                'hold' => $hold,
            ],
        );
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
