<?php

namespace App\Stations\Identification\Queries;

use App\Catalog\Models\Family;
use App\Catalog\Models\Variant;
use App\Shop\HouseRules;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\Cache;
use Illuminate\Support\Facades\DB;
use Yard\Core\Evidence\Reliability;

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

    public function of(Family $family, VariantModel $model): LearnedClues
    {
        $weight = $this->rules->number('field-learning-weight');
        $learned = Cache::remember(
            self::key($family->id),
            self::KEEP_SECONDS,
            fn () => [
                'counts' => $this->counts($model->variants),
                'reliability' => $this->reliabilities($model, $weight),
            ],
        );

        return new LearnedClues(
            $this->rules->choice('field-learning') === 'on',
            $weight,
            $learned['counts'],
            $learned['reliability'],
        );
    }

    public static function forget(int $familyId): void
    {
        Cache::forget(self::key($familyId));
    }

    private static function key(int $familyId): string
    {
        // Tests roll back what they write; the data folder tells the instances apart.
        return "learning.$familyId.".
            DB::connection()->getDatabaseName().
            (app()->runningUnitTests() ? '.'.DB::table('identifications')->max('id') : '');
    }

    /**
     * @param  Collection<int, Variant>  $variants
     * @return array<string, int> variant => cores confirmed
     */
    private function counts(Collection $variants): array
    {
        $rows = DB::table('identifications')
            ->where('outcome', 'confirmed')
            ->whereIn('variant_id', $variants->pluck('id'))
            ->groupBy('variant_id')
            ->selectRaw('variant_id, COUNT(*) AS n')
            ->pluck('n', 'variant_id');

        return $variants->mapWithKeys(fn (Variant $v) => [$v->code => (int) ($rows[$v->id] ?? 0)])->all();
    }

    /** @return array<string, array{reliability: float, cases: int}> */
    private function reliabilities(VariantModel $model, float $weight): array
    {
        $cases = $this->cases($model->variants);
        $out = [];
        foreach ($model->features as $feature) {
            $values = $feature->body['values'] ?? [];
            if (count($values) < 2) {
                continue; // a measured clue says how sure it is by its tolerance
            }
            $seen = [];
            foreach ($cases[$feature->code] ?? [] as [$expected, $value]) {
                $share = ($expected[$value] ?? 0.0) / max(1e-9, array_sum($expected));
                $seen[] = [min(1.0, $share), count($values)];
            }
            $learned = Reliability::learn((float) $feature->body['reliability'], $weight, $seen);
            $out[$feature->code] = ['reliability' => $learned->share, 'cases' => $learned->cases];
        }

        return $out;
    }

    /**
     * @param  Collection<int, Variant>  $variants
     * @return array<string, list<array{array<string, float>, string}>> clue => what the core's own variant expects,
     *     what was seen
     */
    private function cases(Collection $variants): array
    {
        $byId = $variants->keyBy('id');
        $rows = DB::table('identifications')
            ->where('outcome', 'confirmed')
            ->whereIn('variant_id', $byId->keys())
            ->orderByDesc('id')
            ->limit((int) $this->rules->number('field-learning-cases'))
            ->get(['variant_id', 'answers', 'foreign_parts']);
        $cases = [];
        foreach ($rows as $row) {
            $foreign = array_column(json_decode($row->foreign_parts, true), 'feature');
            foreach (json_decode($row->answers, true) as $feature => $value) {
                $expected = $byId[$row->variant_id]->expect[$feature] ?? null;
                // A foreign part was seen rightly: the core was mixed, the clue did not lie.
                $counts =
                    $expected !== null &&
                    ! in_array($feature, $foreign, true) &&
                    ! in_array($value, VariantModel::NO_ANSWER, true);
                if ($counts) {
                    $cases[$feature][] = [$expected, $value];
                }
            }
        }

        return $cases;
    }
}
