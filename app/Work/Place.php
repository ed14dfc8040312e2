<?php

namespace App\Work;

use App\Kernel\Refusal;
use App\Kernel\TypedQuantity;
use App\Shop\HouseRules;
use App\Yard\Models\Build;

/** A place of a build that is measured, with its frozen window in the unit it is measured in. */
final readonly class Place
{
    private function __construct(
        public ReadingKind $kind,
        public string $code,
        public string $unit,
        public float $min,
        public float $max,
    ) {
    }

    /** @throws Refusal when the build has no such place */
    public static function of(Build $build, ReadingKind $kind, string $code): self
    {
        $row =
            array_column($kind->places($build->frozen()), null, 'code')[$code] ??
            throw Refusal::at('/code', "There is no \"$code\" to measure in this build.");
        if ($kind !== ReadingKind::Torque) {
            return new self($kind, $code, $row['unit'], (float) $row['window']['min'], (float) $row['window']['max']);
        }
        $torque = TypedQuantity::parse($row['torque'], 'torque', 'N.m', '/code');
        $off = $torque->value * app(HouseRules::class)->share('torque-tolerance');

        return new self($kind, $code, $torque->unit, round($torque->value - $off, 6), round($torque->value + $off, 6));
    }

    public function holds(float $value): bool
    {
        return $value >= $this->min && $value <= $this->max;
    }
}
