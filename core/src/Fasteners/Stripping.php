<?php

declare(strict_types=1);

namespace Yard\Core\Fasteners;

/**
 * Shear areas of engaged threads, from FED-STD-H28/2 (from memory): with basic diameters 0.875 pi d L of the hole and
 * 0.75 pi D1 L of the bolt; with the limits of a tolerance class smaller.
 */
final readonly class Stripping
{
    /**
     * @param  float  $engagement  mm
     * @param  array{dMin: float, d2Max: float, d1Max: float, pitchMin: float}|null  $limits  of major and pitch
     *     diameter of the bolt, pitch and minor diameter of the hole; null: basic diameters
     */
    public function __construct(private Thread $thread, private float $engagement, private ?array $limits)
    {
    }

    public function holeAreaMm2(): float
    {
        [$d, $d2] = $this->limits === null
            ? [$this->thread->diameterMm, $this->thread->diameterMm - $this->height() * 0.75]
            : [$this->limits['dMin'], $this->limits['d2Max']];

        return $this->area($d, $d - $d2);
    }

    public function boltAreaMm2(): float
    {
        [$d1, $d2] = $this->limits === null
            ? [$this->thread->diameterMm - $this->height() * 1.25, $this->thread->diameterMm - $this->height() * 0.75]
            : [$this->limits['d1Max'], $this->limits['pitchMin']];

        return $this->area($d1, $d2 - $d1);
    }

    private function area(float $at, float $overlap): float
    {
        $pitch = $this->thread->pitchMm;

        return ((M_PI * $this->engagement) / $pitch) * $at * ($pitch / 2.0 + $overlap / sqrt(3.0));
    }

    /** Of the sharp triangle. */
    private function height(): float
    {
        return (sqrt(3.0) / 2.0) * $this->thread->pitchMm;
    }
}
