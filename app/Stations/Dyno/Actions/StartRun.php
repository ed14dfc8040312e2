<?php

namespace App\Stations\Dyno\Actions;

use App\Kernel\Ledger\Ledger;
use App\Kernel\Refusal;
use App\Shop\Models\Person;
use App\Stations\Dyno\Models\ReferenceUnit;
use App\Stations\Dyno\Models\Run;
use App\Yard\Contracts\DynoRecord;
use App\Yard\Gatekeeper;
use App\Yard\Models\Build;
use App\Yard\StationName;
use Yard\Core\Drivetrain\ApplyChart;
use Yard\Core\Dyno\ReferenceProgram;
use Yard\Core\Input;

/** Puts a run in the queue; the gateway takes it to the rig. */
final class StartRun
{
    public const OPEN = ['queued', 'running', 'recorded'];

    public function __construct(
        private readonly Ledger $ledger,
        private readonly DynoRecord $verdicts,
        private readonly OnTheRig $rig,
    ) {
    }

    public function start(Build $build, string $cell, Person $by): Run
    {
        $unit = $build->unit;
        Gatekeeper::at($unit, StationName::Dyno);
        Gatekeeper::noHold($unit);
        if (Run::ofUnits()->where('build_id', $build->id)->whereIn('state', self::OPEN)->lockForUpdate()->exists()) {
            throw new Refusal('A run of this unit is already on its way.', 409);
        }
        $program =
            $build->frozen()['testProgram'] ??
            throw new Refusal('The specification of this build has no test program.', 409);
        $this->rig->mount($build);
        $run = Run::create([
            'build_id' => $build->id,
            'loop_no' => $this->verdicts->loop($build),
            'state' => 'queued',
            'specimen' => (string) $build->serial,
            'cell' => $cell,
            'started_by' => $by->id,
            'queued_at' => now(),
            'program' => [
                'rate_hz' => $program['rate_hz'],
                'end' => $program['end'],
                'steps' => $program['steps'],
                'limits' => $program['limits'],
                'reference' => $program['reference'] ?? [],
                'ratios' => ApplyChart::read(Input::of($build->frozen()['train']))->ratios(),
                'source' => $program['source'],
                'confidence' => $program['confidence'],
            ],
        ]);
        $this->ledger->onUnit($unit, 'run.queued', [
            'run' => $run->id,
            'serial' => $build->serial,
            'loop' => $run->loop_no,
            'cell' => $cell,
        ]);

        return $run->refresh();
    }

    /** The reference unit of a cell: the short program, held against what it gave before. */
    public function reference(string $cell, Person $by): Run
    {
        $kept = ReferenceUnit::of($cell) ??
            throw new Refusal("Cell $cell has no reference unit; keep one that passed.", 409);
        $build = $kept->build;
        $open = Run::query()->where('cell', $cell)->where('purpose', 'reference')->whereIn('state', self::OPEN);
        if ($open->exists()) {
            throw new Refusal('A reference run of this cell is already on its way.', 409);
        }
        $program = $build->frozen()['testProgram'] ??
            throw new Refusal('The specification of this build has no test program.', 409);
        $this->rig->mount($build);
        $run = Run::create([
            'build_id' => $build->id,
            'loop_no' => $this->verdicts->loop($build),
            'state' => 'queued',
            'specimen' => (string) $build->serial,
            'cell' => $cell,
            'purpose' => 'reference',
            'started_by' => $by->id,
            'queued_at' => now(),
            'program' => ReferenceProgram::of($program['steps'], (float) $program['end']) + [
                'rate_hz' => $program['rate_hz'],
                'limits' => [],
                'reference' => [],
                'ratios' => ApplyChart::read(Input::of($build->frozen()['train']))->ratios(),
                'source' => $program['source'],
                'confidence' => $program['confidence'],
            ],
        ]);
        $this->ledger->onUnit($build->unit, 'run.queued', [
            'run' => $run->id,
            'serial' => $build->serial,
            'cell' => $cell,
            'purpose' => 'reference',
        ]);

        return $run->refresh();
    }
}
