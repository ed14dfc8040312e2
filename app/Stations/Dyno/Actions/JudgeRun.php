<?php

namespace App\Stations\Dyno\Actions;

use App\Kernel\Ledger\Ledger;
use App\Kernel\Refusal;
use App\Shop\Models\Person;
use App\Shop\Role;
use App\Stations\Dyno\Models\Run;
use App\Stations\Dyno\Models\RunCheck;
use App\Stations\Dyno\Trace;
use App\Yard\Gate;
use App\Yard\Gatekeeper;
use App\Yard\StationName;

/** A named person passes or fails the unit; a fail names the suspect and sends it back to the bench. */
final class JudgeRun
{
    public function __construct(private readonly Ledger $ledger, private readonly Gatekeeper $gate)
    {
    }

    public function judge(Run $run, string $verdict, string $reason, string $suspect, Person $by): void
    {
        $build = $run->build;
        $unit = $build->unit;
        Gatekeeper::at($unit, StationName::Dyno);
        Gatekeeper::noHold($unit);
        self::mustBeJudged($run);
        if ($verdict !== 'fail') {
            self::mustBeTheLast($run);
        }
        if ($verdict === 'pass') {
            $this->gate->pass($unit, Gate::Pass);
        }
        self::mustBeSaid($verdict, $reason, $suspect, $by);
        $run->update([
            'verdict' => $verdict,
            'verdict_reason' => $reason,
            'suspect' => $verdict === 'fail' ? $suspect : '',
            'verdict_by' => $by->id,
            'verdict_at' => now(),
        ]);
        $failed = $run->checks->where('pass', false)->map(fn (RunCheck $c) => "$c->name, $c->place");
        $this->ledger->onUnit($unit, 'run.judged', [
            'run' => $run->id,
            'serial' => $build->serial,
            'traceSha256' => $run->trace_sha256,
            'verdict' => $verdict,
            'reason' => $reason,
            'suspect' => $suspect,
            'failedChecks' => $failed->values()->all(),
        ]);
        if ($verdict === 'fail') {
            $unit->moveTo(StationName::Assembly);
        } else {
            $build->update(['state' => 'passed']);
            $unit->moveTo(Gatekeeper::next($unit, StationName::Dyno));
        }
    }

    private static function mustBeJudged(Run $run): void
    {
        if ($run->purpose !== 'unit') {
            throw new Refusal('Nothing of this run was commanded here for the unit: it is no pass and no fail.', 409);
        }
        if ($run->verdict !== null) {
            throw new Refusal('This run is already judged.', 409);
        }
        if ($run->state !== 'analysed') {
            throw new Refusal('This run is not analysed yet.', 409);
        }
        if (! Trace::untouched($run)) {
            throw new Refusal('The recording of this run is not the one that was analysed; run it again.', 409);
        }
    }

    /** What a later run measured, or is about to, is not passed by on the word of an earlier one. */
    private static function mustBeTheLast(Run $run): void
    {
        $later = Run::ofUnits()
            ->where('build_id', $run->build_id)
            ->where('id', '>', $run->id)
            ->whereNotIn('state', ['cancelled', 'failed'])
            ->max('id');
        if ($later !== null) {
            throw new Refusal("Run $later of this unit came after this one: it is the one to pass or fail.", 409);
        }
    }

    private static function mustBeSaid(string $verdict, string $reason, string $suspect, Person $by): void
    {
        if ($verdict === 'conditional' && $by->role !== Role::Manager) {
            throw new Refusal('Only the shop manager passes a unit conditionally.', 403);
        }
        if ($verdict !== 'pass' && trim($reason) === '') {
            throw Refusal::at('/reason', 'Say why.');
        }
        if ($verdict === 'fail' && trim($suspect) === '') {
            throw Refusal::at('/suspect', 'Name the element suspected, so that the bench knows what to open.');
        }
    }
}
