<?php

namespace App\Stock\Queries;

use Illuminate\Support\Facades\DB;

/** Parts that may stand for others: those that superseded them, step by step, and those recorded as equal. */
final class Substitutes
{
    /** Steps of supersession that are followed. */
    private const STEPS = 6;

    /**
     * @param  list<string>  $numbers
     * @return array<string, array<string, string>> for each number the numbers that may stand for it, and why
     */
    public static function for(array $numbers): array
    {
        $found = [];
        foreach (self::equals($numbers) as $row) {
            foreach ([[$row->part, $row->equals], [$row->equals, $row->part]] as [$asked, $other]) {
                in_array($asked, $numbers, true) && $found[$asked][$other] = "Equal: $row->note";
            }
        }
        $newest = array_combine($numbers, $numbers);
        for ($step = 0; $step < self::STEPS && $newest !== []; $step++) {
            $next = [];
            foreach (self::successors(array_values(array_unique($newest))) as $row) {
                foreach (array_keys($newest, $row->old, true) as $asked) {
                    if (! isset($found[$asked][$row->new]) && $row->new !== $asked) {
                        $found[$asked][$row->new] = "Supersedes $row->old: $row->source";
                        $next[$asked] = $row->new;
                    }
                }
            }
            $newest = $next;
        }

        return $found;
    }

    /**
     * @param  list<string>  $numbers
     * @return list<\stdClass>
     */
    private static function equals(array $numbers): array
    {
        return array_values(DB::table('equal_parts AS e')
            ->join('parts AS a', 'a.id', '=', 'e.part_id')
            ->join('parts AS b', 'b.id', '=', 'e.equals_part_id')
            ->whereIn('a.number', $numbers)
            ->orWhereIn('b.number', $numbers)
            ->get(['a.number AS part', 'b.number AS equals', 'e.note'])
            ->all());
    }

    /**
     * @param  list<string>  $numbers
     * @return list<\stdClass>
     */
    private static function successors(array $numbers): array
    {
        $steps = fn (string $from, string $to) => DB::table('supersessions AS s')
            ->join('parts AS a', 'a.id', '=', "s.$from")
            ->join('parts AS b', 'b.id', '=', "s.$to")
            ->whereIn('a.number', $numbers)
            ->select(['a.number AS old', 'b.number AS new', 's.source']);

        return array_values($steps('old_part_id', 'new_part_id')
            ->union($steps('new_part_id', 'old_part_id')->where('s.both_ways', true))
            ->get()
            ->all());
    }
}
