<?php

namespace App\Stations\Assembly\Actions;

use App\Kernel\Ledger\Ledger;
use App\Kernel\Refusal;
use App\Shop\Models\Person;
use App\Stations\Assembly\Models\SignOff;
use App\Stations\Assembly\Queries\AssemblyRecord;
use App\Stations\Dyno\Queries\LastVerdict;
use App\Yard\Gatekeeper;
use App\Yard\Models\Build;

/** The builder signs for the assembly; refused with every reason while something is missing or outside its window. */
final class SignOffBuild
{
    public function __construct(private readonly Ledger $ledger, private readonly LastVerdict $lastVerdict)
    {
    }

    public function sign(Build $build, Person $by): SignOff
    {
        $unit = $build->unit;
        Gatekeeper::at($unit, 'bench');
        Gatekeeper::noHold($unit);
        $reasons = $this->reasonsAgainst($build);
        if ($reasons !== []) {
            throw new Refusal(
                'The sign-off is refused: '.
                    lcfirst($reasons[0]).
                    (count($reasons) > 1 ? ' And '.(count($reasons) - 1).' more.' : ''),
                422,
                array_map(fn (string $r) => ['pointer' => '', 'detail' => $r], $reasons),
            );
        }
        $sign = SignOff::create([
            'build_id' => $build->id,
            'what' => 'assembly',
            'loop_no' => $this->lastVerdict->loop($build),
            'signed_by' => $by->id,
            'signed_at' => now(),
        ]);
        $this->ledger->onUnit($unit, 'assembly.signed', ['serial' => $build->serial, 'loop' => $sign->loop_no]);
        $unit->moveTo(Gatekeeper::next($unit, 'bench'));

        return $sign;
    }

    /** @return list<string> why the build cannot be signed yet, empty when it can */
    public function reasonsAgainst(Build $build, ?AssemblyRecord $record = null): array
    {
        $record ??= AssemblyRecord::of($build);
        $reasons = [];
        $spec = $build->spec;
        foreach ($spec['assembly'] as $step) {
            if (! isset($record->marks[$step['code']])) {
                $reasons[] = "Step \"{$step['name']}\" is not done.";
            }
        }
        $reopened = $this->lastVerdict->failedElement($build);
        foreach (
            [
                ['pack', 'packs', 'clearance'],
                ['end-play', 'endPlays', 'end play'],
                ['air-check', 'airChecks', 'pressure loss'],
            ] as [$kind, $list, $what]
        ) {
            foreach ($spec[$list] as $row) {
                if ($kind !== 'air-check' && ! isset($record->fits[$row['code']])) {
                    $reasons[] = "\"{$row['name']}\": no parts chosen yet.";
                }
                $taken = $record->readings[$kind][$row['code']] ?? [];
                $m = end($taken) ?: null;
                $reasons[] = match (true) {
                    $m === null => "\"{$row['name']}\": the $what is not measured.",
                    ! $m->inside => "\"{$row['name']}\": the $what of ".
                        (float) $m->value.
                        " $m->unit lies outside ".
                        (float) $m->window_min.
                        ' to '.
                        (float) $m->window_max.
                        '.',
                    $record->gauges->get($m->gauge_id)?->calibrated_until < $m->measured_at->format('Y-m-d') => "\"{$row['name']}\": the gauge {$record->gauges->get(
                        $m->gauge_id,
                    )?->name} was past its calibration date.",
                    $reopened !== null &&
                        $reopened['element'] === ($row['element'] ?? '') &&
                        $m->measured_at <= $reopened['at'] => "\"{$row['name']}\" must be measured again after the failed dyno run.",
                    default => null,
                };
            }
        }

        return array_values(array_filter($reasons));
    }
}
