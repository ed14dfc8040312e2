<?php

declare(strict_types=1);

namespace Yard\Core\Hydraulics;

use Yard\Core\Input;

/**
 * A helical compression spring: rate, Wahl factor and shear stress (Shigley, ch. 10; A. M. Wahl, Mechanical Springs).
 */
final readonly class Spring
{
    /** Squared and ground ends: two dead coils, solid length = total coils x wire. */
    private const DEAD_COILS = 2.0;

    private function __construct(
        public float $wire,
        public float $mean,
        public float $rate,
        public float $free,
        public float $solid,
    ) {
    }

    public static function read(Input $in): self
    {
        $wire = $in->number('wire_mm', above: 0.0);
        $mean = $in->number('meanDiameter_mm', above: $wire);
        $active = $in->number('activeCoils', above: 0.0);
        $solid =
            ($in->has('solidCoils') ? $in->number('solidCoils', min: $active) : $active + self::DEAD_COILS) * $wire;
        $free = $in->at('freeLength_mm');
        if ($free->asNumber(above: 0.0) <= $solid) {
            throw $free->fail(
                'range',
                'The free length must be greater than the solid length of '.Input::show(round($solid, 6)).' mm.',
            );
        }

        return new self(
            $wire,
            $mean,
            ($in->number('modulus_gpa', above: 0.0) * 1000.0 * $wire ** 4) / (8.0 * $mean ** 3 * $active),
            $free->asNumber(),
            $solid,
        );
    }

    public function index(): float
    {
        return $this->mean / $this->wire;
    }

    public function wahl(): float
    {
        $c = $this->index();

        return (4.0 * $c - 1.0) / (4.0 * $c - 4.0) + 0.615 / $c;
    }

    /** Force in N at a length in mm; a spring shorter than the room it has does not press. */
    public function force(float $length): float
    {
        return max(0.0, $this->rate * ($this->free - $length));
    }

    /** Shear stress in N/mm2 under a force in N, with the Wahl factor. */
    public function stress(float $force): float
    {
        return ($this->wahl() * 8.0 * $force * $this->mean) / (M_PI * $this->wire ** 3);
    }
}
