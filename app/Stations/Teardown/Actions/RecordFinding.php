<?php

namespace App\Stations\Teardown\Actions;

use App\Catalog\Models\FamilySpec;
use App\Kernel\Ledger\Ledger;
use App\Kernel\OrderedRows;
use App\Kernel\Refusal;
use App\Shop\HouseRules;
use App\Shop\Models\Person;
use App\Stations\Teardown\FindingSpec;
use App\Stations\Teardown\Models\Finding;
use App\Stations\Teardown\Queries\ConfirmedCauses;
use App\Stations\Teardown\Queries\Routes;
use App\Work\Generation;
use App\Yard\Gatekeeper;
use App\Yard\Models\Unit;
use App\Yard\StationName;

/** What is found on a part, what becomes of it, and whether it is the cause or what the cause did. */
final class RecordFinding
{
    public function __construct(
        private readonly Ledger $ledger,
        private readonly HouseRules $rules,
        private readonly Routes $routes,
        private readonly LoosePieces $pieces,
    ) {
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
        $generation = Generation::of($unit, 'teardown');
        $row = ['unit_id' => $unit->id, 'generation' => $generation, 'part' => $in['part']];
        $finding = Finding::query()->where($row)->first();
        $said = $this->said($spec, $in, $plates, $at);
        $values = $said + ['found_by' => $by->id, 'found_at' => now()];
        $isOrWasCause = in_array('cause', [$in['role'], $finding?->role], true);
        $due = ['second_due' => $this->isSecondDue($unit, $in['part'], $spec)];
        if ($finding !== null) {
            Gatekeeper::unchanged($finding, (int) ($in['version'] ?? 0), "the finding on \"$spec->name\"", $said);
            $finding->update($values + ['version' => $finding->version + 1]);
        }
        $finding ??= Finding::create($values + $row + $due + ['version' => 1]);
        OrderedRows::write($finding->plates(), array_map(fn (string $c) => ['condition' => $c], $plates));
        $this->pieces->tally($unit, $finding, $spec->name, $by);
        $event = array_diff_key($in, ['version' => 0]) + ['generation' => $generation];
        $this->ledger->onUnit($unit, 'finding.recorded', $event);

        if ($isOrWasCause) {
            ConfirmedCauses::forget((int) $unit->family_id);
        }

        return $finding;
    }

    /**
     * @param  array<string, mixed>  $in
     * @param  list<string>  $plates
     * @return array<string, mixed> as it is kept
     */
    private function said(FindingSpec $spec, array $in, array $plates, string $at): array
    {
        $in += ['note' => '', 'ours' => false];
        $measured = $spec->measured($in['reading'] ?? '', $in['gauge'] ?? null);
        $spec->assertReuse($in['disposition'], $measured['measured_inside'], (string) $in['note']);
        $condition = $spec->condition($in['condition'] ?? '', $plates);

        return [
            'condition' => $condition,
            'disposition' => $in['disposition'],
            'role' => $in['role'],
            'ours' => $in['ours'],
            'note' => (string) $in['note'],
            'pieces' => $spec->piecesFound($condition, $in['pieces'] ?? null),
        ] + $measured + $this->routes->chosen($spec, $in['disposition'], $in['route'] ?? '', $at);
    }

    /** Now and then a part is graded by a second person too; which ones nobody can tell beforehand. */
    private function isSecondDue(Unit $unit, string $part, FindingSpec $spec): bool
    {
        $every = (int) $this->rules->number('second-grade-every');

        return $every > 0
            && $spec->measure === null
            && hexdec(substr(hash_hmac('sha256', "$unit->id $part", (string) config('app.key')), 0, 8)) % $every === 0;
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
