<?php

namespace App\Stations\Returns\Queries;

use App\Shop\Queries\PeopleNames;
use App\Stations\Returns\Models\UnitReturn;
use App\Work\Bench;
use App\Work\Queries\BenchShown;
use App\Work\Queries\BenchWork;
use App\Yard\Contracts\BuiltNumbers;
use App\Yard\Contracts\Section;
use App\Yard\Models\Unit;
use App\Yard\StationName;

final class ReturnsSection implements Section
{
    public function __construct(
        private readonly VerdictRanking $rank,
        private readonly RecordEvidence $evidence,
        private readonly BuiltNumbers $numbers,
        private readonly PeopleNames $names,
        private readonly BenchShown $bench,
    ) {
    }

    public function has(Unit $unit): bool
    {
        return $unit->station === StationName::Returns ||
            $unit->currentBuild?->state === 'returned' ||
            ($unit->currentBuild !== null && $unit->currentBuild->generation > 1);
    }

    public function of(Unit $unit): ?array
    {
        $returns = UnitReturn::query()->with('build')->where('unit_id', $unit->id)->orderByDesc('id')->get();
        if ($returns->isEmpty()) {
            return null;
        }
        $model = $this->rank->model();

        return [
            'questions' => array_map(
                fn (array $f) => ['feature' => $f['id'], 'name' => $f['name'], 'values' => $f['values']],
                $model['features'],
            ),
            'verdicts' => array_map(
                fn (array $h) => ['id' => $h['id'], 'name' => $h['name'], 'pays' => $h['pays']],
                array_values($model['hypotheses']),
            ),
            'source' => $model['source'],
            'work' => $this->bench->of(BenchWork::of($unit, Bench::Returns)),
            'cases' => $returns->map(fn (UnitReturn $r) => $this->case($r))->all(),
        ];
    }

    private static function days(?string $from, string $to): ?int
    {
        return $from === null ? null : (int) round((strtotime($to) - strtotime($from)) / 86400);
    }

    /** @return list<array<string, mixed>> what was measured as built, each with what it measures now */
    private function thenAndNow(UnitReturn $r): array
    {
        $now = [];
        foreach ($r->readings as $reading) {
            $now["$reading->kind:$reading->place"] = [
                'value' => (float) $reading->value,
                'unit' => $reading->unit,
                'typed' => $reading->typed,
            ];
        }

        return array_map(
            fn (array $n) => $n + ['now' => $now["{$n['kind']}:{$n['code']}"] ?? null],
            array_values(array_filter($this->numbers->of($r->build), fn (array $n) => $n['kind'] !== 'torque')),
        );
    }

    /** @return array<string, mixed> */
    private function case(UnitReturn $r): array
    {
        $ranked =
            $r->verdict === null
                ? $this->rank->of($this->evidence->all($r))
                : ['ranking' => $r->ranking, 'next' => [], 'impossible' => null];

        return [
            'number' => $r->number,
            'serial' => $r->build->serial,
            'complaint' => $r->complaint,
            'codes' => $r->troubleCodes->pluck('code')->all(),
            'installedOn' => $r->installed_on,
            'failedOn' => $r->failed_on,
            'odometerKm' => $r->odometer_km,
            'daysInService' => self::days($r->installed_on, $r->failed_on),
            'openedBy' => $this->names->of($r->opened_by),
            'openedAt' => $r->opened_at->toIso8601ZuluString(),
            'observed' => (object) $r->observed(),
            'known' => (object) $this->evidence->known($r),
            'ranking' => $ranked['ranking'],
            'next' => array_column($ranked['next'], 'gainPerEffort', 'feature') ?: (object) [],
            'impossible' => $ranked['impossible'],
            'thenAndNow' => $this->thenAndNow($r),
            'verdict' => $r->verdict,
            'note' => $r->verdict_note,
            'split' => $r->cost_split,
            'verdictBy' => $this->names->of($r->verdict_by),
            'verdictAt' => $r->verdict_at?->toIso8601ZuluString(),
            'secondBuildOpened' => $r->second_build_id !== null,
            'version' => $r->version,
        ];
    }
}
