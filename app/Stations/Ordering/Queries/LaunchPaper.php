<?php

namespace App\Stations\Ordering\Queries;

use App\Catalog\Models\Option;
use Yard\Core\Input;
use Yard\Core\Power\ConverterThrust;
use Yard\Core\Power\LaunchHold;

/** For duties that hold the converter: how long the brake may be held, and what presses on the crankshaft meanwhile. */
final class LaunchPaper
{
    private const HELD = [
        'fluid_l' => 0,
        'metal_kg' => 0,
        'start_degc' => 0,
        'air_degc' => 0,
        'coolerUa_w_per_k' => 0,
        'limits' => 0,
        'coolTo_degc' => 0,
    ];

    /**
     * @param  array<string, mixed>  $held  as the family has it
     * @param  array<string, mixed>|null  $match  the converter behind the engine, at stall
     * @param  list<Option>  $chosen
     * @return array<string, mixed>|null null for a duty that does not hold it
     */
    public static function of(array $held, string $duty, ?array $match, array $chosen): ?array
    {
        if ($match === null || ! in_array($duty, $held['duties'] ?? [], true)) {
            return null;
        }
        $engine = ['torque_nm' => $match['stallTurbineTorque_nm'] / $match['stallTorqueRatio']];
        $engine['speed_rpm'] = $match['stall_rpm'];
        $asked = $engine + array_intersect_key($held, self::HELD);
        $in = Input::of($asked);

        return $engine + [
            'clock' => LaunchHold::read($in)->report($in),
            'assumed' => array_diff_key($asked, $engine, ['limits' => 0]),
            'thrust' => self::thrust($held, (float) $match['hub'], $chosen),
            'source' => "{$held['source']}; {$held['confidence']}",
        ];
    }

    /**
     * @param  array<string, mixed>  $held
     * @param  list<Option>  $chosen
     * @return list<array{name: string, charge_kpa: float, force_n: float}> bare, then what each option makes of it
     */
    private static function thrust(array $held, float $hub, array $chosen): array
    {
        $bare = ['charge_kpa' => (float) $held['charge_kpa'], 'hubDiameter_mm' => $hub];
        $with = ['Full charge on the hub' => $bare];
        foreach ($chosen as $option) {
            isset($option->body['thrust']) && $with[$option->name] = $option->body['thrust'] + $bare;
        }
        $out = [];
        foreach ($with as $name => $asked) {
            $thrust = ConverterThrust::read(Input::of($asked));
            $out[] = ['name' => $name, 'charge_kpa' => $thrust->charge, 'force_n' => $thrust->force];
        }

        return $out;
    }
}
