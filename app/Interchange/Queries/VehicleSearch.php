<?php

namespace App\Interchange\Queries;

use App\Catalog\Models\Vehicle;
use Illuminate\Support\Collection;
use Yard\Core\Vin\Vin;

/** Vehicles of the catalog by VIN, code, or words of maker, model and engine. */
final class VehicleSearch
{
    private const SHOWN = 30;

    /** @return array{vin: ?array<string, mixed>, vehicles: Collection<int, Vehicle>, year: ?int} */
    public function find(string $text): array
    {
        $compact = strtoupper((string) preg_replace('/[\s-]+/', '', $text));
        if (strlen($compact) === 17) {
            $vin = Vin::read($compact);
            $vehicles = ! $vin->legible()
                ? new Collection()
                : Vehicle::query()
                    ->where('wmi', substr($compact, 0, 3))
                    ->whereRaw("? LIKE REPLACE(COALESCE(vin_pattern, CONCAT(wmi, '??????????????')), '?', '_')", [
                        $compact,
                    ])
                    ->where(function ($w) use ($vin): void {
                        $w->whereRaw($vin->modelYears === [] ? '1 = 1' : '1 = 0');
                        foreach ($vin->modelYears as $year) {
                            $w->orWhere(fn ($y) => $y->where('from_year', '<=', $year)->where('to_year', '>=', $year));
                        }
                    })
                    ->orderBy('id')
                    ->limit(self::SHOWN)
                    ->get();
            $years = array_values(
                array_filter(
                    $vin->modelYears,
                    fn (int $y) => $vehicles->isEmpty() ||
                        $vehicles->contains(fn (Vehicle $v) => $v->from_year <= $y && $v->to_year >= $y),
                ),
            );

            return [
                'vin' => [
                    'vin' => $compact,
                    'valid' => $vin->valid(),
                    'problems' => $vin->problems,
                    'modelYears' => $vin->modelYears,
                ],
                'vehicles' => $vehicles,
                'year' => count($years) === 1 ? $years[0] : null,
            ];
        }
        $exact = Vehicle::query()->where('code', $text)->get();
        $query = Vehicle::query()->orderBy('maker')->orderBy('model')->orderBy('from_year')->limit(self::SHOWN);
        $year = null;
        foreach (preg_split('/\s+/', trim($text)) ?: [] as $word) {
            if (preg_match('/^(19|20)\d\d$/', $word) === 1) {
                $year = (int) $word;
                $query->where('from_year', '<=', $year)->where('to_year', '>=', $year);
            } else {
                $like = '%'.addcslashes($word, '%_\\').'%';
                $query->where(
                    fn ($w) => $w
                        ->where('maker', 'like', $like)
                        ->orWhere('model', 'like', $like)
                        ->orWhere('engine', 'like', $like)
                        ->orWhere('drive', 'like', $like)
                        ->orWhere('code', 'like', $like),
                );
            }
        }

        return ['vin' => null, 'vehicles' => $exact->isEmpty() ? $query->get() : $exact, 'year' => $year];
    }
}
