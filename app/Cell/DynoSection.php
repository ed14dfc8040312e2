<?php

namespace App\Cell;

use App\Track\CardSection;
use App\Track\Unit;

final class DynoSection implements CardSection
{
    public function __construct(private readonly LastVerdict $verdicts)
    {
    }

    public function key(): string
    {
        return 'dyno';
    }

    public function of(Unit $unit): ?array
    {
        $build = $unit->currentBuild;
        if ($build === null || $build->spec === null) {
            return null;
        }

        return [
            'loop' => $this->verdicts->loop($build), 'due' => in_array('cell', $unit->jobType->route, true), 'program' => $build->spec['testProgram'] === null ? null : ['seconds' => $build->spec['testProgram']['end'], 'steps' => $build->spec['testProgram']['steps'], 'limits' => $build->spec['testProgram']['limits'], 'source' => $build->spec['testProgram']['source']],
            'elements' => array_map(fn (array $e) => ['id' => $e['id'], 'name' => $e['name'] ?? $e['id']], $build->spec['train']['elements']),
            'runs' => Run::query()->with(['starter:id,name', 'judge:id,name'])->where('build_id', $build->id)->orderByDesc('id')->get()->map(fn (Run $r) => self::run($r))->all(),
        ];
    }

    /** @return array<string, mixed> */
    public static function run(Run $r): array
    {
        return [
            'id' => $r->id, 'loop' => $r->loop_no, 'state' => $r->state, 'progress' => (float) $r->progress, 'specimen' => $r->specimen, 'error' => $r->error, 'startedBy' => $r->starter->name, 'queuedAt' => $r->queued_at->toIso8601ZuluString(), 'endedAt' => $r->ended_at?->toIso8601ZuluString(),
            'checks' => $r->checks ?? [], 'verdict' => $r->verdict, 'reason' => $r->verdict_reason, 'suspect' => $r->suspect, 'verdictBy' => $r->judge?->name, 'verdictAt' => $r->verdict_at?->toIso8601ZuluString(), 'liveUrl' => in_array($r->state, StartRun::OPEN, true) ? LiveToken::url($r) : null,
        ];
    }
}
