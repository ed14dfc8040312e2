<?php

namespace App\Stations\Dyno\Actions;

use App\Kernel\Ledger\Ledger;
use App\Kernel\Refusal;
use App\Shop\Models\Person;
use App\Stations\Dyno\HouseLimits;
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
        private readonly HouseLimits $house,
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
        $program = self::program($build);
        ['limits' => $limits, 'house' => $house] = $this->house->with($program['limits']);
        $more = [
            'limits' => $limits,
            'houseLimits' => $house,
            'reference' => $program['reference'] ?? [],
            'referenceOf' => $program['referenceOf'] ?? 'family',
        ];

        return $this->queue($build, $cell, $by, 'unit', $more + array_intersect_key(
            $program,
            ['steps' => 0, 'end' => 0],
        ));
    }

    /** The reference unit of a cell: the short program, held against what it gave before. */
    public function reference(string $cell, Person $by): Run
    {
        $kept = ReferenceUnit::of($cell) ??
            throw new Refusal("Cell $cell has no reference unit; keep one that passed.", 409);
        $open = Run::query()->where('cell', $cell)->where('purpose', 'reference')->whereIn('state', self::OPEN);
        if ($open->exists()) {
            throw new Refusal('A reference run of this cell is already on its way.', 409);
        }
        $program = self::program($kept->build);
        $short = ReferenceProgram::of($program['steps'], (float) $program['end']);

        return $this->queue($kept->build, $cell, $by, 'reference', ['limits' => [], 'reference' => []] + $short);
    }

    /** @return array<string, mixed> */
    private static function program(Build $build): array
    {
        return $build->frozen()['testProgram'] ??
            throw new Refusal('The specification of this build has no test program.', 409);
    }

    /** @param  array<string, mixed>  $asked  steps, their end, and what they are held against */
    private function queue(Build $build, string $cell, Person $by, string $purpose, array $asked): Run
    {
        $program = self::program($build);
        $this->rig->mount($build);
        $run = Run::create([
            'build_id' => $build->id,
            'loop_no' => $this->verdicts->loop($build),
            'state' => 'queued',
            'specimen' => (string) $build->serial,
            'cell' => $cell,
            'purpose' => $purpose,
            'started_by' => $by->id,
            'queued_at' => now(),
            'program' => $asked + [
                'rate_hz' => $program['rate_hz'],
                'fluid' => $build->frozen()['fluid'] ?? null,
                'ratios' => ApplyChart::read(Input::of($build->frozen()['train']))->ratios(),
                'source' => $program['source'],
                'confidence' => $program['confidence'],
            ],
        ]);
        $this->ledger->onUnit($build->unit, 'run.queued', [
            'run' => $run->id,
            'serial' => $build->serial,
            'loop' => $run->loop_no,
            'cell' => $cell,
            'purpose' => $purpose,
        ]);

        return $run->refresh();
    }
}
