<?php

namespace App\Stations\Identification\Queries;

use App\Catalog\Models\Family;
use App\Catalog\Models\FamilySpec;
use App\Catalog\Models\Variant;
use App\Shop\HouseRules;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\Cache;
use Illuminate\Support\Facades\DB;
use Yard\Core\Calculators;

/**
 * What confirmed cores teach: how often each variant comes in (counts beside the catalog's own prior), and how often a
 * clue tells the truth (evidence.reliability). A house rule switches it; the numbers are shown beside the ranking.
 */
final class FieldLearning
{
    private const KEEP_SECONDS = 3600;

    public function __construct(private readonly HouseRules $rules)
    {
    }

    /**
     * @param  Collection<int, FamilySpec>  $features
     * @param  Collection<int, Variant>  $variants
     * @return array{on: bool, weight: float, counts: array<string, int>, reliability: array<string,
     *     array{reliability: float, cases: int}>}
     */
    public function of(Family $family, Collection $features, Collection $variants): array
    {
        $on = $this->rules->choice('field-learning') === 'on';
        $weight = $this->rules->number('field-learning-weight');
        $learned = Cache::remember(
            self::key($family->id),
            self::KEEP_SECONDS,
            fn () => $this->learn($features, $variants, $weight),
        );

        return ['on' => $on, 'weight' => $weight] + $learned;
    }

    public static function forget(int $familyId): void
    {
        Cache::forget(self::key($familyId));
    }

    /** The prior of a variant: the catalog's share worth so many cores, plus the cores of the house. */
    public static function prior(float $packShare, int $count, float $weight): float
    {
        return $weight * $packShare + $count;
    }

    private static function key(int $familyId): string
    {
        // Tests roll back what they write; the data folder tells the instances apart.
        return "learning.$familyId.".
            DB::connection()->getDatabaseName().
            (app()->runningUnitTests() ? '.'.DB::table('identifications')->max('id') : '');
    }

    /**
     * @param  Collection<int, FamilySpec>  $features
     * @param  Collection<int, Variant>  $variants
     * @return array{counts: array<string, int>, reliability: array<string, array{reliability: float, cases: int}>}
     */
    private function learn(Collection $features, Collection $variants, float $weight): array
    {
        $byId = $variants->keyBy('id');
        $counts = array_fill_keys($variants->pluck('code')->all(), 0);
        foreach (
            DB::table('identifications')
                ->where('outcome', 'confirmed')
                ->whereIn('variant_id', $byId->keys())
                ->groupBy('variant_id')
                ->selectRaw('variant_id, COUNT(*) AS n')
                ->get() as $row
        ) {
            $counts[(string) $byId[$row->variant_id]?->code] = (int) $row->n;
        }
        $cases = [];
        foreach (
            DB::table('identifications')
                ->where('outcome', 'confirmed')
                ->whereIn('variant_id', $byId->keys())
                ->orderByDesc('id')
                ->limit((int) $this->rules->number('field-learning-cases'))
                ->get(['variant_id', 'answers', 'foreign_parts']) as $row
        ) {
            $foreign = array_column(json_decode($row->foreign_parts, true), 'feature');
            foreach (json_decode($row->answers, true) as $feature => $value) {
                // A foreign part was seen rightly: the core was mixed, the clue did not lie.
                if (! in_array($feature, $foreign, true) && ! in_array($value, VariantRanking::NO_ANSWER, true)) {
                    $cases[$feature][] = [$byId[$row->variant_id]->expect[$feature] ?? null, $value];
                }
            }
        }
        $reliability = [];
        foreach ($features as $feature) {
            $values = $feature->body['values'] ?? [];
            if (count($values) < 2) {
                continue; // a measured clue says how sure it is by its tolerance
            }
            $seen = [];
            foreach ($cases[$feature->code] ?? [] as [$expected, $value]) {
                if ($expected !== null) {
                    $seen[] = [
                        'expected' => min(1.0, ($expected[$value] ?? 0.0) / max(1e-9, array_sum($expected))),
                        'values' => count($values),
                    ];
                }
            }
            $out = Calculators::call('evidence.reliability', [
                'prior' => ['reliability' => (float) $feature->body['reliability'], 'weight' => $weight],
                'cases' => $seen,
            ]);
            $reliability[$feature->code] = ['reliability' => $out['reliability'], 'cases' => $out['cases']];
        }

        return ['counts' => $counts, 'reliability' => $reliability];
    }
}
