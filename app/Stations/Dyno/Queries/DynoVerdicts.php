<?php

namespace App\Stations\Dyno\Queries;

use App\Stations\Dyno\Models\RoadTest;
use App\Stations\Dyno\Models\Run;
use App\Stations\Dyno\Models\RunCheck;
use App\Yard\Contracts\Blocker;
use App\Yard\Contracts\Decision;
use App\Yard\Contracts\DynoRecord;
use App\Yard\Gate;
use App\Yard\Models\Build;
use App\Yard\Models\Unit;
use App\Yard\StationName;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Query\Builder as Query;
use Illuminate\Support\Carbon;

/** What the runs of a build say to the bench before and to dispatch behind. */
final class DynoVerdicts implements DynoRecord
{
    public function __construct(private readonly WithoutCell $road)
    {
    }

    public function loop(Build $build): int
    {
        return 1 + Run::ofUnits()->where('build_id', $build->id)->where('verdict', 'fail')->count();
    }

    public function failedElement(Build $build): ?array
    {
        $last = fn (Builder $of, string $when): Query => $of
            ->where('build_id', $build->id)
            ->where('verdict', 'fail')
            ->latest('id')
            ->limit(1)
            ->toBase()
            ->select(['suspect AS element', "$when AS at"]);
        $failed = $last(Run::ofUnits(), 'verdict_at')
            ->unionAll($last(RoadTest::query(), 'approved_at'))
            ->get()
            ->filter(fn (\stdClass $f): bool => $f->at !== null && $f->element !== '')
            ->sortBy('at')
            ->last();

        return $failed === null ? null : ['element' => $failed->element, 'at' => new Carbon($failed->at)];
    }

    public function showed(Build $build): ?array
    {
        $run = Run::ofUnits()->where('build_id', $build->id)->whereNotNull('verdict')->latest('id')->first();

        return $run?->verdict !== 'fail'
            ? null
            : [
                'run' => $run->id,
                'on' => (string) $run->verdict_at?->format('Y-m-d'),
                'observed' => $run->analysis['observed'] ?? [],
            ];
    }

    public function onTheRoad(Build $build): ?array
    {
        $test = RoadTest::query()->where('build_id', $build->id)->latest('id')->first();

        return $test?->verdict === 'pass' ? $this->road->shown($test) : null;
    }

    public function passed(Build $build): ?array
    {
        $run = Run::ofUnits()
            ->with(['judge', 'checks'])
            ->where('build_id', $build->id)
            ->whereIn('verdict', ['pass', 'conditional'])
            ->latest('id')
            ->first();

        return $run === null
            ? null
            : [
                'run' => $run->id,
                'traceSha256' => $run->trace_sha256,
                'verdict' => $run->verdict,
                'reason' => $run->verdict_reason,
                'by' => $run->judge?->name,
                'on' => $run->verdict_at?->format('Y-m-d'),
                'checks' => $run->checks->map(fn (RunCheck $c) => $c->shown())->all(),
            ];
    }

    /** @return list<Blocker> checks of the last analysed run that lie outside their limits */
    public function againstPass(Unit $unit): array
    {
        $run = Run::ofUnits()
            ->where('build_id', $unit->current_build_id)
            ->where('state', 'analysed')
            ->latest('id')
            ->first();
        if ($run !== null && $run->checks->isEmpty()) {
            return [
                new Blocker(
                    Gate::Pass,
                    'check:none',
                    'Nothing of this run was held against a limit, so it is no pass. Fail it, or pass it '
                        .'conditionally with a reason.',
                    "/units/$unit->core_tag/dyno",
                ),
            ];
        }
        $failed = $run === null ? [] : $run->checks->where('pass', false)->all();

        return array_values(array_map(
            fn (RunCheck $c) => new Blocker(
                Gate::Pass,
                "check:$c->name:$c->place",
                "\"$c->name\" ($c->place) is outside its limit, so this run is no pass. Fail it, or pass it ".
                    'conditionally with a reason.',
                "/units/$unit->core_tag/dyno",
            ),
            $failed,
        ));
    }

    /** @return list<Decision> runs that are analysed and not judged */
    public function waiting(): array
    {
        return array_values(Run::ofUnits()
            ->join('builds', 'builds.id', '=', 'dyno_runs.build_id')
            ->join('units', 'units.id', '=', 'builds.unit_id')
            ->where('dyno_runs.state', 'analysed')
            ->whereNull('dyno_runs.verdict')
            ->orderBy('dyno_runs.ended_at')
            ->limit(50)
            ->toBase()
            ->get(['dyno_runs.ended_at', 'dyno_runs.queued_at', 'builds.serial', 'units.core_tag'])
            ->map(
                fn (\stdClass $r) => new Decision(
                    'verdict',
                    $r->core_tag,
                    "Dyno run of $r->serial.",
                    (new Carbon($r->ended_at ?? $r->queued_at))->toIso8601ZuluString(),
                    "/units/$r->core_tag/dyno",
                ),
            )
            ->values()
            ->all());
    }

    /** @return list<Blocker> */
    public function againstShipping(Unit $unit): array
    {
        $build = $unit->currentBuild;
        $due = in_array(StationName::Dyno, $unit->jobType->stations(), true);

        $isTested = $build !== null && ($this->passed($build) !== null || $this->onTheRoad($build) !== null);

        return ! $due || $isTested
            ? []
            : [
                new Blocker(
                    Gate::Ship,
                    'not-tested',
                    'This unit has no passed dyno run, so it does not leave the house.',
                    "/units/$unit->core_tag/dyno",
                ),
            ];
    }
}
