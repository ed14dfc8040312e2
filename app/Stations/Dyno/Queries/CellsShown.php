<?php

namespace App\Stations\Dyno\Queries;

use App\Shop\HouseRules;
use App\Shop\Queries\PeopleNames;
use App\Stations\Dyno\Actions\StartRun;
use App\Stations\Dyno\Cells;
use App\Stations\Dyno\Models\ReferenceUnit;
use App\Stations\Dyno\Models\Run;
use App\Stations\Dyno\RigWatch;
use App\Yard\StationName;
use Yard\Core\Dyno\RigDrift;

/** The test cells: what runs in each, the unit it is told by, what its reference runs say, what hangs on it. */
final class CellsShown
{
    public function __construct(
        private readonly PeopleNames $names,
        private readonly SinceGood $since,
        private readonly HouseRules $rules,
    ) {
    }

    /** @return array<string, mixed> */
    public function all(): array
    {
        return [
            'baseline' => RigDrift::BASELINE,
            'cells' => array_map($this->cell(...), array_keys(Cells::all())),
        ];
    }

    /**
     * What starting a run needs.
     *
     * @return list<array{cell: string, rig: string, busy: string|null, drifted: bool, due: bool}>
     */
    public function brief(): array
    {
        $cells = array_keys(Cells::all());
        $busy = Run::query()->whereIn('cell', $cells)->whereIn('state', StartRun::OPEN)->pluck('specimen', 'cell');

        return array_map(fn (string $cell): array => [
            'cell' => $cell,
            'rig' => RigWatch::told($cell)->value,
            'busy' => $busy[$cell] ?? null,
            'drifted' => Run::references($cell)->latest('id')->value('verdict') === 'fail',
            'due' => $this->due($cell),
        ], $cells);
    }

    /** @return array<string, mixed> */
    private function cell(string $cell): array
    {
        $unit = ReferenceUnit::of($cell);
        $open = Run::query()->where('cell', $cell)->whereIn('state', StartRun::OPEN)->orderBy('id')->get([
            'id', 'specimen', 'state', 'purpose', 'progress',
        ]);
        $last = Run::query()
            ->where('cell', $cell)
            ->where('purpose', 'reference')
            ->whereNotIn('state', StartRun::OPEN)
            ->latest('id')
            ->first();

        return [
            'cell' => $cell,
            'rig' => RigWatch::told($cell)->value,
            'open' => $open->map(fn (Run $r): array => [
                'run' => $r->id,
                'specimen' => $r->specimen,
                'state' => $r->state,
                'purpose' => $r->purpose,
                'progress' => (float) $r->progress,
            ])->all(),
            'reference' => $unit === null ? null : [
                'serial' => (string) $unit->build->serial,
                'coreTag' => $unit->build->unit->core_tag,
                'by' => $this->names->of($unit->kept_by),
                'at' => $unit->kept_at->toIso8601ZuluString(),
            ],
            'last' => $last === null ? null : $this->last($last),
            'due' => $this->due($cell),
            'charts' => $unit === null ? [] : self::charts($unit),
            'since' => $this->sinceGood($cell),
        ];
    }

    /** @return array<string, mixed> */
    private function last(Run $run): array
    {
        return [
            'run' => $run->id,
            'at' => ($run->ended_at ?? $run->queued_at)->toIso8601ZuluString(),
            'by' => $this->names->of($run->started_by),
            'state' => $run->analysis['cell']['state'] ?? $run->state,
            'moved' => $run->analysis['cell']['moved'] ?? [],
            'error' => $run->error,
        ];
    }

    /** No good reference run within the time the house gives it. */
    public function due(string $cell): bool
    {
        return $this->rules->choice('reference-run') !== 'none' && ! Run::references($cell)
            ->where('verdict', 'pass')
            ->where('ended_at', '>=', now()->subHours((int) $this->rules->number('reference-hours')))
            ->exists();
    }

    /** @return list<array<string, mixed>> */
    private static function charts(ReferenceUnit $unit): array
    {
        $runs = ReferenceRuns::of($unit);

        return array_map(
            fn (array $c): array => $c + ['runs' => $runs],
            RigDrift::of(ReferenceRuns::readings($runs))->charts,
        );
    }

    /** @return list<array<string, mixed>> what hangs on a cell that drifted: let pass since it was last right */
    private function sinceGood(string $cell): array
    {
        $drifted = Run::references($cell)->latest('id')->first();
        if ($drifted?->verdict !== 'fail') {
            return [];
        }

        return array_values($this->since->passed($cell, $drifted->id)->map(fn (Run $r): array => [
            'run' => $r->id,
            'serial' => (string) $r->build->serial,
            'coreTag' => $r->build->unit->core_tag,
            'verdict' => (string) $r->verdict,
            'at' => ($r->verdict_at ?? $r->queued_at)->toIso8601ZuluString(),
            'inHouse' => in_array($r->build->unit->station, StationName::inHouse(), true),
        ])->all());
    }
}
