<?php

namespace App\Stock\Queries;

use App\Catalog\Models\Part;
use App\Kernel\Tally;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Collection;
use Illuminate\Support\Facades\DB;

/** Parts by number or by any of their names, with the pieces on the shelf. */
final class Shelf
{
    /** @return Collection<int, Part> one page and one row more, by number; `pieces` on each */
    public function page(string $typed, ?string $after, int $size): Collection
    {
        $parts = $this->called($typed)
            ->when($after !== null, fn (Builder $q) => $q->where('parts.number', '>', $after))
            ->orderBy('parts.number')
            ->limit($size + 1)
            ->get('parts.*');
        // The page is cut first: only its own lots are added up.
        $pieces = DB::table('stock_lots')
            ->whereIn('part_id', $parts->modelKeys())
            ->where('quantity', '>', 0)
            ->groupBy('part_id')
            ->selectRaw('part_id, SUM(quantity) AS pieces')
            ->pluck('pieces', 'part_id');

        return $parts->each(fn (Part $p) => $p->setAttribute('pieces', (int) ($pieces[$p->id] ?? 0)));
    }

    public function total(string $typed): int
    {
        return $typed === '' ? Tally::of('parts') : $this->called($typed)->count();
    }

    /** @return Builder<Part> */
    private function called(string $typed): Builder
    {
        if ($typed === '') {
            return Part::query();
        }

        return Part::called($typed);
    }
}
