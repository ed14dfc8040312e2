<?php

namespace App\Bench;

use App\Catalog\Spec;
use App\Shop\Names;
use App\Track\CardSection;
use App\Track\Unit;
use Yard\Core\Calculators;

final class TeardownSection implements CardSection
{
    public function __construct(private readonly Names $names)
    {
    }

    public function key(): string
    {
        return 'teardown';
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
        $marks = StepMark::query()->where('unit_id', $unit->id)->where('generation', $generation)->where('phase', 'teardown')->get()->keyBy('step');
        $findings = Finding::query()->where('unit_id', $unit->id)->where('generation', $generation)->get()->keyBy('part');

        return [
            'generation' => $generation,
            'steps' => self::steps(MarkStep::steps($unit, 'teardown'), $marks, $this->names),
            'inspection' => Spec::query()->where('family_id', $unit->family_id)->where('kind', 'finding')->orderBy('position')->get()->map(fn (Spec $s) => [
                'part' => $s->code, 'name' => $s->name, 'conditions' => $s->body['conditions'], 'group' => $s->body['group'], 'partNumber' => $s->body['part'],
                'finding' => isset($findings[$s->code]) ? ['condition' => $findings[$s->code]->condition, 'disposition' => $findings[$s->code]->disposition, 'role' => $findings[$s->code]->role, 'ours' => $findings[$s->code]->ours, 'note' => $findings[$s->code]->note, 'by' => $this->names->of($findings[$s->code]->found_by), 'at' => $findings[$s->code]->found_at->toIso8601ZuluString(), 'version' => $findings[$s->code]->version] : null,
            ])->all(),
            'gears' => array_column($unit->family->train['gears'], 'name'),
            'symptoms' => (object) $unit->symptoms,
            'suspects' => $unit->symptoms === [] ? [] : $this->suspects($unit),
            'elements' => array_column($unit->family->train['elements'], 'name', 'id'),
        ];
    }

    /** @return list<array<string, mixed>> */
    private function suspects(Unit $unit): array
    {
        return Calculators::call('diagnose.gears', ['observed' => (object) $unit->symptoms, 'weak' => (object) ($unit->family->body['weak'] ?? [])] + $unit->family->train)['suspects'];
    }

    /**
     * @param  array<string, array<string, mixed>>  $steps
     * @param  \Illuminate\Support\Collection<string, StepMark>  $marks
     * @return list<array<string, mixed>>
     */
    public static function steps(array $steps, $marks, Names $names): array
    {
        return array_values(array_map(function (array $step) use ($marks, $names): array {
            $mark = $marks[$step['code']] ?? null;
            $waiting = array_values(array_filter($step['needs'], fn (string $n) => ! isset($marks[$n])));
            $step['counts'] = (object) ($step['counts'] ?? []);

            return $step + ['state' => $mark !== null ? 'done' : ($waiting === [] ? 'open' : 'waits'), 'waitsFor' => $waiting, 'counted' => (object) ($mark->counts ?? []), 'note' => $mark->note ?? '', 'by' => $names->of($mark?->done_by), 'at' => $mark?->done_at->toIso8601ZuluString()];
        }, $steps));
    }
}
