<?php

namespace App\Stations\Teardown\Actions;

use App\Catalog\Models\FamilySpec;
use App\Kernel\Ledger\Ledger;
use App\Kernel\Refusal;
use App\Shop\Models\Person;
use App\Stations\Teardown\Models\Finding;
use App\Work\Generation;
use App\Yard\Gatekeeper;
use App\Yard\Models\Unit;
use App\Yard\StationName;

/** What is found on a part, what becomes of it, and whether it is the cause or what the cause did. */
final class RecordFinding
{
    public function __construct(private readonly Ledger $ledger)
    {
    }

    /** @param  array<string, mixed>  $in */
    public function record(Unit $unit, array $in, Person $by): Finding
    {
        Gatekeeper::at($unit, StationName::Teardown, StationName::Returns, StationName::Assembly);
        $spec =
            FamilySpec::query()
                ->where('family_id', $unit->family_id)
                ->where('kind', 'finding')
                ->where('code', $in['part'])
                ->first() ?? throw Refusal::at('/part', "There is no part \"{$in['part']}\" on the inspection list.");
        if (! in_array($in['condition'], $spec->body['conditions'], true)) {
            throw Refusal::at(
                '/condition',
                "\"{$in['condition']}\" is no condition of this part; choose one of ".
                    implode(', ', $spec->body['conditions']).
                    '.',
            );
        }
        if ($in['disposition'] === 'shelf' && $unit->ownership === 'customer') {
            throw Refusal::at(
                '/disposition',
                "This is the customer's own unit: none of its hard parts goes to the shelf without a recorded swap "
                    .'agreement.',
            );
        }
        $generation = Generation::of($unit, 'teardown');
        $finding = Finding::query()
            ->where('unit_id', $unit->id)
            ->where('generation', $generation)
            ->where('part', $in['part'])
            ->first();
        $values = [
            'condition' => $in['condition'],
            'disposition' => $in['disposition'],
            'role' => $in['role'],
            'ours' => $in['ours'] ?? false,
            'note' => $in['note'] ?? '',
            'found_by' => $by->id,
            'found_at' => now(),
        ];
        if ($finding !== null) {
            Gatekeeper::unchanged(
                $finding,
                (int) ($in['version'] ?? 0),
                "the finding on \"$spec->name\"",
                array_diff_key($values, ['found_by' => 0, 'found_at' => 0]),
            );
            $finding->update($values + ['version' => $finding->version + 1]);
        } else {
            $finding = Finding::create(
                $values + [
                    'unit_id' => $unit->id,
                    'generation' => $generation,
                    'part' => $in['part'],
                    'version' => 1,
                ],
            );
        }
        $this->ledger->onUnit(
            $unit,
            'finding.recorded',
            array_diff_key($in, ['version' => 0]) + ['generation' => $generation],
        );

        return $finding;
    }
}
