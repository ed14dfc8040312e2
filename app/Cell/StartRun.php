<?php

namespace App\Cell;

use App\Ledger\Ledger;
use App\Shop\Person;
use App\Shop\Refused;
use App\Track\Build;
use App\Track\Gatekeeper;
use Yard\Core\Calculators;

/** Puts a run in the queue; the gateway takes it to the rig. */
final class StartRun
{
    public const OPEN = ['queued', 'running', 'recorded'];

    public function __construct(private readonly Ledger $ledger, private readonly LastVerdict $verdicts)
    {
    }

    public function start(Build $build, string $specimen, Person $by): Run
    {
        $unit = $build->unit;
        Gatekeeper::at($unit, 'cell');
        Gatekeeper::noHold($unit);
        if (Run::query()->where('build_id', $build->id)->whereIn('state', self::OPEN)->lockForUpdate()->exists()) {
            throw new Refused('A run of this unit is already on its way.', 409);
        }
        $program = $build->spec['testProgram'] ?? throw new Refused('The specification of this build has no test program.', 409);
        $ratios = [];
        foreach (Calculators::call('geartrain.solve', $build->spec['train'])['gears'] as $gear) {
            if ($gear['ratio'] !== null) {
                $ratios[$gear['name']] = $gear['ratio'];
            }
        }
        $run = Run::create([
            'build_id' => $build->id, 'loop_no' => $this->verdicts->loop($build), 'state' => 'queued', 'specimen' => $specimen, 'started_by' => $by->id, 'queued_at' => now(),
            'program' => ['rate_hz' => $program['rate_hz'], 'end' => $program['end'], 'steps' => $program['steps'], 'limits' => $program['limits'], 'ratios' => $ratios, 'source' => $program['source'], 'confidence' => $program['confidence']],
        ]);
        $this->ledger->onUnit($unit, 'run.queued', ['run' => $run->id, 'serial' => $build->serial, 'loop' => $run->loop_no]);

        return $run->refresh();
    }
}
