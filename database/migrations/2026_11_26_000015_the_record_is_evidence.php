<?php

use Illuminate\Database\Migrations\Migration;
use Illuminate\Support\Facades\DB;

// The evidence table of the returns desk says which of its answers the record of a unit gives by itself.
return new class extends Migration
{
    private const RECORD = [
        'record' => [
            'by' => 'built-reading',
            'inside' => 'well inside',
            'near' => 'near the limit',
            'missing' => 'missing',
        ],
        'weeks' => [
            'by' => 'weeks-in-service',
            'under' => [
                ['weeks' => 8, 'answer' => 'under 8 weeks'],
                ['weeks' => 52, 'answer' => '8 to 52 weeks'],
            ],
            'else' => 'over a year',
        ],
        'depth' => [
            'by' => 'commissioning',
            'right' => 'on file and right',
            'wrong' => 'wrong',
            'missing' => 'not on file',
        ],
    ];

    public function up(): void
    {
        $owner = DB::connection('owner');
        $model = $owner->table('evidence_models')->where('code', 'return-verdict')->first();
        if ($model === null) {
            return;
        }
        $body = json_decode($model->body, true, 64, JSON_THROW_ON_ERROR);
        foreach ($body['features'] as $i => $feature) {
            $record = self::RECORD[$feature['id']] ?? null;
            // A house that has answers of its own says itself what its record means.
            if ($record !== null && array_diff(self::answers($record), $feature['values']) === []) {
                $body['features'][$i]['record'] ??= $record;
            }
        }
        $owner
            ->table('evidence_models')
            ->where('id', $model->id)
            ->update(['body' => json_encode($body, JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE)]);
    }

    /**
     * @param  array<string, mixed>  $record
     * @return list<string>
     */
    private static function answers(array $record): array
    {
        unset($record['by']);
        $answers = array_column($record['under'] ?? [], 'answer');
        unset($record['under']);

        return [...$answers, ...array_values($record)];
    }
};
