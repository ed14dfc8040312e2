<?php

namespace App\Stations\Receiving\Actions;

use App\Kernel\Ledger\Ledger;
use App\Kernel\Refusal;
use App\Shop\Models\Person;
use App\Yard\Gatekeeper;
use App\Yard\Models\Unit;
use App\Yard\StationName;

/** Corrects what was written down at receiving; two people on one card are told of each other. */
final class ReviseIntake
{
    public function __construct(private readonly Ledger $ledger, private readonly ReceiveCore $receive)
    {
    }

    /** @param  array<string, mixed>  $in */
    public function revise(Unit $unit, array $in, Person $by): Unit
    {
        if (in_array($unit->station, [StationName::Field, StationName::Closed], true)) {
            throw new Refusal('This unit has left the house; its intake can no longer be changed.', 409);
        }
        if ($unit->credit_revision !== null) {
            throw new Refusal('The credit was revised after teardown; the intake stands as it is.', 409);
        }
        $before = (float) $unit->credit;
        Gatekeeper::unchanged(
            $unit,
            (int) $in['version'],
            'this intake',
            array_diff_key(self::snake($in), ['version' => 0]),
        );
        $unit->version++;
        $this->receive->fill($unit, $in);
        $this->ledger->onUnit($unit, 'receiving.revised', $in + ['creditBefore' => $before, 'credit' => $unit->credit]);

        return $unit;
    }

    /**
     * @param  array<string, mixed>  $in
     * @return array<string, mixed>
     */
    private static function snake(array $in): array
    {
        return array_combine(
            array_map(fn (string $k) => strtolower((string) preg_replace('/[A-Z]/', '_$0', $k)), array_keys($in)),
            array_values($in),
        );
    }
}
