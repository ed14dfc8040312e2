<?php

declare(strict_types=1);

namespace Yard\Core\Fit;

use Yard\Core\BadInput;
use Yard\Core\Input;

/**
 * What a bush and its bore are made of: modulus in GPa and Poisson's ratio (Shigley, Mechanical Engineering Design,
 * table A-5, from memory).
 */
enum Metal: string
{
    case Steel = 'steel';
    case Iron = 'iron';
    case Bronze = 'bronze';
    case Aluminium = 'aluminium';
    case Magnesium = 'magnesium';

    /** @return array{e_gpa: float, nu: float} */
    private function elasticity(): array
    {
        return match ($this) {
            self::Steel => ['e_gpa' => 207.0, 'nu' => 0.292],
            self::Iron => ['e_gpa' => 100.0, 'nu' => 0.211],
            self::Bronze => ['e_gpa' => 111.0, 'nu' => 0.349],
            self::Aluminium => ['e_gpa' => 71.7, 'nu' => 0.333],
            self::Magnesium => ['e_gpa' => 44.8, 'nu' => 0.35],
        };
    }

    /**
     * A bush pressed into a bore; lengths in millimetres.
     *
     * @param  float  $joint  diameter of the bore it goes into
     * @param  float  $interference  how much larger the bush is
     * @param  float  $bore  inside of the bush, before
     * @param  float  $outside  of what it goes into
     * @param  float  $length  of the bush
     * @param  float  $mu  of bush on bore
     *
     * @throws BadInput where these are no two rings one in the other
     */
    public static function pressed(
        self $bush,
        self $into,
        float $joint,
        float $interference,
        float $bore,
        float $outside,
        float $length,
        float $mu,
    ): PressFit {
        return PressFit::read(Input::of((object) [
            'diameter_mm' => $joint,
            'interference_um' => 1000.0 * $interference,
            'length_mm' => $length,
            'outer' => (object) (['diameter_mm' => $outside] + $into->elasticity()),
            'inner' => (object) (['diameter_mm' => $bore] + $bush->elasticity()),
            'mu' => $mu,
        ]));
    }
}
