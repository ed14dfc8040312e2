<?php

namespace App\Interchange\Queries;

use App\Catalog\Kept\KeptCatalog;
use App\Shop\HouseRules;
use Illuminate\Support\Facades\DB;
use Yard\Core\Interchange\Conversion;
use Yard\Core\Interchange\PathSearch;
use Yard\Core\Interchange\Step;

/**
 * Conversion chains between variants, priced: the cheapest way from each variant to those wanted (interchange.path).
 */
final class Conversions
{
    public function __construct(private readonly HouseRules $rules, private readonly KeptCatalog $kept)
    {
    }

    /** @var array<string, array<string, array<string, mixed>>> conversions written out, by their codes */
    private array $known = [];

    /**
     * Variants that reach one of these by conversions, or that these reach.
     *
     * @param  list<int>  $variantIds
     * @return list<\stdClass> conversions with the codes of their variants
     */
    public function around(array $variantIds, string $direction): array
    {
        [$near, $far] =
            $direction === 'into' ? ['to_variant_id', 'from_variant_id'] : ['from_variant_id', 'to_variant_id'];
        if ($variantIds === []) {
            return [];
        }
        $in = implode(',', array_map(intval(...), $variantIds));

        $sql = <<<SQL
            WITH RECURSIVE reached AS (
                SELECT id FROM variants WHERE id IN ($in) UNION SELECT c.$far FROM conversions c JOIN reached r ON
                    c.$near = r.id
            )
            SELECT c.*,
            f.code AS from_code,
            t.code AS to_code FROM conversions c JOIN reached r ON c.$near = r.id JOIN variants f ON f.id =
                c.from_variant_id JOIN variants t ON t.id = c.to_variant_id ORDER BY c.id
            SQL;
        /** @var list<\stdClass> $found */
        $found = $this->kept->rows($sql, [], fn (): array => DB::select($sql));

        return $found;
    }

    /**
     * @param  list<\stdClass>  $conversions  from around()
     * @param  list<string>  $from  variant codes
     * @param  list<string>  $to  variant codes
     * @param  list<string>  $facts  of the vehicle
     * @return array<string, array<string, mixed>> start => path with its steps written out, or what blocks it
     */
    public function paths(array $conversions, array $from, array $to, array $facts): array
    {
        if ($from === [] || $to === []) {
            return [];
        }
        $nodes = array_fill_keys([...$from, ...$to], true);
        $steps = [];
        $byCode = $this->known[implode(',', array_column($conversions, 'code'))] ??= $this->writtenOut($conversions);
        foreach ($conversions as $c) {
            $nodes += [$c->from_code => true, $c->to_code => true];
            $steps[] = new Step(
                $c->code,
                $c->from_code,
                $c->to_code,
                $byCode[$c->code]['cost'],
                (float) $c->hours,
                array_column(json_decode($c->requires, true), 'why', 'fact'),
                array_column(json_decode($c->forbids, true), 'why', 'fact'),
                [],
                [],
            );
        }
        $rate = $this->rules->number('labour-rate');
        $search = new PathSearch(array_fill_keys(array_keys($nodes), []), $steps, $facts, $rate);
        $out = [];
        foreach ($search->cheapest($from, $to) as $path) {
            $out[$path->from] = self::written($path, $byCode);
        }

        return $out;
    }

    /**
     * @param  list<\stdClass>  $conversions
     * @return array<string, array<string, mixed>> each conversion with its parts at today's price
     */
    private function writtenOut(array $conversions): array
    {
        $items = array_map(fn (\stdClass $c) => json_decode($c->parts, true), $conversions);
        $numbers = array_unique(array_column(array_merge(...$items), 'part'));
        $prices = array_column($this->kept->answers(
            DB::table('parts')->whereIn('number', $numbers)->select(['number', 'name', 'price']),
        ), null, 'number');
        $out = [];
        foreach ($conversions as $i => $c) {
            $parts = array_map(
                fn (array $p) => [
                    'part' => $p['part'],
                    'name' => $prices[$p['part']]->name ?? $p['part'],
                    'count' => $p['count'],
                    'price' => (float) ($prices[$p['part']]->price ?? 0),
                ],
                $items[$i],
            );
            $cost = (float) $c->cost + array_sum(array_map(fn (array $p) => $p['count'] * $p['price'], $parts));
            $out[$c->code] = [
                'code' => $c->code,
                'name' => $c->name,
                'from' => $c->from_code,
                'to' => $c->to_code,
                'cost' => round($cost, 2),
                'hours' => (float) $c->hours,
                'parts' => $parts,
                'steps' => json_decode($c->steps, true),
                'source' => trim("$c->source, $c->edition", ', '),
                'confidence' => $c->confidence,
            ];
        }

        return $out;
    }

    /**
     * @param  array<string, array<string, mixed>>  $steps  code => what is to be shown of it
     * @return array<string, mixed>
     */
    private static function written(Conversion $path, array $steps): array
    {
        return $path->found()
            ? [
                'from' => $path->from,
                'found' => true,
                'to' => $path->to,
                'steps' => array_map(fn (string $id) => $steps[$id], $path->stepIds()),
                'cost' => $path->cost(),
                'hours' => $path->hours(),
                'total' => $path->total,
            ]
            : [
                'from' => $path->from,
                'found' => false,
                'blockedBy' => array_map(
                    fn (array $b) => ['name' => $steps[$b['step']]['name']] + $b,
                    $path->blockedBy,
                ),
            ];
    }
}
