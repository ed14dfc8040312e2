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

        return strlen($compact) === 17 ? self::byVin($compact) : self::byWords($text);
    }

    /** @return array{vin: array<string, mixed>, vehicles: Collection<int, Vehicle>, year: ?int} */
    private static function byVin(string $text): array
    {
        $vin = Vin::read($text);
        $vehicles = $vin->legible() ? self::carrying($text, $vin->modelYears) : new Collection();
        $made = fn (int $y) => $vehicles->contains(fn (Vehicle $v) => $v->from_year <= $y && $v->to_year >= $y);
        $years = array_values(array_filter($vin->modelYears, fn (int $y) => $vehicles->isEmpty() || $made($y)));

        return [
            'vin' => [
                'vin' => $text,
                'valid' => $vin->valid(),
                'problems' => $vin->problems,
                'modelYears' => $vin->modelYears,
            ],
            'vehicles' => $vehicles,
            'year' => count($years) === 1 ? $years[0] : null,
        ];
    }

    /**
     * @param  list<int>  $years
     * @return Collection<int, Vehicle>
     */
    private static function carrying(string $vin, array $years): Collection
    {
        return Vehicle::query()
            ->where('wmi', substr($vin, 0, 3))
            ->whereRaw("? LIKE REPLACE(COALESCE(vin_pattern, CONCAT(wmi, '??????????????')), '?', '_')", [$vin])
            ->where(function ($w) use ($years): void {
                $w->whereRaw($years === [] ? '1 = 1' : '1 = 0');
                foreach ($years as $year) {
                    $w->orWhere(fn ($y) => $y->where('from_year', '<=', $year)->where('to_year', '>=', $year));
                }
            })
            ->orderBy('id')
            ->limit(self::SHOWN)
            ->get();
    }

    /** @return array{vin: null, vehicles: Collection<int, Vehicle>, year: ?int} */
    private static function byWords(string $text): array
    {
        $exact = Vehicle::query()->where('code', $text)->get();
        $query = Vehicle::query()->orderBy('maker')->orderBy('model')->orderBy('from_year')->limit(self::SHOWN);
        $year = null;
        foreach (preg_split('/\s+/', trim($text)) ?: [] as $word) {
            if (preg_match('/^(19|20)\d\d$/', $word) === 1) {
                $year = (int) $word;
                $query->where('from_year', '<=', $year)->where('to_year', '>=', $year);
            } else {
                $like = '%'.addcslashes($word, '%_\\').'%';
                $query->whereAny(['maker', 'model', 'engine', 'drive', 'code'], 'like', $like);
            }
        }

        return ['vin' => null, 'vehicles' => $exact->isEmpty() ? $query->get() : $exact, 'year' => $year];
    }
}
