<?php

namespace App\Shop\Queries;

use App\Shop\Models\Gauge;
use App\Shop\Models\GaugeCheck;
use App\Shop\Models\GaugeStudyRecord;

/** Every gauge with when it is due, its last check and what its last study found. */
final class GaugeRegister
{
    public function __construct(private readonly PeopleNames $names)
    {
    }

    /** @return list<array<string, mixed>> */
    public function all(): array
    {
        $newest = fn (string $table) => fn ($query) => $query->from($table)->selectRaw('MAX(id)')->groupBy('gauge_id');
        $checks = GaugeCheck::query()->whereIn('id', $newest('gauge_checks'))->get()->keyBy('gauge_id');
        $studies = GaugeStudyRecord::query()->whereIn('id', $newest('gauge_studies'))->get()->keyBy('gauge_id');

        return array_values(Gauge::query()->orderBy('code')->get()->map(fn (Gauge $g): array => $g->shown() + [
            'check' => isset($checks[$g->id]) ? $this->check($checks[$g->id]) : null,
            'study' => isset($studies[$g->id]) ? $this->study($studies[$g->id]) : null,
        ])->all());
    }

    /** @return array<string, mixed> */
    private function check(GaugeCheck $c): array
    {
        return [
            'result' => $c->result,
            'note' => $c->note,
            'by' => $this->names->of($c->checked_by),
            'at' => $c->checked_at->toIso8601ZuluString(),
        ];
    }

    /** @return array<string, mixed> */
    private function study(GaugeStudyRecord $s): array
    {
        return [
            'repeatability' => (float) $s->repeatability,
            'reproducibility' => (float) $s->reproducibility,
            'parts' => (float) $s->part_spread,
            'categories' => $s->categories,
            'people' => count($s->readings),
            'by' => $this->names->of($s->studied_by),
            'at' => $s->studied_at->toIso8601ZuluString(),
        ];
    }
}
