<?php

namespace App\Stations\Assembly\Queries;

use App\Catalog\Models\Family;
use App\Catalog\Models\FamilySpec;
use App\Kernel\Refusal;
use App\Shop\HouseRules;
use App\Work\ReadingKind;
use Illuminate\Support\Facades\DB;
use Yard\Core\Spc\Capability;
use Yard\Core\Spc\ControlChart;

/** One place of a family over its last builds: limits of what it does by itself, patterns that are none, capability. */
final class ProcessChart
{
    /** Builds on a chart. */
    private const BUILDS = 60;

    /** Fewer say nothing. */
    private const LEAST = 8;

    private const KINDS = ['pack', 'end-play', 'air-check', 'bench-test'];

    public const RULES = [
        1 => 'one point beyond three sigma',
        2 => 'two of three beyond two sigma on one side',
        3 => 'four of five beyond one sigma on one side',
        4 => 'eight in a row on one side',
    ];

    public function __construct(private readonly HouseRules $rules)
    {
    }

    /** @return list<array{family: string, name: string, places: list<array<string, string>>}> */
    public function choices(): array
    {
        return array_values(Family::query()->orderBy('id')->get()->map(fn (Family $f): array => [
            'family' => $f->code,
            'name' => $f->name,
            'places' => array_merge(...array_map(
                fn (string $kind): array => array_map(
                    fn (array $p): array => ['kind' => $kind, 'code' => $p['code'], 'name' => $p['name']],
                    FamilySpec::bodies($f->id, $kind),
                ),
                self::KINDS,
            )),
        ])->all());
    }

    /** @return array<string, mixed> */
    public function of(string $family, string $kind, string $code): array
    {
        $found = Family::query()->where('code', $family)->first() ??
            throw new Refusal("There is no family $family.", 404);
        $list = in_array($kind, self::KINDS, true) ? FamilySpec::bodies($found->id, $kind) : [];
        $place = array_column($list, null, 'code')[$code] ??
            throw new Refusal("Family $family has no such place to chart.", 404);
        $rows = $this->rows($found->id, ReadingKind::from($kind), $code);
        $points = array_map(fn (\stdClass $m): array => [
            'serial' => $m->serial,
            'value' => (float) $m->value,
            'by' => (int) $m->measured_by,
            'at' => str_replace(' ', 'T', $m->measured_at).'Z',
        ], $rows);

        return [
            'family' => $family,
            'kind' => $kind,
            'code' => $code,
            'name' => $place['name'],
            'unit' => $place['unit'],
            'window' => $place['window'],
            'points' => $points,
            'rules' => self::RULES,
            'goal' => $this->rules->number('capability-goal'),
        ] + $this->limits(array_column($points, 'value'), $place['window']);
    }

    /**
     * The last reading of each build, oldest first.
     *
     * @return list<\stdClass>
     */
    private function rows(int $familyId, ReadingKind $kind, string $code): array
    {
        $rows = DB::table('measurements')
            ->join('builds', 'builds.id', '=', 'build_id')
            ->join('units', 'units.id', '=', 'builds.unit_id')
            ->where('kind', $kind->value)
            ->where('measurements.code', $code)
            ->where('family_id', $familyId)
            ->whereNull('undone_at')
            ->orderByDesc('measurements.id')
            ->limit(self::BUILDS * 2)
            ->get(['build_id', 'serial', 'value', 'measured_by', 'measured_at']);

        return array_values(array_reverse($rows->unique('build_id')->take(self::BUILDS)->all()));
    }

    /**
     * @param  list<float>  $values
     * @param  array{min?: float|int|null, max?: float|int|null}  $window
     * @return array<string, mixed>
     */
    private function limits(array $values, array $window): array
    {
        $none = ['centre' => null, 'lower' => null, 'upper' => null, 'signals' => [], 'Cp' => null, 'Cpk' => null];
        if (count($values) < self::LEAST) {
            return $none + ['why' => 'Fewer than '.self::LEAST.' builds say nothing yet.'];
        }
        $chart = ControlChart::individuals($values);
        $sigma = $chart->sigma();
        if ($sigma <= 0.0) {
            return ['centre' => $chart->centre()] + $none + ['why' => 'All readings are the same.'];
        }
        $fit = new Capability($chart->centre(), $sigma, $window['min'] ?? null, $window['max'] ?? null);

        return [
            'centre' => $chart->centre(),
            'lower' => $chart->centre() - 3.0 * $sigma,
            'upper' => $chart->centre() + 3.0 * $sigma,
            'signals' => $chart->signals(),
            'Cp' => $fit->potential(),
            'Cpk' => $fit->actual(),
            'why' => null,
        ];
    }
}
