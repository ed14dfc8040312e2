<?php

namespace App\Stations\Teardown\Queries;

use App\Catalog\Models\Family;
use App\Catalog\Models\FamilySpec;
use App\Shop\HouseRules;
use App\Yard\Contracts\ElementWeights;
use Illuminate\Support\Facades\Cache;
use Illuminate\Support\Facades\DB;
use Yard\Core\Faults\LearnedWeights;

/**
 * What the teardowns of a family named as the cause, beside the weak points of the catalog. Nothing is stored: a
 * finding that is changed, or the house rule, takes it back.
 */
final class ConfirmedCauses implements ElementWeights
{
    private const KEEP_SECONDS = 3600;

    public function __construct(private readonly HouseRules $rules)
    {
    }

    public function of(Family $family): array
    {
        $elements = array_column($family->train['elements'], 'id');
        $shipped = array_map(floatval(...), ($family->body['weak'] ?? []) + array_fill_keys($elements, 1.0));
        $ofElements = array_intersect_key($shipped, array_flip($elements));
        $counts = Cache::remember(self::key($family->id), self::KEEP_SECONDS, fn (): array => self::counts($family));
        $learns = $this->rules->choice('cause-learning') === 'on';
        $worth = $this->rules->number('cause-learning-weight');

        return [
            'learns' => $learns,
            'counts' => $counts,
            'shipped' => $shipped,
            'weights' => $learns ? LearnedWeights::of($ofElements, $counts, $worth) + $shipped : $shipped,
        ];
    }

    public static function forget(int $familyId): void
    {
        Cache::forget(self::key($familyId));
    }

    private static function key(int $familyId): string
    {
        // Tests roll back what they write; the data folder tells the instances apart.
        return "causes.$familyId.".DB::connection()->getDatabaseName().
            (app()->runningUnitTests() ? '.'.DB::table('findings')->max('id') : '');
    }

    /** @return array<string, int> element => units in which a part of it was the cause */
    private static function counts(Family $family): array
    {
        $group = array_column(FamilySpec::bodies($family->id, 'finding'), 'group', 'code');
        $rows = DB::table('findings')
            ->join('units', 'units.id', '=', 'findings.unit_id')
            ->where('findings.role', 'cause')
            ->where('units.family_id', $family->id)
            ->groupBy('findings.part')
            ->selectRaw('findings.part, COUNT(DISTINCT findings.unit_id) AS n')
            ->pluck('n', 'part');
        $counts = [];
        foreach ($rows as $part => $n) {
            $element = $group[$part] ?? '';
            $counts[$element] = ($counts[$element] ?? 0) + (int) $n;
        }

        return array_intersect_key($counts, array_flip(array_column($family->train['elements'], 'id')));
    }
}
