<?php

namespace App\Stations\Teardown\Queries;

use App\Catalog\Models\Family;
use App\Catalog\Models\Vocabulary;
use App\Yard\Contracts\DynoRecord;
use App\Yard\Contracts\ElementWeights;
use App\Yard\Models\Unit;
use Illuminate\Support\Facades\Cache;
use Yard\Core\Faults\GearDiagnosis;
use Yard\Core\Faults\StoredCode;
use Yard\Core\Faults\Symptoms;

/** What failed in a unit: what was driven and gauged, the codes that were stored, and what the parts looked like. */
final class Suspects
{
    /** How long an answer of the diagnosis is kept, in seconds; another one has another key. */
    private const KEPT_S = 86400;

    /** From harmless to what tells most. */
    private const WORSE = ['sound', 'worn', 'broken', 'burnt', 'fused'];

    public function __construct(
        private readonly ElementWeights $weights,
        private readonly DynoRecord $tests,
    ) {
    }

    /** @return array{run: int, on: string, observed: array<string, string>}|null what the rig saw it do wrong */
    public function tested(Unit $unit): ?array
    {
        return $unit->currentBuild === null ? null : $this->tests->showed($unit->currentBuild);
    }

    /**
     * @param  list<array{code: string, means: ?string, gear: ?string}>  $stored
     * @param  list<array<string, mixed>>  $inspection  parts of the list with what was found on each
     * @return list<array<string, mixed>> empty where nothing was said, gauged or found
     */
    public function of(Unit $unit, array $stored, array $inspection): array
    {
        $family = $unit->knownFamily();
        $found = self::found($family, $inspection);
        // What the rig measured of this build goes before what was told of the unit when it came.
        $observed = ($this->tested($unit)['observed'] ?? []) + $unit->symptoms;
        if ($observed === [] && $unit->pressures === [] && $found === []) {
            return [];
        }
        $codes = [];
        foreach ($stored as $code) {
            if ($code['means'] !== null) {
                $codes[] = new StoredCode($code['code'], $code['means'], $code['gear'] ?? '');
            }
        }
        $weak = $this->weights->of($family)['weights'];
        $asked = [$family->train, $weak, $observed, $unit->pressures, $codes, $found];

        // The same evidence on the same train is weighed once: forty faults of every gear are simulated for it.
        return Cache::remember(
            'suspects:'.hash('sha256', serialize($asked)),
            self::KEPT_S,
            function () use ($family, $unit, $observed, $codes, $found, $weak): array {
                $chart = $family->chart();
                $said = new Symptoms($chart, $observed, $unit->pressures, $codes, ['finding' => $found]);

                return (new GearDiagnosis($chart, $said, $weak))->ranked()['suspects'];
            },
        );
    }

    /**
     * The worst that was found on the parts of each element; sound ones speak too.
     *
     * @param  list<array<string, mixed>>  $inspection
     * @return array<string, string> element => state
     */
    private static function found(Family $family, array $inspection): array
    {
        // A shop whose pack is older has no kinds of parts: then nothing found speaks.
        $known = Vocabulary::query()->where('code', 'part-kinds')->first();
        $grades = array_column($known->body->kinds ?? [], 'grades', 'code');
        $elements = array_column($family->train['elements'], 'id');
        $found = [];
        foreach ($inspection as $part) {
            $grade = array_search($part['finding']['condition'] ?? null, $part['conditions'], true);
            $state = $grade === false ? null : $grades[$part['kind']][$grade] ?? null;
            if ($state === null || $part['finding']['ours'] || ! in_array($part['group'], $elements, true)) {
                continue;
            }
            $before = $found[$part['group']] ?? 'sound';
            $worse = array_search($state, self::WORSE, true) > array_search($before, self::WORSE, true);
            $found[$part['group']] = $worse ? $state : $before;
        }
        ksort($found);

        return $found;
    }
}
