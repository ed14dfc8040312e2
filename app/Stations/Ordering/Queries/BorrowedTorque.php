<?php

namespace App\Stations\Ordering\Queries;

/** A torque that was borrowed from an equal thread is turned only after a second person signed for it. */
final class BorrowedTorque
{
    private const BORROWED = 'borrowed';

    /**
     * @param  list<array<string, mixed>>  $operations
     * @param  list<array<string, mixed>>  $fasteners
     * @return list<array<string, mixed>> the same, each borrowed torque with its signature before it
     */
    public static function signed(array $operations, array $fasteners): array
    {
        $of = fn (array $f): bool => $f['confidence'] === self::BORROWED;
        $borrowed = array_column(array_filter($fasteners, $of), 'name', 'code');
        foreach ($operations as $n => $operation) {
            $proofs = [];
            foreach ($operation['proofs'] ?? [] as $proof) {
                $name = $proof['kind'] === 'torque' ? $borrowed[$proof['of']] ?? null : null;
                if ($name !== null) {
                    $proofs[] = ['kind' => 'sign', 'of' => "the torque of \"$name\", borrowed from an equal thread"];
                }
                $proofs[] = $proof;
            }
            if ($proofs !== []) {
                $operations[$n]['proofs'] = $proofs;
            }
        }

        return $operations;
    }
}
