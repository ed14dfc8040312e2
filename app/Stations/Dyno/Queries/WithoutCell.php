<?php

namespace App\Stations\Dyno\Queries;

use App\Catalog\Models\Vocabulary;
use App\Shop\Queries\PeopleNames;
use App\Stations\Dyno\Models\RoadTest;
use App\Yard\Models\Build;

/** What a build must show where there is no cell for it, and what it showed. */
final class WithoutCell
{
    public function __construct(private readonly PeopleNames $names)
    {
    }

    /** @return array<string, mixed>|null null where the shop's pack knows no road test */
    public function of(Build $build): ?array
    {
        $sheet = Vocabulary::query()->where('code', 'road-test')->first();

        return $sheet === null ? null : [
            'gears' => self::windows($build, (float) $sheet->body->pressureShare),
            'road' => $sheet->body->items,
            'tests' => array_values(RoadTest::query()
                ->where('build_id', $build->id)
                ->orderByDesc('id')
                ->get()
                ->map($this->shown(...))
                ->all()),
        ];
    }

    /**
     * The pressure each gear gets at full command, as ordered, and how far the gauge may be off it.
     *
     * @return list<array{gear: string, min: float, max: float}> kPa
     */
    public static function windows(Build $build, float $share): array
    {
        $ordered = array_column($build->frozen()['margins']['gears'] ?? [], 'pressure_kpa', 'name');
        $book = $build->unit->knownFamily()->body['power']['pressure_kpa'] ?? [];
        $windows = [];
        foreach ($ordered + $book as $gear => $kpa) {
            $windows[] = ['gear' => (string) $gear, 'min' => (1.0 - $share) * $kpa, 'max' => (1.0 + $share) * $kpa];
        }

        return $windows;
    }

    /** @return array<string, mixed> */
    public function shown(RoadTest $test): array
    {
        return [
            'id' => $test->id,
            'why' => $test->why,
            'pressures' => $test->pressures,
            'road' => $test->road,
            'verdict' => $test->verdict,
            'suspect' => $test->suspect,
            'by' => $this->names->of($test->approved_by),
            'on' => $test->approved_at->format('Y-m-d'),
        ];
    }
}
