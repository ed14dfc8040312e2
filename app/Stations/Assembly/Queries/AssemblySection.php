<?php

namespace App\Stations\Assembly\Queries;

use App\Shop\HouseRules;
use App\Shop\Models\Gauge;
use App\Shop\Queries\PeopleNames;
use App\Stations\Assembly\Models\Measurement;
use App\Stations\Assembly\Models\PackFit;
use App\Stations\Assembly\Models\PackFitPick;
use App\Stations\Assembly\Models\SignOff;
use App\Stock\Queries\InstalledNow;
use App\Work\Bench;
use App\Work\BenchTest;
use App\Work\Queries\BenchShown;
use App\Work\Queries\BenchWork;
use App\Work\ReadingKind;
use App\Yard\Contracts\Section;
use App\Yard\Gate;
use App\Yard\Gatekeeper;
use App\Yard\Models\Unit;
use App\Yard\StationName;
use Yard\Core\Fasteners\Thread;
use Yard\Core\Fasteners\Tightening;
use Yard\Core\Quantity\Quantity;
use Yard\Core\Quantity\Unit as MeasureUnit;

final class AssemblySection implements Section
{
    /** @var array<int, string> */
    private array $gauges = [];

    public function __construct(
        private readonly OpenAssembly $open,
        private readonly PeopleNames $names,
        private readonly HouseRules $rules,
        private readonly BenchShown $bench,
        private readonly AssemblyRecords $records,
        private readonly SubAssemblies $subs,
    ) {
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
        $work = BenchWork::of($unit, Bench::Assembly);
        $record = $this->records->of($work);
        $record->fits->load('picks.part');
        $gauges = $record->gauges->values();
        $this->gauges = $gauges->pluck('name', 'id')->all();
        $frozen = $build->frozen();
        $places = fn (string $kind, array $rows) => array_map(
            fn (array $r) => $this->place($kind, $r, $record),
            $rows,
        );
        $here = $unit->station === StationName::Assembly;

        return [
            'serial' => $build->serial,
            'work' => $this->bench->of($work),
            'places' => [
                ...$places('pack', $frozen['packs']),
                ...$places('end-play', $frozen['endPlays']),
                ...$places('air-check', $frozen['airChecks']),
                ...$places('bench-test', $frozen['benchTests'] ?? []),
            ],
            'fasteners' => array_map(
                fn (array $f) => $this->fastener($f, $record->readings['torque'][$f['code']] ?? []),
                $frozen['fasteners'],
            ),
            'gauges' => $gauges->map(fn (Gauge $g) => $g->shown())->all(),
            'installed' => InstalledNow::in($build->id),
            'blockers' => $here
                ? [...Gatekeeper::holds($unit, Gate::SignOff), ...$this->open->of($unit, $work)]
                : [],
            'subs' => $this->subs->of($work),
            'gaugeShare' => $this->rules->share('gauge-share'),
            'signOffs' => $this->signOffs($record),
        ];
    }

    /**
     * @param  array<string, mixed>  $row  of the frozen specification
     * @return array<string, mixed>
     */
    private function place(string $kind, array $row, AssemblyRecord $record): array
    {
        $fit = in_array($kind, ['pack', 'end-play'], true) ? $record->fits[$row['code']] ?? null : null;

        return [
            'code' => $row['code'],
            'name' => $row['name'],
            'kind' => $kind,
            'unit' => $row['unit'],
            'quantity' => MeasureUnit::of($row['unit'])->kind,
            'window' => $row['window'],
            'source' => $row['source'],
            'confidence' => $row['confidence'],
            ...self::told($row),
            'fit' => $fit === null ? null : $this->fit($fit),
            'readings' => array_map($this->reading(...), $record->readings[$kind][$row['code']] ?? []),
            ...self::reckoned($kind, $row, $record),
        ] + array_intersect_key($row, self::OPTIONAL) + self::OPTIONAL;
    }

    /**
     * @param  array<string, mixed>  $row
     * @return array{press: array<string, mixed>|null, passes: float|null}
     */
    private static function reckoned(string $kind, array $row, AssemblyRecord $record): array
    {
        $values = $kind === ReadingKind::BenchTest->value ? $record->latest($kind) : [];

        return [
            'press' => BenchTest::pressed($row, $values),
            'passes' => BenchTest::passes($row, $values[$row['code']] ?? null),
        ];
    }

    /**
     * How a place is measured, and what to know of it.
     *
     * @param  array<string, mixed>  $row
     * @return array<string, mixed>
     */
    private static function told(array $row): array
    {
        return [
            'how' => $row['depth']['how'] ?? $row['how'] ?? $row['regulated'] ?? '',
            'note' => $row['order'] ?? $row['note'] ?? '',
            'nominalDepth' => $row['depth']['nominal'] ?? null,
            'trialWasher' => $row['fitted'] ?? null,
        ];
    }

    /** What a place may say, and what stands there where it does not. */
    private const OPTIONAL = [
        'target' => null,
        'house' => [],
        'forOptions' => [],
        'fixed' => [],
        'tooTight' => null,
        'tooLoose' => null,
        'group' => null,
        'coil' => false,
        'derived' => null,
    ];

    /** @return array<string, mixed> */
    private function fit(PackFit $fit): array
    {
        return [
            'picks' => $fit->picks
                ->map(fn (PackFitPick $p) => [
                    'slot' => $p->slot,
                    'part' => $p->part->number,
                    'count' => $p->count,
                ])
                ->all(),
            'predicted' => (float) $fit->predicted,
            'by' => $this->names->of($fit->fitted_by),
            'at' => $fit->fitted_at->toIso8601ZuluString(),
        ];
    }

    /** @return list<array<string, mixed>> */
    private function signOffs(AssemblyRecord $record): array
    {
        return array_values($record->signOffs
            ->where('what', 'assembly')
            ->map(
                fn (SignOff $s) => [
                    'what' => $s->what,
                    'loop' => $s->loop_no,
                    'by' => $this->names->of($s->signed_by),
                    'at' => $s->signed_at->toIso8601ZuluString(),
                ],
            )
            ->all());
    }

    /** @return array<string, mixed> */
    private function reading(Measurement $m): array
    {
        return [
            'value' => (float) $m->value,
            'unit' => $m->unit,
            'typed' => $m->typed,
            'inside' => $m->inside,
            'gauge' => $this->gauges[$m->gauge_id] ?? null,
            'note' => $m->note,
            'by' => $this->names->of($m->measured_by),
            'at' => $m->measured_at->toIso8601ZuluString(),
        ];
    }

    /**
     * @param  array<string, mixed>  $f
     * @param  list<Measurement>  $readings
     * @return array<string, mixed>
     */
    private function fastener(array $f, array $readings): array
    {
        // The standards give proof stresses of steel bolts only: what another metal takes is the maker's word.
        $bolt = ($f['metal'] ?? 'steel') !== 'steel' ? null : Tightening::of(
            Thread::of($f['thread']),
            $f['grade'],
            $this->rules->number('nut-factor'),
            $this->rules->share('preload-share'),
        );

        return array_intersect_key(
            $f,
            array_flip([
                'code',
                'name',
                'thread',
                'grade',
                'count',
                'torque',
                'into',
                'pattern',
                'note',
                'metal',
                'lengths',
                'singleUse',
                'givesFirst',
                'limitNm',
                'source',
                'confidence',
                'house',
            ]),
        ) + [
            'torqueNm' => Quantity::parse($f['torque'], 'torque')->si(),
            'boltCeilingNm' => $bolt?->torqueNm,
            'readings' => array_map($this->reading(...), $readings),
        ];
    }
}
