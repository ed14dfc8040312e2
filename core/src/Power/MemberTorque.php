<?php

declare(strict_types=1);

namespace Yard\Core\Power;

use Yard\Core\Drivetrain\ApplyChart;
use Yard\Core\Drivetrain\SolvedGear;

/**
 * What a shaft or drum carries: the torque of its element, the input's or the output's, in the gear that asks most of
 * it. The lowest forward gear and reverse are pulled away in, so the converter multiplies there.
 */
final readonly class MemberTorque
{
    public const INPUT = 'input';

    public const OUTPUT = 'output';

    private function __construct(public string $gear, public float $torque)
    {
    }

    /**
     * @param  string  $carries  input, output, or an element of the train
     * @param  float  $engine  in N.m
     * @param  float  $stall  torque ratio of the converter at stall
     * @param  float  $shock  how much a shock adds, as a factor
     * @return self|null where no gear loads it
     */
    public static function worst(ApplyChart $chart, string $carries, float $engine, float $stall, float $shock): ?self
    {
        $lowest = max([0.0, ...array_values($chart->ratios())]);
        $worst = null;
        foreach ($chart->solved() as $gear => $solved) {
            $launches = $solved->ratio !== null && ($solved->ratio < 0.0 || $solved->ratio === $lowest);
            $torque = self::share($solved, $carries) * $engine * ($launches ? $stall : 1.0) * $shock;
            if ($torque > ($worst->torque ?? 0.0)) {
                $worst = new self((string) $gear, $torque);
            }
        }

        return $worst;
    }

    /** For an input torque of 1. */
    private static function share(SolvedGear $solved, string $carries): float
    {
        return match ($carries) {
            self::INPUT => $solved->ratio === null ? 0.0 : 1.0,
            self::OUTPUT => abs($solved->ratio ?? 0.0),
            default => abs($solved->elementTorque[$carries] ?? 0.0),
        };
    }
}
