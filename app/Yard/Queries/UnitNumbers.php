<?php

namespace App\Yard\Queries;

use App\Yard\Contracts\ScanHit;
use App\Yard\Models\Build;
use App\Yard\Models\Unit;
use Illuminate\Database\Eloquent\Builder;
use Illuminate\Database\Eloquent\Collection;
use Illuminate\Database\Eloquent\Model;

/** Units by serial, core tag or VIN. */
final class UnitNumbers
{
    private const SHOWN = 6;

    /** Fewer last characters than this would name half the yard. */
    private const TAIL = 4;

    /** @return list<ScanHit> */
    public function scan(string $typed): array
    {
        $serials = self::like(Build::query()->with('unit:id,core_tag'), 'serial', $typed);
        $tags = self::like(Unit::query(), 'core_tag', $typed);
        $vins = strlen($typed) < 5 ? [] : self::like(Unit::query(), 'vin', $typed);

        return array_values([
            ...$serials->map(
                fn (Build $b) => new ScanHit(
                    'Unit serial',
                    (string) $b->serial,
                    "core {$b->unit->core_tag}",
                    "/units/{$b->unit->core_tag}",
                ),
            ),
            ...$tags->map(
                fn (Unit $u) => new ScanHit('Core tag', $u->core_tag, $u->station->inWords(), "/units/$u->core_tag"),
            ),
            ...collect($vins)->map(
                fn (Unit $u) => new ScanHit('VIN', (string) $u->vin, "core $u->core_tag", "/units/$u->core_tag"),
            ),
        ]);
    }

    /**
     * Those that begin with what was typed, then those that end with it: the last digits are what is read out.
     *
     * @template M of Model
     *
     * @param  Builder<M>  $of
     * @return Collection<int, M>
     */
    private static function like(Builder $of, string $column, string $typed): Collection
    {
        $pattern = fn (string $text) => addcslashes(mb_strtoupper($text), '%_\\').'%';
        $begin = (clone $of)->where($column, 'like', $pattern($typed))->orderBy($column)->limit(self::SHOWN)->get();
        if (mb_strlen($typed) < self::TAIL || $begin->count() >= self::SHOWN) {
            return $begin;
        }
        $end = (clone $of)
            ->where("{$column}_reversed", 'like', $pattern(implode('', array_reverse(mb_str_split($typed)))))
            ->whereKeyNot($begin->modelKeys())
            ->limit(self::SHOWN - $begin->count())
            ->get();

        return $begin->concat($end);
    }
}
