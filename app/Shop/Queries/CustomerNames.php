<?php

namespace App\Shop\Queries;

use App\Shop\Models\Customer;
use App\Yard\Contracts\ScanHit;
use Illuminate\Database\Eloquent\Builder;

/** Customers by name or code. */
final class CustomerNames
{
    private const SHOWN = 20;

    /** @return array{customers: list<array<string, string>>, more: bool} by name, and whether there are more */
    public function page(string $typed): array
    {
        $found = self::called($typed)->orderBy('name')->limit(self::SHOWN + 1)->get();

        return [
            'customers' => array_values(
                $found->take(self::SHOWN)->map(fn (Customer $c) => $c->only('code', 'name', 'city'))->all(),
            ),
            'more' => $found->count() > self::SHOWN,
        ];
    }

    /** @return Builder<Customer> */
    private static function called(string $typed): Builder
    {
        $hits = Customer::query()
            ->where('name', 'like', addcslashes($typed, '%_\\').'%')
            ->select('id')
            ->union(Customer::query()->where('code', mb_strtoupper($typed))->select('id'));

        return Customer::query()->joinSub($hits, 'hit', 'hit.id', '=', 'customers.id')->select('customers.*');
    }

    /** @return list<ScanHit> */
    public function scan(string $typed): array
    {
        return array_values(
            self::called($typed)
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
