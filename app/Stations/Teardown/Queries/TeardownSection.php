<?php

namespace App\Stations\Teardown\Queries;

use App\Catalog\Models\FamilySpec;
use App\Catalog\Models\Vocabulary;
use App\Catalog\Read\FamilySection;
use App\Shop\HouseRules;
use App\Shop\Models\Gauge;
use App\Shop\Queries\PeopleNames;
use App\Stations\Teardown\FindingSpec;
use App\Stations\Teardown\Models\Finding;
use App\Stations\Teardown\Models\ReferencePicture;
use App\Stations\Teardown\Models\SwapAgreement;
use App\Stock\Models\Lot;
use App\Work\Bench;
use App\Work\Generation;
use App\Work\Queries\BenchShown;
use App\Work\Queries\BenchWork;
use App\Work\Queries\CountsThatDiffer;
use App\Yard\Contracts\Section;
use App\Yard\Models\Unit;

final class TeardownSection implements Section
{
    public function __construct(
        private readonly PeopleNames $names,
        private readonly HouseRules $rules,
        private readonly CountsThatDiffer $counts,
        private readonly BenchShown $bench,
        private readonly LeakTrace $leaks,
        private readonly Rescue $rescue,
        private readonly Routes $routes,
        private readonly Suspects $suspects,
        private readonly LifeOfUnit $life,
    ) {
    }

    public function has(Unit $unit): bool
    {
        return $unit->family_id !== null;
    }

    public function of(Unit $unit): ?array
    {
        if ($unit->family === null) {
            return null;
        }
        $generation = Generation::of($unit, 'teardown');
        $house = $this->rules->shown('one-shift-fault', 'reuse');
        [$codes, $inspection] = [$this->codes($unit), $this->inspection($unit, $generation)];

        return [
            'generation' => $generation,
            'work' => $this->bench->of(BenchWork::of($unit, Bench::Teardown)),
            'discrepancies' => $this->counts->shown($unit, Bench::Teardown),
            'decisions' => CountsThatDiffer::decisions(),
            'inspection' => $inspection,
            'gauges' => array_values(Gauge::query()->orderBy('code')->get()->map(fn (Gauge $g) => $g->shown())->all()),
            'leak' => $this->leaks->of($unit),
            'rescue' => $this->rescue->of($unit),
            'swaps' => SwapAgreement::query()->where('unit_id', $unit->id)->orderBy('id')->pluck('part'),
            'reclaimed' => Lot::query()->with('part')->where('origin_unit_id', $unit->id)->orderBy('id')->get()
                ->map(fn (Lot $l) => ['part' => $l->part->number, 'name' => $l->part->name, 'lot' => $l->lot]),
            'routes' => $this->routes->all(),
            'references' => self::references(),
            'house' => ['symptoms' => $house['one-shift-fault'], 'inspection' => $house['reuse']],
            'gears' => array_column($unit->family->train['gears'], 'name'),
            'symptoms' => (object) $unit->symptoms,
            'pressures' => (object) $unit->pressures,
            'codes' => $codes,
            'life' => $this->life->of($unit, $inspection),
            'suspects' => $this->suspects->of($unit, $codes, $inspection),
            'tested' => $this->suspects->tested($unit),
            'elements' => array_column($unit->family->train['elements'], 'name', 'id'),
        ];
    }

    /** @return list<array{kind: string, condition: string, photo: int}> the shop's own pictures to grade by */
    private static function references(): array
    {
        return array_values(ReferencePicture::query()->orderBy('id')->get()->map(fn (ReferencePicture $r): array => [
            'kind' => $r->part_kind,
            'condition' => $r->condition,
            'photo' => $r->photo_id,
        ])->all());
    }

    /** @return list<array<string, mixed>> every part of the list, with what was found on it */
    private function inspection(Unit $unit, int $generation): array
    {
        $findings = Finding::query()
            ->where('unit_id', $unit->id)
            ->where('generation', $generation)
            ->with(['plates', 'gauge'])
            ->get()
            ->keyBy('part');
        $frictions = FamilySection::frictions(
            $unit->family->body ?? [],
            FamilySpec::bodies((int) $unit->family_id, 'pack'),
        );

        return array_map(
            fn (array $s) => [
                'part' => $s['code'],
                'name' => $s['name'],
                'conditions' => $s['conditions'],
                'group' => $s['group'],
                'partNumber' => $s['part'],
                'plates' => $frictions[$s['plates'] ?? ''] ?? null,
                'measure' => $s['measure'] ?? null,
                'always' => $s['always'] ?? null,
                'kind' => $s['kind'] ?? '',
                'pieces' => $s['pieces'] ?? [],
                'finding' => isset($findings[$s['code']]) ? $this->found($findings[$s['code']], $s) : null,
            ],
            FamilySpec::bodies((int) $unit->family_id, 'finding'),
        );
    }

    /**
     * @param  array<string, mixed>  $spec
     * @return array<string, mixed>
     */
    private function found(Finding $finding, array $spec): array
    {
        $plates = array_values($finding->plates->pluck('condition')->all());

        return [
            'condition' => $finding->condition,
            'plates' => $plates,
            'burn' => FindingSpec::read($spec['name'], $spec)->burnSentence($plates),
            'reading' => $finding->measured_typed,
            'inside' => $finding->measured_inside,
            'gauge' => $finding->gauge?->code,
            'disposition' => $finding->disposition,
            'pieces' => $finding->pieces,
            'route' => $finding->route,
            'role' => $finding->role,
            'ours' => $finding->ours,
            'note' => $finding->note,
            'by' => $this->names->of($finding->found_by),
            'at' => $finding->found_at->toIso8601ZuluString(),
            'version' => $finding->version,
        ];
    }

    /**
     * @return list<array{code: string, means: ?string,
     *     gear: ?string}> stored codes with what the vocabulary knows of them
     */
    private function codes(Unit $unit): array
    {
        $stored = array_values($unit->troubleCodes->pluck('code')->unique()->all());
        $known = $stored === [] ? [] : (array) Vocabulary::body('trouble-codes')->codes;
        $gears = array_column($unit->knownFamily()->train['gears'], 'name');

        return array_map(
            fn (string $code) => [
                'code' => $code,
                'means' => $known[$code]->means ?? null,
                'gear' => in_array($known[$code]->gear ?? null, $gears, true) ? $known[$code]->gear : null,
            ],
            $stored,
        );
    }
}
