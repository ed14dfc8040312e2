<?php

namespace App\Yard\Queries;

use App\Kernel\Tally;
use App\Shop\Models\Customer;
use App\Yard\Models\Unit;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Collection;

/**
 * Units, newest first: of a station, of a customer, or late.
 *
 * @phpstan-type Asked array{station?: ?string, late?: mixed, customer?: ?string, before?: ?int}
 */
final class UnitList
{
    /**
     * @param  Asked  $asked
     * @return Collection<int, Unit> one page and one row more
     */
    public function page(array $asked, int $size): Collection
    {
        return $this->asked($asked)
            ->named()
            ->when(isset($asked['before']), fn (Builder $q) => $q->where('units.id', '<', $asked['before'] ?? 0))
            ->orderByDesc('units.id')
            ->limit($size + 1)
            ->get();
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
