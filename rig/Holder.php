<?php

declare(strict_types=1);

namespace Yard\Rig;

/**
 * A clutch, brake or band with its piston: oil fills the stroke against the return spring, then an accumulator takes
 * oil while the pressure rises along its spring, then the pressure follows the line. What it can carry follows from
 * pressure, area, faces and friction. Pressures in kPa, volumes in cm3, lengths in mm, torques in N.m.
 */
final class Holder
{
    /** Flow through a square millimetre at 100 kPa, cm3/s: 0.62 x sqrt(2 x 100 kPa / 850 kg/m3). */
    private const FLOW = 0.62 * 15.34;

    /** What a pipe and an elastic pack take once the piston is home, cm3 for 100 kPa. */
    private const GIVE = 0.35;

    /** Line pressure at which an accumulator backed by the line works between the pressures it is given with. */
    private const BACK_KPA = 700.0;

    public bool $on = false;

    /** Held at the point where it just touches until it is let on. */
    public bool $waits = false;

    public float $pressure = 0.0;

    /** Oil behind the piston, cm3. */
    private float $volume = 0.0;

    private float $back = 1.0;

    /** Pressure against which the return springs give. */
    public readonly float $touch;

    private readonly float $area;

    private readonly float $stroke;

    private readonly Friction $lining;

    /** @param  array<string, mixed>  $as  as built: see docs/formats/rig.md */
    public function __construct(private array $as)
    {
        $this->area = $as['pistonArea_cm2'];
        $this->touch = ($as['returnForce_n'] / $this->area) * 10.0;
        $this->stroke = ($this->area * $as['travel_mm']) / 10.0;
        $this->lining = new Friction($as['mu'], $as['radius_m'], $as['staticRatio'], $as['muFall_s_per_m']);
    }

    /** Flow it takes at this line pressure, cm3/s, what leaks past its seals included; moves on by so many seconds. */
    public function fill(float $line, float $seconds, float $thin): float
    {
        $leak = $this->as['leak'] * 25.0 * sqrt(max(0.0, $this->pressure) / 1000.0) * $thin;
        $this->back = $this->as['backed'] ? $line / self::BACK_KPA : 1.0;
        $source = $this->on ? $line : 0.0;
        $orifice = self::FLOW * ($this->on ? $this->as['feed_mm2'] : 9.0);
        $over = ($source - $this->pressure) / 100.0;
        $flow = $orifice * ($over < 0.0 ? -sqrt(-$over) : sqrt($over));
        // Leakage below what the feed brings only lowers the pressure the pack reaches.
        $flow -= $leak;
        $hold = $this->stroke + ($this->waits ? 0.0 : INF);
        $this->volume = max(0.0, min($hold, $this->volume + $flow * $seconds));
        $before = $this->pressure;
        $this->pressure = $this->at($this->volume);
        if ($this->on && $this->pressure > $line) {
            $this->pressure = $line;
            $this->volume = $this->volumeAt($line);
        } elseif ($this->pressure - $before > 12_000.0 * $seconds) {
            $this->pressure = $before + 12_000.0 * $seconds;
        }

        return max(0.0, $flow) + $leak;
    }

    /** Pressure while so much oil is behind the piston. */
    private function at(float $volume): float
    {
        if ($volume <= $this->stroke) {
            return $this->stroke > 0.0 ? $this->touch * min(1.0, (4.0 * $volume) / $this->stroke) : $this->touch;
        }
        $rest = $volume - $this->stroke;
        $room = $this->as['accumulator_cm3'];
        $from = max($this->touch + 5.0, $this->back * $this->as['accumulator_kpa'][0]);
        $to = max($from, $this->back * $this->as['accumulator_kpa'][1]);
        $lift = (($from - $this->touch) / 100.0) * self::GIVE;
        if ($rest < $lift) {
            return $this->touch + (100.0 * $rest) / self::GIVE;
        }
        $rest -= $lift;
        if ($rest < $room) {
            return $from + (($to - $from) * $rest) / $room;
        }

        return max($from, $room > 0.0 ? $to : $from) + (100.0 * ($rest - $room)) / self::GIVE;
    }

    private function volumeAt(float $pressure): float
    {
        [$low, $high] = [$this->stroke, $this->stroke + $this->as['accumulator_cm3'] + 40.0];
        for ($k = 0; $k < 30; $k++) {
            $middle = 0.5 * ($low + $high);
            $this->at($middle) < $pressure ? ($low = $middle) : ($high = $middle);
        }

        return $high;
    }

    /**
     * Least and most torque on its first node.
     *
     * @return array{float, float}
     */
    public function carries(float $slip): array
    {
        $over = $this->pressure - $this->touch;
        if ($over <= 0.0 || $this->volume < $this->stroke) {
            return [0.0, 0.0];
        }
        // A waved plate takes up the first of the force softly.
        $cushion = $this->as['cushion_kpa'];
        $share = $cushion > 0.0 ? $over / ($over + $cushion * exp(-$over / $cushion)) : 1.0;
        $mu = $this->lining->at($slip);
        $force = $over * $this->area * 0.1 * $share;
        if (isset($this->as['wrap_rad'])) {
            $pull = $force * $this->as['lever'] * $this->as['radius_m'];
            $with = $pull * (exp($mu * $this->as['wrap_rad']) - 1.0);
            $against = $pull * (1.0 - exp(-$mu * $this->as['wrap_rad']));

            return $this->as['energised'] === 'positive' ? [-$against, $with] : [-$with, $against];
        }
        $most = $mu * $this->as['faces'] * $this->as['radius_m'] * $force;

        return [-$most, $most];
    }

    /** Pressure that carries so much torque. */
    public function pressureFor(float $torque): float
    {
        $each = isset($this->as['wrap_rad'])
            ? $this->as['lever'] * $this->as['radius_m'] * (exp($this->as['mu'] * $this->as['wrap_rad']) - 1.0)
            : $this->as['mu'] * $this->as['faces'] * $this->as['radius_m'];

        return $this->touch + abs($torque) / max(1e-6, $each * $this->area * 0.1);
    }

    /** Seconds from the order until the piston is home, as the control expects it. */
    public function expected(float $line): float
    {
        return (($this->area * $this->as['travelMeant_mm']) / 10.0) /
            (self::FLOW * $this->as['feedMeant_mm2'] * sqrt(max(50.0, $line - $this->touch) / 100.0));
    }
}
