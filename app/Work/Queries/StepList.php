<?php

namespace App\Work\Queries;

use App\Catalog\Models\FamilySpec;
use App\Shop\Queries\PeopleNames;
use App\Work\Generation;
use App\Work\Models\StepMark;
use App\Yard\Models\Unit;
use Illuminate\Support\Collection;

/** The guided steps of one phase of a unit's work: what is done, what may be done now, what waits for what. */
final readonly class StepList
{
    /**
     * @param  array<string, array<string, mixed>>  $steps  by code
     * @param  Collection<string, StepMark>  $marks  by step
     */
    public function __construct(public array $steps, public Collection $marks)
    {
    }

    public static function of(Unit $unit, string $phase): self
    {
        $marks = StepMark::query()
            ->where('unit_id', $unit->id)
            ->where('generation', Generation::of($unit, $phase))
            ->where('phase', $phase)
            ->get()
            ->keyBy('step');

        return new self(self::steps($unit, $phase), $marks);
    }

    /** @return array<string, array<string, mixed>> the steps by code; assembly uses the frozen ones */
    public static function steps(Unit $unit, string $phase): array
    {
        if ($phase === 'assembly') {
            return array_column($unit->currentBuild?->spec['assembly'] ?? [], null, 'code');
        }

        return FamilySpec::query()
            ->where('family_id', $unit->family_id)
            ->where('kind', 'teardown-step')
            ->orderBy('position')
            ->get()
            ->mapWithKeys(fn (FamilySpec $s) => [$s->code => ['code' => $s->code, 'name' => $s->name] + $s->body])
            ->all();
    }

    /** @return list<array<string, mixed>> steps not done yet */
    public function open(): array
    {
        return array_values(array_filter($this->steps, fn (array $step) => ! isset($this->marks[$step['code']])));
    }

    /** @return list<array<string, mixed>> as the route card shows them */
    public function shown(PeopleNames $names): array
    {
        return array_values(array_map(fn (array $step) => $this->step($step, $names), $this->steps));
    }

    /**
     * @param  array<string, mixed>  $step
     * @return array<string, mixed>
     */
    private function step(array $step, PeopleNames $names): array
    {
        $mark = $this->marks[$step['code']] ?? null;
        $waiting = array_values(array_filter($step['needs'], fn (string $n) => ! isset($this->marks[$n])));
        $step['counts'] = (object) ($step['counts'] ?? []);

        return $step + [
            'state' => $mark !== null ? 'done' : ($waiting === [] ? 'open' : 'waits'),
            'waitsFor' => $waiting,
            'counted' => (object) ($mark->counts ?? []),
            'note' => $mark->note ?? '',
            'by' => $names->of($mark?->done_by),
            'at' => $mark?->done_at->toIso8601ZuluString(),
        ];
    }
}
