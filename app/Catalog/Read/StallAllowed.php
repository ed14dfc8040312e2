<?php

namespace App\Catalog\Read;

use App\Catalog\Models\Family;
use App\Catalog\Models\Option;
use App\Catalog\Models\Vehicle;
use Yard\Core\BadInput;
use Yard\Core\Input;
use Yard\Core\Power\Converter;
use Yard\Core\Power\Engine;
use Yard\Core\Power\LaunchHold;

/** How long the converter of a family may be held in a stall before the first thing in it is too hot. */
final class StallAllowed
{
    private const STOCK = 'stock';

    /**
     * Behind the hardest of the engines the family stands behind, with its stock converter.
     *
     * @return float|null seconds; null where the catalog does not say what takes up the heat, or nothing gets too hot
     *
     * @throws BadInput for a family whose converter or engines cannot be read
     */
    public static function seconds(Family $family): ?float
    {
        $held = $family->body['held'] ?? null;
        $converter = $held === null ? null : self::converter($family);
        if ($converter === null) {
            return null;
        }
        $seconds = [];
        foreach (self::vehicles($family) as $vehicle) {
            $torque = (float) $vehicle->engine_torque_nm;
            $engine = $vehicle->engine_curve === [] ? ['torque_nm' => $torque] : ['curve' => $vehicle->engine_curve];
            $stall = $converter->behind(Engine::read(Input::of($engine)), 0.0);
            $heated = LaunchHold::read(Input::of([
                'torque_nm' => $stall['engineTorque_nm'],
                'speed_rpm' => $stall['engine_rpm'],
            ] + $held));
            $seconds[] = $heated->secondsTo((float) min([INF, ...array_column($held['limits'], 'max_degc')])) ?? INF;
        }
        $least = $seconds === [] ? INF : min($seconds);

        return $least === INF ? null : $least;
    }

    private static function converter(Family $family): ?Converter
    {
        $stock = Option::query()
            ->where('family_id', $family->id)
            ->orderBy('id')
            ->get()
            ->first(fn (Option $o): bool => ($o->body['converter']['stallClass'] ?? '') === self::STOCK);

        return $stock === null ? null : Converter::read(Input::of(['points' => $stock->body['converter']['points']]));
    }

    /** @return iterable<Vehicle> */
    private static function vehicles(Family $family): iterable
    {
        return Vehicle::query()
            ->whereIn('id', fn ($q) => $q
                ->select('a.vehicle_id')
                ->from('applications AS a')
                ->join('variants AS v', 'v.id', '=', 'a.variant_id')
                ->where('v.family_id', $family->id))
            ->where('engine_torque_nm', '>', 0)
            ->orderByDesc('engine_torque_nm')
            ->limit(50)
            ->get();
    }
}
