<?php

namespace App\Bench;

use App\Shop\Gauge;
use App\Shop\Names;
use App\Stock\InstalledPart;
use App\Track\CardSection;
use App\Track\Unit;
use Yard\Core\Calculators;

final class AssemblySection implements CardSection
{
    /** @var array<int, string> */
    private array $gauges = [];

    public function __construct(private readonly SignOffBuild $signOff, private readonly Names $names)
    {
    }

    public function key(): string
    {
        return 'assembly';
    }

    public function has(Unit $unit): bool
    {
        return $unit->currentBuild?->serial !== null;
    }

    public function of(Unit $unit): ?array
    {
        $build = $unit->currentBuild;
        if ($build === null || $build->spec === null) {
            return null;
        }
        $record = BenchRecord::of($build);
        [$marks, $measurements, $fits, $gauges] = [$record->marks, $record->measurements, $record->fits, $record->gauges->values()];
        $this->gauges = $gauges->pluck('name', 'id')->all();
        $place = fn (string $kind, array $row) => [
            'code' => $row['code'], 'name' => $row['name'], 'kind' => $kind, 'unit' => $row['unit'], 'window' => $row['window'], 'target' => $row['target'] ?? null, 'source' => $row['source'], 'confidence' => $row['confidence'], 'how' => $row['depth']['how'] ?? $row['how'] ?? $row['regulated'] ?? '', 'note' => $row['order'] ?? $row['note'] ?? '',
            'nominalDepth' => $row['depth']['nominal'] ?? null, 'house' => $row['house'] ?? [], 'trialWasher' => $row['fitted'] ?? null, 'fixed' => $row['fixed'] ?? [], 'tooTight' => $row['tooTight'] ?? null, 'tooLoose' => $row['tooLoose'] ?? null,
            'fit' => isset($fits[$row['code']]) && $kind !== 'air-check' ? ['picks' => $fits[$row['code']]->picks, 'predicted' => (float) $fits[$row['code']]->predicted, 'by' => $this->names->of($fits[$row['code']]->fitted_by), 'at' => $fits[$row['code']]->fitted_at->toIso8601ZuluString()] : null,
            'readings' => $measurements->where('kind', $kind)->where('code', $row['code'])->values()->map(fn (Measurement $m) => $this->reading($m))->all(),
        ];

        return [
            'serial' => $build->serial, 'steps' => TeardownSection::steps(array_column($build->spec['assembly'], null, 'code'), $marks, $this->names),
            'places' => [...array_map(fn ($r) => $place('pack', $r), $build->spec['packs']), ...array_map(fn ($r) => $place('end-play', $r), $build->spec['endPlays']), ...array_map(fn ($r) => $place('air-check', $r), $build->spec['airChecks'])],
            'fasteners' => array_map(fn (array $f) => $this->fastener($f, $measurements), $build->spec['fasteners']),
            'gauges' => $gauges->map(fn (Gauge $g) => ['code' => $g->code, 'name' => $g->name, 'kind' => $g->kind, 'unit' => $g->unit, 'min' => (float) $g->range_min, 'max' => (float) $g->range_max, 'calibratedUntil' => $g->calibrated_until, 'overdue' => $g->calibrated_until < now()->format('Y-m-d')])->all(),
            'installed' => InstalledPart::inBuild($build->id),
            'blockers' => $unit->station === 'bench' ? $this->signOff->reasonsAgainst($build, $record) : [],
            'signOffs' => SignOff::query()->where('build_id', $build->id)->orderBy('id')->get()->map(fn (SignOff $s) => ['what' => $s->what, 'loop' => $s->loop_no, 'by' => $this->names->of($s->signed_by), 'at' => $s->signed_at->toIso8601ZuluString()])->all(),
        ];
    }

    /** @return array<string, mixed> */
    private function reading(Measurement $m): array
    {
        return ['value' => (float) $m->value, 'unit' => $m->unit, 'typed' => $m->typed, 'inside' => $m->inside, 'gauge' => $this->gauges[$m->gauge_id] ?? null, 'note' => $m->note, 'by' => $this->names->of($m->measured_by), 'at' => $m->measured_at->toIso8601ZuluString()];
    }

    /**
     * @param  array<string, mixed>  $f
     * @param  \Illuminate\Support\Collection<int, Measurement>  $measurements
     * @return array<string, mixed>
     */
    private function fastener(array $f, $measurements): array
    {
        $parsed = Calculators::call('units.parse', ['text' => $f['torque'], 'kind' => 'torque']);
        $ceiling = Calculators::call('fastener.torque', ['thread' => $f['thread'], 'grade' => $f['grade'], 'k' => 0.2, 'preloadFraction' => 0.75]);

        return array_intersect_key($f, array_flip(['code', 'name', 'thread', 'grade', 'count', 'torque', 'into', 'pattern', 'note', 'source', 'confidence', 'house'])) + ['torqueNm' => $parsed['si'], 'boltCeilingNm' => $ceiling['torque_nm'], 'readings' => $measurements->where('kind', 'torque')->where('code', $f['code'])->values()->map(fn (Measurement $m) => $this->reading($m))->all()];
    }
}
