<?php

namespace App\Stations\Returns\Queries;

use App\Catalog\Models\EvidenceModel;
use App\Catalog\Read\EvidenceTable;
use Yard\Core\Evidence\NextLook;

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
        $ranked = $this->table()->ranked($observed, ['pays']);
        $ranked['ranking'] = array_map(
            fn (array $h) => ['verdict' => $h['id']] + array_diff_key($h, ['id' => 0]),
            $ranked['ranking'],
        );

        return $ranked;
    }

    private function table(): EvidenceTable
    {
        return EvidenceTable::read(EvidenceModel::query()->where('code', 'return-verdict')->firstOrFail()->body);
    }
}
