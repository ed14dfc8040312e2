<?php

declare(strict_types=1);

namespace Yard\Core\Hydraulics;

use Yard\Core\BadInput;
use Yard\Core\Input;

/** The opening through which a volume loses its air, or through which a reference orifice feeds a leak. */
final readonly class AirLeak
{
    private const KELVIN = 273.15;

    private const AMBIENT_KPA = 101.325;

    /** Intervals of Simpson's rule over the subsonic part; its integrand is smooth in sqrt(p - ambient). */
    private const STEPS = 2000;

    /**
     * @param  float  $area  mm2
     * @param  string  $choked  all, part or none of the test
     */
    private function __construct(public float $area, public string $choked)
    {
    }

    /** @throws BadInput */
    public static function read(Input $in): self
    {
        $ambient = $in->numberOr('ambient_kpa', self::AMBIENT_KPA, above: 0.0);

        return $in->choice('method', ['decay', 'leakdown']) === 'decay'
            ? self::decay($in, $ambient)
            : self::leakdown($in, $ambient);
    }

    /**
     * A closed volume that lost some of its pressure.
     *
     * @param  float  $start  kPa, absolute
     * @param  float  $end  kPa, absolute
     *
     * @throws BadInput where it cannot have been so
     */
    public static function ofDecay(float $volumeL, float $start, float $end, float $seconds, float $tempC): self
    {
        $asked = (object) [
            'volume_l' => $volumeL,
            'start_kpa' => $start,
            'end_kpa' => $end,
            'seconds' => $seconds,
            'temp_degc' => $tempC,
        ];

        return self::decay(Input::of($asked), self::AMBIENT_KPA);
    }

    /** Of the round hole that lets as much through, less the holes that are meant to. */
    public function netDiameterMm(float ...$bleeds): float
    {
        $meant = array_sum(array_map(static fn (float $d): float => (M_PI / 4.0) * $d ** 2, $bleeds));

        return sqrt((4.0 * max(0.0, $this->area - $meant)) / M_PI);
    }

    /** A closed volume loses pressure, isothermal: dp/dt = -(R T / V) m'(p). */
    private static function decay(Input $in, float $ambient): self
    {
        $start = $in->number('start_kpa', above: $ambient);
        $end = $in->number('end_kpa', above: $ambient, max: $start);
        $coefficient = $in->numberOr('dischargeCoefficient', 0.8, above: 0.0, max: 1.0);
        $root = sqrt($in->number('temp_degc', above: -self::KELVIN) + self::KELVIN);
        // dp/dt = -a A p g(p): the time a square metre takes from one pressure to the other
        $a = (AirFlow::R * $root * $coefficient) / ($in->number('volume_l', above: 0.0) / 1000.0);
        $limit = $ambient / AirFlow::critical();
        $choked = $start > max($end, $limit)
            ? log($start / max($end, $limit)) / AirFlow::factor($start, 0.0)
            : 0.0;
        $subsonic = self::subsonic(min($start, $limit), $end, $ambient);

        return new self(
            (1e6 * ($choked + $subsonic)) / $a / $in->number('seconds', above: 0.0),
            match (true) {
                $end >= $limit => 'all',
                $start <= $limit => 'none',
                default => 'part',
            },
        );
    }

    /** Integral of dp / (p g(p)) over the part that is not choked. */
    private static function subsonic(float $from, float $to, float $ambient): float
    {
        if ($from <= $to) {
            return 0.0;
        }
        [$low, $high] = [sqrt($to - $ambient), sqrt($from - $ambient)];
        $step = ($high - $low) / self::STEPS;
        $sum = 0.0;
        for ($n = 0; $n <= self::STEPS; $n++) {
            $s = $low + $n * $step;
            $p = $ambient + $s * $s;
            $weight = $n === 0 || $n === self::STEPS ? 1.0 : ($n % 2 === 1 ? 4.0 : 2.0);
            $sum += ($weight * 2.0 * $s) / ($p * AirFlow::factor($p, $ambient));
        }

        return ($sum * $step) / 3.0;
    }

    /** The same air passes the reference orifice and the leak, one after the other. */
    private static function leakdown(Input $in, float $ambient): self
    {
        $supply = $in->number('supply_kpa', above: $ambient);
        $gauge = $in->number('gauge_kpa', above: $ambient, max: $supply);
        $reference = (M_PI / 4.0) * $in->number('reference_mm', above: 0.0) ** 2;
        $passed = $supply * AirFlow::factor($supply, $gauge);

        return new self(
            ($reference * $passed) / ($gauge * AirFlow::factor($gauge, $ambient)),
            $ambient / $gauge <= AirFlow::critical() ? 'all' : 'none',
        );
    }
}
