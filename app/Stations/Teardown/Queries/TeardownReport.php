<?php

namespace App\Stations\Teardown\Queries;

use App\Catalog\Models\FamilySpec;
use App\Kernel\Refusal;
use App\Shop\Queries\PeopleNames;
use App\Stations\Teardown\FindingSpec;
use App\Stations\Teardown\Models\Finding;
use App\Work\Bench;
use App\Work\Generation;
use App\Work\Models\Discrepancy;
use App\Work\Models\WorkedOperation;
use App\Work\Queries\CountsThatDiffer;
use App\Yard\Models\Photo;
use App\Yard\Models\Unit;

/** What a teardown found, on paper: the cause in plain words, the numbers, the pictures, what was repaired. */
final class TeardownReport
{
    /** Pictures on one report; it says how many it leaves out. */
    private const PICTURES = 24;

    private const SECONDS_AN_HOUR = 3600;

    public function __construct(
        private readonly PeopleNames $names,
        private readonly Rescue $rescue,
        private readonly LeakTrace $leaks,
        private readonly Routes $routes,
        private readonly VehicleConditions $vehicle,
    ) {
    }

    /** @return array<string, mixed> */
    public function of(Unit $unit): array
    {
        if ($unit->family === null) {
            throw new Refusal('Nothing is known of the inside of this unit yet.', 409);
        }
        $generation = Generation::of($unit, 'teardown');
        $findings = $this->findings($unit, $generation);
        $photos = Photo::query()->where('unit_id', $unit->id)->orderBy('id')->get();

        return [
            'unit' => $unit,
            'causes' => array_values(array_filter($findings, fn (array $f) => $f['role'] === 'cause')),
            'collateral' => array_values(array_filter($findings, fn (array $f) => $f['role'] === 'collateral')),
            'findings' => $findings,
            'counts' => $this->counts($unit),
            'repairs' => $this->rescue->of($unit)['repairs'],
            'leak' => $unit->leak === [] ? null : ($this->leaks->of($unit)['ranking'][0] ?? null),
            'vehicle' => $this->vehicle->of($unit),
            'photos' => $photos->take(self::PICTURES),
            'leftOut' => max(0, $photos->count() - self::PICTURES),
            'hours' => WorkedOperation::query()
                ->where('unit_id', $unit->id)
                ->where('generation', $generation)
                ->where('bench', Bench::Teardown->value)
                ->sum('worked_s') / self::SECONDS_AN_HOUR,
        ];
    }

    /** @return list<array<string, mixed>> in the order of the inspection list */
    private function findings(Unit $unit, int $generation): array
    {
        $found = Finding::query()
            ->where('unit_id', $unit->id)
            ->where('generation', $generation)
            ->with(['plates', 'gauge'])
            ->get()
            ->keyBy('part');
        $said = [];
        foreach (FamilySpec::bodies((int) $unit->family_id, 'finding') as $part) {
            $finding = $found[$part['code']] ?? null;
            if ($finding !== null) {
                $said[] = $this->said($part, $finding);
            }
        }

        return $said;
    }

    /**
     * @param  array<string, mixed>  $part
     * @return array<string, mixed>
     */
    private function said(array $part, Finding $f): array
    {
        $plates = array_values($f->plates->pluck('condition')->all());
        $window = $part['measure']['window'] ?? null;

        return [
            'name' => $part['name'],
            'number' => $part['part'],
            'condition' => $f->condition,
            'sound' => $f->condition === $part['conditions'][0],
            'plates' => $plates,
            'burn' => FindingSpec::read($part['name'], $part)->burnSentence($plates),
            'reading' => $f->measured_typed,
            'window' => $window === null ? null : "{$window['min']} to {$window['max']} {$part['measure']['unit']}",
            'inside' => $f->measured_inside,
            'gauge' => $f->gauge?->name,
            'disposition' => $f->disposition,
            'route' => array_column($this->routes->all(), 'name', 'code')[$f->route ?? ''] ?? null,
            'pieces' => match ($f->pieces) {
                'whole' => 'all pieces found',
                'missing' => 'pieces of it are not found',
                null => null,
            },
            'role' => $f->role,
            'ours' => $f->ours,
            'note' => $f->note,
            'by' => $this->names->of($f->found_by),
        ];
    }

    /** @return list<string> what was not as many as it should be, and what became of it */
    private function counts(Unit $unit): array
    {
        return array_values(CountsThatDiffer::at($unit, Bench::Teardown)
            ->map(fn (Discrepancy $d) => implode(' ', array_filter([
                ucfirst($d->said()).':',
                $d->decision?->says() ?? 'not decided yet.',
                $d->decision_note,
            ])))
            ->all());
    }
}
