<?php

namespace App\Yard\Queries;

use App\Kernel\SortedPages;
use App\Kernel\Tally;
use App\Shop\Models\Customer;
use App\Yard\Models\Unit;
use Illuminate\Contracts\Pagination\CursorPaginator;
use Illuminate\Database\Eloquent\Builder;

/**
 * Units, newest first unless another order is asked for: of a station, of a customer, or late.
 *
 * @phpstan-type Asked array{station?: ?string, late?: mixed, customer?: ?string, sort?: ?string, after?: ?string}
 */
final class UnitList
{
    private const ORDERS = [
        'coreTag' => 'units.id',
        'station' => 'units.station_since',
        'grade' => 'units.grade',
        'promisedOn' => 'units.promise_order',
    ];

    /**
     * @param  Asked  $asked
     * @return CursorPaginator<int, Unit>
     */
    public function page(array $asked, int $size): CursorPaginator
    {
        return (new SortedPages(self::ORDERS, 'units.id'))->page(
            $this->asked($asked)->named(),
            $asked['sort'] ?? '-coreTag',
            $asked['after'] ?? null,
            $size,
        );
    }

    /** @param  Asked  $asked */
    public function total(array $asked): int
    {
        $station = $asked['station'] ?? null;
        if (! ($asked['late'] ?? false) && ! isset($asked['customer'])) {
            return Tally::of($station === null ? 'units' : "units:$station");
        }

        return $this->asked($asked)->count();
    }

    /**
     * @param  Asked  $asked
     * @return array{code: string, name: string}|null whose units the list shows
     */
    public function customer(array $asked): ?array
    {
        $customer = Customer::query()->where('code', $asked['customer'] ?? '')->first();

        return $customer === null ? null : ['code' => $customer->code, 'name' => $customer->name];
    }

    /**
     * @param  Asked  $asked
     * @return Builder<Unit>
     */
    private function asked(array $asked): Builder
    {
        return Unit::query()
            ->when($asked['station'] ?? null, fn (Builder $q, string $station) => $q->where('station', $station))
            ->when(
                $asked['late'] ?? false,
                fn (Builder $q) => $q
                    ->whereNotIn('station', ['field', 'closed'])
                    ->where('units.promised_on', '<', now()->format('Y-m-d')),
            )
            ->when(
                $asked['customer'] ?? null,
                // What the customer sent in, and what was built for them.
                fn (Builder $q, string $code) => $q->whereIn('units.id', fn ($ids) => $ids
                    ->fromSub(
                        fn ($of) => $of
                            ->from('units AS theirs')
                            ->join('customers AS c', 'c.id', '=', 'theirs.customer_id')
                            ->where('c.code', $code)
                            ->select('theirs.id')
                            ->union(
                                fn ($built) => $built
                                    ->from('builds AS b')
                                    ->join('customers AS c', 'c.id', '=', 'b.customer_id')
                                    ->where('c.code', $code)
                                    ->select('b.unit_id'),
                            ),
                        'ids',
                    )
                    ->select('ids.id')),
            );
    }
}
