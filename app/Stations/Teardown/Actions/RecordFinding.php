<?php

namespace App\Stations\Teardown\Actions;

use App\Catalog\Models\FamilySpec;
use App\Kernel\Ledger\Ledger;
use App\Kernel\OrderedRows;
use App\Kernel\Refusal;
use App\Shop\Models\Person;
use App\Stations\Teardown\FindingSpec;
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

    /**
     * @param  array<string, mixed>  $in
     * @param  string  $at  where in what was sent its fields stand
     */
    public function record(Unit $unit, array $in, Person $by, string $at = ''): Finding
    {
        Gatekeeper::at($unit, StationName::Teardown, StationName::Returns, StationName::Assembly);
        $spec = self::allowed($unit, $in, $at);
        $plates = array_values($in['plates'] ?? []);
        $note = $in['note'] ?? '';
        $measured = $spec->measured($in['reading'] ?? '', $in['gauge'] ?? null);
        $spec->assertReuse($in['disposition'], $measured['measured_inside'], $note);
        $generation = Generation::of($unit, 'teardown');
        $row = ['unit_id' => $unit->id, 'generation' => $generation, 'part' => $in['part']];
        $finding = Finding::query()->where($row)->first();
        $said = [
            'condition' => $spec->condition($in['condition'] ?? '', $plates),
            'disposition' => $in['disposition'],
            'role' => $in['role'],
            'ours' => $in['ours'] ?? false,
            'note' => $note,
        ] + $measured;
        $values = $said + ['found_by' => $by->id, 'found_at' => now()];
        if ($finding === null) {
            $finding = Finding::create($values + $row + ['version' => 1]);
        } else {
            Gatekeeper::unchanged($finding, (int) ($in['version'] ?? 0), "the finding on \"$spec->name\"", $said);
            $finding->update($values + ['version' => $finding->version + 1]);
        }
        OrderedRows::write($finding->plates(), array_map(fn (string $c) => ['condition' => $c], $plates));
        $event = array_diff_key($in, ['version' => 0]) + ['generation' => $generation];
        $this->ledger->onUnit($unit, 'finding.recorded', $event);

        return $finding;
    }

    /** @param  array<string, mixed>  $in */
    private static function allowed(Unit $unit, array $in, string $at): FindingSpec
    {
        $spec =
            FamilySpec::query()
                ->where('family_id', $unit->family_id)
                ->where('kind', 'finding')
                ->where('code', $in['part'])
                ->first() ?? throw Refusal::at('/part', "There is no part \"{$in['part']}\" on the inspection list.");
        if (
            $in['disposition'] === 'shelf' && $unit->ownership === 'customer' && ! AgreeSwap::exists($unit, $in['part'])
        ) {
            throw Refusal::at(
                "$at/disposition",
                "This is the customer's own unit: none of its hard parts goes to the shelf without a recorded swap "
                    .'agreement.',
            );
        }

        return FindingSpec::read($spec->name, $spec->body, $at);
    }
}
