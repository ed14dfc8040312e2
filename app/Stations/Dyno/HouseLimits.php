<?php

namespace App\Stations\Dyno;

use App\Shop\HouseRules;
use Yard\Core\Dyno\UnitProgram;
use Yard\Core\Quantity\Unit as MeasureUnit;

/**
 * What a run is held against: the limits of family and package as the build was released, and those of the house as of
 * the day it is tested, whichever allows less.
 */
final class HouseLimits
{
    /** House rule => limit of a program. */
    private const LIMITS = [
        'dyno-flare' => 'flare_rpm',
        'dyno-slip' => 'slip_pct',
        'dyno-tie-up' => 'tieUpDepth_pct',
        'dyno-lockup-slip' => 'lockupSlip_rpm',
        'dyno-hunting' => 'hunt_rpm',
        'dyno-rise' => 'rise_per_min',
    ];

    public function __construct(private readonly HouseRules $rules)
    {
    }

    /**
     * @param  array<string, array{min?: float, max?: float}>  $limits  of the program
     * @return array{limits: array<string, array{min?: float, max?: float}>, house: list<string>} which are the house's
     */
    public function with(array $limits): array
    {
        $line = MeasureUnit::of('psi')->convert($this->rules->number('pressure-limit'), MeasureUnit::of('kPa'));
        $most = array_combine(
            array_values(self::LIMITS),
            array_map($this->rules->number(...), array_keys(self::LIMITS)),
        );

        return UnitProgram::strictest($limits, $most + ['line_kpa' => $line]);
    }
}
