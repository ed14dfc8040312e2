<?php

declare(strict_types=1);

namespace Yard\Core\Calculator;

use Yard\Core\Input;
use Yard\Core\Power\Torsion;

/** shaft.torsion: what a shaft feels, how far it twists, what it would take. */
final class ShaftTorsion implements Calculator
{
    public function calculate(Input $in): array
    {
        $shaft = Torsion::read($in);
        $stress = $shaft->stress();
        $out = ['stress_mpa' => $stress];
        if ($in->has('shearModulus_gpa')) {
            $out['twist_deg_per_m'] = $shaft->twist($in->number('shearModulus_gpa', above: 0.0));
        }
        if ($in->has('shearYield_mpa')) {
            $yield = $in->number('shearYield_mpa', above: 0.0);
            $out += ($stress > 0.0 ? ['margin' => $yield / $stress] : []) +
                ['torqueAtYield_nm' => $shaft->torqueAt($yield)];
        }

        return $out;
    }
}
