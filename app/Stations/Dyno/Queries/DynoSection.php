<?php

namespace App\Stations\Dyno\Queries;

use App\Shop\Queries\PeopleNames;
use App\Stations\Dyno\Actions\StartRun;
use App\Stations\Dyno\HouseLimits;
use App\Stations\Dyno\LiveToken;
use App\Stations\Dyno\Models\Run;
use App\Stations\Dyno\Models\RunCheck;
use App\Yard\Contracts\DynoRecord;
use App\Yard\Contracts\Section;
use App\Yard\Models\Unit;
use App\Yard\StationName;

final class DynoSection implements Section
{
    /** Without the analysis, which is large and is fetched with one run. */
    private const RUN = [
        'id',
        'build_id',
        'loop_no',
        'state',
        'progress',
        'specimen',
        'cell',
        'purpose',
        'error',
        'started_by',
        'queued_at',
        'ended_at',
        'verdict',
        'verdict_reason',
        'suspect',
        'verdict_by',
        'verdict_at',
    ];

    public function __construct(
        private readonly DynoRecord $verdicts,
        private readonly PeopleNames $names,
        private readonly WithoutCell $road,
        private readonly CellsShown $cells,
        private readonly HouseLimits $house,
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

        return [
            'cells' => $this->cells->brief(),
            'loop' => $this->verdicts->loop($build),
            'due' => in_array(StationName::Dyno, $unit->jobType->stations(), true),
            'program' => $this->program($build->frozen()),
            'elements' => array_map(
                fn (array $e) => ['id' => $e['id'], 'name' => $e['name'] ?? $e['id']],
                $build->frozen()['train']['elements'],
            ),
            'withoutCell' => $this->road->of($build),
            'runs' => Run::query()
                ->whereIn('purpose', ['unit', 'foreign'])
                ->with('checks')
                ->where('build_id', $build->id)
                ->orderByDesc('id')
                ->get(self::RUN)
                ->map(fn (Run $r) => $this->run($r))
                ->all(),
        ];
    }

    /**
     * @param  array<string, mixed>  $frozen  the specification of the build
     * @return array<string, mixed>|null
     */
    private function program(array $frozen): ?array
    {
        $program = $frozen['testProgram'];

        return $program === null ? null : [
            'fluid' => $frozen['fluid'] ?? null,
            'seconds' => $program['end'],
            'steps' => $program['steps'],
            'limits' => $this->house->with($program['limits'])['limits'],
            'source' => $program['source'],
            // Good units built alike, or the family: then only what does not hang on hardware has a window.
            'windows' => [
                'of' => $program['referenceOf'] ?? 'family',
                'count' => count($program['reference'] ?? []),
            ],
        ];
    }

    /** @return array<string, mixed> */
    public function run(Run $r): array
    {
        return [
            'id' => $r->id,
            'loop' => $r->loop_no,
            'state' => $r->state,
            'progress' => (float) $r->progress,
            'specimen' => $r->specimen,
            'cell' => $r->cell,
            'purpose' => $r->purpose,
            'error' => $r->error,
            'startedBy' => $this->names->of($r->started_by),
            'queuedAt' => $r->queued_at->toIso8601ZuluString(),
            'endedAt' => $r->ended_at?->toIso8601ZuluString(),
            'checks' => $r->checks->map(fn (RunCheck $c) => $c->shown())->all(),
            'verdict' => $r->verdict,
            'reason' => $r->verdict_reason,
            'suspect' => $r->suspect,
            'verdictBy' => $this->names->of($r->verdict_by),
            'verdictAt' => $r->verdict_at?->toIso8601ZuluString(),
            'liveUrl' => $r->purpose !== 'foreign' && in_array($r->state, StartRun::OPEN, true)
                ? LiveToken::url($r)
                : null,
        ];
    }
}
