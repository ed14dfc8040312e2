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
        $spec = self::allowed($unit, $in);
        $generation = Generation::of($unit, 'teardown');
        $row = ['unit_id' => $unit->id, 'generation' => $generation, 'part' => $in['part']];
        $finding = Finding::query()->where($row)->first();
        $said = [
            'condition' => $in['condition'],
            'disposition' => $in['disposition'],
            'role' => $in['role'],
            'ours' => $in['ours'] ?? false,
            'note' => $in['note'] ?? '',
        ];
        $values = $said + ['found_by' => $by->id, 'found_at' => now()];
        if ($finding === null) {
            $finding = Finding::create($values + $row + ['version' => 1]);
        } else {
            Gatekeeper::unchanged($finding, (int) ($in['version'] ?? 0), "the finding on \"$spec->name\"", $said);
            $finding->update($values + ['version' => $finding->version + 1]);
        }
        $event = array_diff_key($in, ['version' => 0]) + ['generation' => $generation];
        $this->ledger->onUnit($unit, 'finding.recorded', $event);

        return $finding;
    }

    /** @param  array<string, mixed>  $in */
    private static function allowed(Unit $unit, array $in): FamilySpec
    {
        $spec =
            FamilySpec::query()
                ->where('family_id', $unit->family_id)
                ->where('kind', 'finding')
                ->where('code', $in['part'])
                ->first() ?? throw Refusal::at('/part', "There is no part \"{$in['part']}\" on the inspection list.");
        if (! in_array($in['condition'], $spec->body['conditions'], true)) {
            $choices = implode(', ', $spec->body['conditions']);
            throw Refusal::at(
                '/condition',
                "\"{$in['condition']}\" is no condition of this part; choose one of $choices.",
            );
        }
        if ($in['disposition'] === 'shelf' && $unit->ownership === 'customer') {
            throw Refusal::at(
                '/disposition',
                "This is the customer's own unit: none of its hard parts goes to the shelf without a recorded swap "
                    .'agreement.',
            );
        }

        return $spec;
    }
}
