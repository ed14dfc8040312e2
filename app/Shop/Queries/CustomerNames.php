<?php

namespace App\Shop\Queries;

use App\Shop\Models\Customer;
use App\Yard\Contracts\ScanHit;

/** Customers by name or code. */
final class CustomerNames
{
    /** @return list<ScanHit> */
    public function scan(string $typed): array
    {
        return array_values(
            Customer::query()
                ->where('name', 'like', addcslashes($typed, '%_\\').'%')
                ->orWhere('code', mb_strtoupper($typed))
                ->limit(4)
                ->get()
                ->map(
                    fn (Customer $c) => new ScanHit(
                        'Customer',
                        $c->name,
                        $c->city,
                        '/units?customer='.rawurlencode($c->code),
                    ),
                )
                ->values()
                ->all(),
        );
    }
}
