<?php

namespace App\Stations\Returns\Queries;

use App\Catalog\Models\EvidenceModel;
use Yard\Core\BadInput;
use Yard\Core\Calculators;

/** What brought a unit back: the house's evidence table through evidence.rank. */
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
     * @return array{ranking: list<array<string, mixed>>, next: list<array<string, mixed>>, impossible: ?string}
     */
    public function of(array $observed): array
    {
        $model = $this->model();
        $input = fn (array $seen) => [
            'hypotheses' => array_map(
                fn (array $h) => ['id' => $h['id'], 'prior' => $h['prior'], 'expect' => (object) $h['expect']],
                array_values($model['hypotheses']),
            ),
            'features' => array_map(fn (array $f) => array_diff_key($f, ['name' => 0]), $model['features']),
            'observed' => (object) $seen,
        ];
        try {
            $result = Calculators::call('evidence.rank', $input($observed));
            $impossible = null;
        } catch (BadInput $e) {
            $result = Calculators::call('evidence.rank', $input([]));
            $impossible = $e->getMessage();
        }

        return [
            'ranking' => array_values(array_map(
                fn (array $r) => [
                    'verdict' => $r['id'],
                    'name' => $model['hypotheses'][$r['id']]['name'],
                    'pays' => $model['hypotheses'][$r['id']]['pays'],
                    'posterior' => $r['posterior'],
                    'supports' => $r['supports'],
                    'contradicts' => $r['contradicts'],
                ],
                $result['ranking'],
            )),
            'next' => $result['next'],
            'impossible' => $impossible,
        ];
    }
}
