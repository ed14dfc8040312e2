<?php

namespace App\Stations\Ordering\Actions;

use App\Kernel\Ledger\Ledger;
use App\Kernel\Refusal;
use App\Shop\Models\Person;
use App\Stations\Ordering\Queries\Specification;
use App\Yard\Gate;
use App\Yard\Gatekeeper;
use App\Yard\Models\Build;
use App\Yard\Models\Unit;
use App\Yard\NumberSequence;
use App\Yard\StationName;

/** Freezes the specification and gives the unit its serial. Later catalog edits do not change it. */
final class ReleaseBuild
{
    public function __construct(
        private readonly Ledger $ledger,
        private readonly Specification $resolve,
        private readonly Gatekeeper $gate,
    ) {
    }

    /** @param  list<string>  $acknowledged options whose surprising behaviour the customer was told of */
    public function release(Unit $unit, int $version, array $acknowledged, Person $by): Build
    {
        Gatekeeper::at($unit, StationName::Ordering);
        $this->gate->pass($unit, Gate::Release);
        $build = $unit->currentBuild;
        if ($build === null || $build->state !== 'draft') {
            throw new Refusal('There is no open order for this unit.', 409);
        }
        Gatekeeper::unchanged($build, $version, 'this order', $build->asked()->toArray());
        $spec = $this->resolve->ofBuild($build->setRelation('unit', $unit));
        if ($spec['status'] !== 'ok') {
            throw new Refusal('The order cannot be released: '.$spec['conflicts'][0]['explain']);
        }
        $frozen = $spec +
            $this->resolve->bench($unit->knownVariant(), $build->package->code, $spec, $unit->jobType) + [
                'variant' => $unit->knownVariant()->code,
                'weakestMargin' => $spec['margins']['weakest']['margin'] ?? null,
                'acknowledged' => self::told($spec['options'], $acknowledged),
                'frozenAt' => now()->toIso8601ZuluString(),
            ];
        $build->update([
            'serial' => $this->nextSerial(),
            'state' => 'released',
            'spec' => $frozen,
            'price' => $spec['price'],
            'hours' => $spec['hours'],
            'released_by' => $by->id,
            'released_at' => now(),
            'version' => $build->version + 1,
        ]);
        $this->ledger->onUnit($unit, 'build.released', [
            'serial' => $build->serial,
            'generation' => $build->generation,
            'package' => $spec['package']['code'],
            'price' => $spec['price'],
            'hours' => $spec['hours'],
            'specSha256' => hash('sha256', json_encode($frozen, JSON_THROW_ON_ERROR)),
        ]);
        // A returned unit is already in pieces when its second build is ordered: teardown was done for the return.
        $done = $build->teardown_done_at === null ? StationName::Ordering : StationName::Teardown;
        $unit->moveTo(Gatekeeper::next($unit, $done));

        return $build;
    }

    /**
     * @param  list<array<string, mixed>>  $options
     * @param  list<string>  $acknowledged
     * @return list<string> options whose surprise the customer was told of
     */
    private static function told(array $options, array $acknowledged): array
    {
        $surprises = array_filter($options, fn (array $o) => $o['surprise'] !== null);
        foreach ($surprises as $option) {
            if (! in_array($option['code'], $acknowledged, true)) {
                throw Refusal::at(
                    '/acknowledged',
                    "Tell the customer first: {$option['surprise']} ({$option['name']})",
                );
            }
        }

        return array_column($surprises, 'code');
    }

    private function nextSerial(): string
    {
        $year = now()->format('y');

        return "VY-$year-".str_pad((string) NumberSequence::next("serial-$year"), 4, '0', STR_PAD_LEFT);
    }
}
