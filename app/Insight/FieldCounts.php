<?php

namespace App\Insight;

use App\Insight\Models\FieldCount;
use App\Insight\Models\Sale;
use App\Insight\Queries\FieldKeys;
use App\Yard\Contracts\FieldRecord;
use App\Yard\Models\Build;
use Illuminate\Database\Query\Expression;

/**
 * Builds shipped and come back by variant, package and builder: a few hundred rows however many years the shop has
 * seen, written by the same transaction that ships or takes back.
 */
final class FieldCounts implements FieldRecord
{
    public function shipped(Build $build): void
    {
        $this->count($build, 'shipped');
        $variant = FieldKeys::of($build)['variant_id'];
        if ($variant > 0) {
            Sale::query()->insert([
                'variant_id' => $variant,
                'shipped_at' => now(),
                'build_id' => $build->id,
                'price' => $build->price,
            ]);
        }
    }

    public function cameBack(Build $build): void
    {
        $this->count($build, 'returned');
    }

    /** @return array{shipped: int, returned: int} */
    public function ofVariant(int $variantId): array
    {
        $of = FieldCount::query()
            ->where('variant_id', $variantId)
            ->toBase()
            ->first([new Expression('SUM(shipped) AS shipped'), new Expression('SUM(returned) AS returned')]);

        return ['shipped' => (int) ($of->shipped ?? 0), 'returned' => (int) ($of->returned ?? 0)];
    }

    private function count(Build $build, string $what): void
    {
        FieldCount::query()->upsert(
            [$what => 1] + FieldKeys::of($build),
            ['variant_id', 'package_id', 'builder_id'],
            [$what => new Expression("$what + 1")],
        );
    }
}
