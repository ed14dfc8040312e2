<?php

namespace App\Stations\Returns\Queries;

use App\Catalog\Models\EvidenceModel;
use Yard\Core\BadInput;
use Yard\Core\Evidence\EvidenceModel as Evidence;
use Yard\Core\Evidence\Feature;
use Yard\Core\Evidence\Hypothesis;
use Yard\Core\Evidence\NextLook;
use Yard\Core\Evidence\RankedHypothesis;
use Yard\Core\Input;

/** What brought a unit back: the house's evidence table. */
final class VerdictRanking
{
    /**
     * @return array{features: list<array<string, mixed>>, hypotheses: array<string, array<string, mixed>>,
     *     source: string}
     */
    public function model(): array
    {
        $model = EvidenceModel::query()->where('code', 'return-verdict')->firstOrFail();

        return [
            'features' => $model->body['features'],
            'hypotheses' => array_column($model->body['hypotheses'], null, 'id'),
            'source' => $model->source,
        ];
    }

    /**
     * @param  array<string, string>  $observed
     * @return array{ranking: list<array<string, mixed>>, next: list<NextLook>, impossible: ?string}
     */
    public function of(array $observed): array
    {
        $model = $this->model();
        $evidence = self::evidence($model['features'], $model['hypotheses']);
        try {
            $ranking = $evidence->given($observed);
            $impossible = null;
        } catch (BadInput $e) {
            $ranking = $evidence->given([]);
            $impossible = $e->getMessage();
        }

        return [
            'ranking' => array_map(
                fn (RankedHypothesis $h) => [
                    'verdict' => $h->id,
                    'name' => $model['hypotheses'][$h->id]['name'],
                    'pays' => $model['hypotheses'][$h->id]['pays'],
                    'posterior' => $h->posterior,
                    'supports' => $h->supports,
                    'contradicts' => $h->contradicts,
                ],
                $ranking->hypotheses,
            ),
            'next' => $ranking->next,
            'impossible' => $impossible,
        ];
    }

    /**
     * @param  list<array<string, mixed>>  $features
     * @param  array<string, array<string, mixed>>  $hypotheses
     */
    private static function evidence(array $features, array $hypotheses): Evidence
    {
        $explain = array_map(
            fn (array $h) => new Hypothesis(
                $h['id'],
                (float) $h['prior'],
                array_map(fn (array $expect) => array_map(floatval(...), $expect), $h['expect']),
            ),
            array_values($hypotheses),
        );
        assert($explain !== []);

        return new Evidence(array_map(fn (array $f) => Feature::read(Input::of($f)), $features), $explain);
    }
}
