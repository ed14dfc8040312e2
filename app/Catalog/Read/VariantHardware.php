<?php

namespace App\Catalog\Read;

/** The hardware of one variant: its family's, with what differs put in its place. */
final class VariantHardware
{
    /**
     * @param  array<string, mixed>  $power  of the family
     * @param  array<string, mixed>  $train
     * @param  array<string, mixed>  $variant  where the variant differs; empty where it does not
     * @return array<string, mixed> train, capacities, pressures and gears as power.margin reads them
     */
    public static function of(array $power, array $train, array $variant): array
    {
        $power = array_diff_key($power, ['source' => 0, 'confidence' => 0]) + $train;
        $power['capacities'] = array_replace($power['capacities'], $variant['capacities'] ?? []);
        if (isset($variant['accumulators'])) {
            $power['accumulators'] = array_replace($power['accumulators'] ?? [], $variant['accumulators']);
        }
        if (isset($variant['pressure_kpa'])) {
            $power['pressure_kpa'] =
                is_array($variant['pressure_kpa']) && is_array($power['pressure_kpa'])
                    ? array_replace($power['pressure_kpa'], $variant['pressure_kpa'])
                    : $variant['pressure_kpa'];
        }
        if (($variant['lockup'] ?? '') === 'none') {
            unset($power['lockup']);
        }

        return $power;
    }
}
