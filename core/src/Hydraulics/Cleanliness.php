<?php

declare(strict_types=1);

namespace Yard\Core\Hydraulics;

/** Particles in a fluid as a scale number: table 1 of ISO 4406:2017 (from memory), upper bounds included. */
final class Cleanliness
{
    /** Upper bounds of the numbers 0, 1, 2 ..., in particles per millilitre: a rounded doubling series. */
    private const BOUNDS = [
        0.01, 0.02, 0.04, 0.08, 0.16, 0.32, 0.64, 1.3, 2.5, 5.0, 10.0, 20.0, 40.0, 80.0, 160.0, 320.0, 640.0, 1300.0,
        2500.0, 5000.0, 10000.0, 20000.0, 40000.0, 80000.0, 160000.0, 320000.0, 640000.0, 1300000.0, 2500000.0,
    ];

    public const DIRTIEST = 28;

    /** Null: beyond the table. */
    public static function number(float $perMl): ?int
    {
        foreach (self::BOUNDS as $number => $bound) {
            if ($perMl <= $bound) {
                return $number;
            }
        }

        return null;
    }
}
