<?php

namespace App\Catalog\Exchange;

use Illuminate\Support\Facades\DB;

/**
 * How each kind of catalog entry stands in a pack (a JSON node) and in the database (a row). Import, export, the
 * editor, the history and the CSV door all go through this one map.
 *
 * A field reads "column:type": text, int, number, bool, json, or the code of a part, variant or vehicle. A "?" marks a
 * field a node may leave out; it stands in the table as its empty value then.
 */
final class CatalogMap
{
    private const SOURCED = [
        'source' => 'source:text',
        'edition' => 'edition:text',
        'confidence' => 'confidence:text',
    ];

    private const KINDS = [
        'jobTypes' => [
            'table' => 'job_types',
            'title' => 'Job types',
            'key' => ['code'],
            'fields' => [
                'code' => 'code:text',
                'name' => 'name:text',
                'route' => 'route:json',
                'scopes' => 'scopes:json?',
                'warrantyDays' => 'warranty_days:int',
                'warrantyKm' => 'warranty_km:int',
                'note' => 'note:text?',
            ],
        ],
        'vocabularies' => [
            'table' => 'vocabularies',
            'title' => 'Vocabularies',
            'key' => ['code'],
            'fields' => ['code' => 'code:text', 'source' => 'source:text', 'body' => 'body:json'],
        ],
        'parts' => [
            'table' => 'parts',
            'title' => 'Parts',
            'key' => ['number'],
            'fields' => [
                'number' => 'number:text',
                'name' => 'name:text',
                'kind' => 'kind:text',
                'price' => 'price:number',
                'thickness' => 'thickness:number?',
                'thicknessUnit' => 'thickness_unit:text?',
                'aliases' => 'aliases:json?',
                'singleUse' => 'single_use:bool?',
            ],
        ],
        'kits' => [
            'table' => 'kit_items',
            'title' => 'Kits',
            'key' => ['kit'],
            'fields' => ['kit' => 'number:text'],
            'list' => [
                'owners' => 'parts',
                'ownerId' => 'kit_id',
                'field' => 'items',
                'of' => ['part' => 'part_id:part', 'count' => 'count:int'],
            ],
        ],
        'partSets' => [
            'table' => 'part_set_items',
            'title' => 'All-or-nothing sets',
            'key' => ['code'],
            'fields' => ['code' => 'code:text', 'name' => 'name:text', 'why' => 'why:text'],
            'list' => [
                'owners' => 'part_sets',
                'ownerId' => 'set_id',
                'field' => 'parts',
                'of' => ['' => 'part_id:part'],
            ],
        ],
        'supersessions' => [
            'table' => 'supersessions',
            'title' => 'Supersessions',
            'key' => ['old', 'new'],
            'fields' => [
                'old' => 'old_part_id:part',
                'new' => 'new_part_id:part',
                'bothWays' => 'both_ways:bool',
                'source' => 'source:text',
            ],
        ],
        'equalParts' => [
            'table' => 'equal_parts',
            'title' => 'Equal parts',
            'key' => ['part', 'equals'],
            'fields' => [
                'part' => 'part_id:part',
                'equals' => 'equals_part_id:part',
                'note' => 'note:text?',
            ] + self::SOURCED,
        ],
        'vehicles' => [
            'table' => 'vehicles',
            'title' => 'Vehicles',
            'key' => ['code'],
            'fields' => [
                'code' => 'code:text',
                'maker' => 'maker:text',
                'model' => 'model:text',
                'fromYear' => 'from_year:int',
                'toYear' => 'to_year:int',
                'engine' => 'engine:text',
                'drive' => 'drive:text',
                'wmi' => 'wmi:text',
                'engineTorque_nm' => 'engine_torque_nm:number',
                'mass_kg' => 'mass_kg:number',
                'axleRatio' => 'axle_ratio:number',
                'tyre' => 'tyre:text?',
                'engineCurve' => 'engine_curve:json?',
                'steering' => 'steering:text?either',
                'vinPattern' => 'vin_pattern:text?',
                'facts' => 'facts:json?',
            ],
        ],
        'families' => [
            'table' => 'families',
            'title' => 'Families',
            'key' => ['code'],
            'fields' => [
                'code' => 'code:text',
                'name' => 'name:text',
                'topology' => 'topology:text',
                'train' => 'train:json',
                'body' => 'body:json',
            ],
        ],
        'variants' => [
            'table' => 'variants',
            'title' => 'Variants',
            'key' => ['code'],
            'family' => true,
            'fields' => [
                'code' => 'code:text',
                'name' => 'name:text',
                'fromYear' => 'from_year:int',
                'toYear' => 'to_year:int',
                'prior' => 'prior:number',
                'expect' => 'expect:json',
                'coreCharge' => 'core_charge:number',
                'scrapValue' => 'scrap_value:number',
                'facts' => 'facts:json',
                'hardware' => 'hardware:json?',
            ],
        ],
        'features' => ['spec' => 'feature', 'title' => 'Clues to a variant'],
        'packs' => ['spec' => 'pack', 'title' => 'Pack clearances'],
        'endPlays' => ['spec' => 'end-play', 'title' => 'End plays'],
        'fasteners' => ['spec' => 'fastener', 'title' => 'Fasteners'],
        'airChecks' => ['spec' => 'air-check', 'title' => 'Air checks'],
        'benchTests' => ['spec' => 'bench-test', 'title' => 'Tests at the bench'],
        'teardown' => ['spec' => 'teardown-step', 'title' => 'Teardown steps'],
        'assembly' => ['spec' => 'assembly-step', 'title' => 'Assembly steps'],
        'findings' => ['spec' => 'finding', 'title' => 'Inspection list'],
        'testPrograms' => ['spec' => 'test-program', 'title' => 'Test programs'],
        'converters' => ['spec' => 'converter', 'title' => 'Converters'],
        'options' => [
            'table' => 'options',
            'title' => 'Options',
            'key' => ['code'],
            'family' => true,
            'fields' => [
                'code' => 'code:text',
                'name' => 'name:text',
                'price' => 'price:number',
                'hours' => 'hours:number',
                'body' => 'body:json',
            ],
        ],
        'packages' => [
            'table' => 'packages',
            'title' => 'Packages',
            'key' => ['code'],
            'family' => true,
            'fields' => [
                'code' => 'code:text',
                'name' => 'name:text',
                'duty' => 'duty:text',
                'basePrice' => 'base_price:number',
                'baseHours' => 'base_hours:number',
                'body' => 'body:json',
            ],
        ],
        'applications' => [
            'table' => 'applications',
            'title' => 'Applications',
            'key' => ['vehicle', 'variant', 'fromYear'],
            'fields' => [
                'variant' => 'variant_id:variant',
                'vehicle' => 'vehicle_id:vehicle',
                'fromYear' => 'from_year:int',
                'toYear' => 'to_year:int',
            ] + self::SOURCED,
        ],
        'partFits' => [
            'table' => 'part_fits',
            'title' => 'Parts and the variants they fit',
            'key' => ['part', 'variant', 'fromYear'],
            'fields' => [
                'part' => 'part_id:part',
                'variant' => 'variant_id:variant',
                'fromYear' => 'from_year:int',
                'toYear' => 'to_year:int',
                'count' => 'count:int',
            ] + self::SOURCED,
        ],
        'conversions' => [
            'table' => 'conversions',
            'title' => 'Conversions',
            'key' => ['code'],
            'fields' => [
                'code' => 'code:text',
                'name' => 'name:text',
                'from' => 'from_variant_id:variant',
                'to' => 'to_variant_id:variant',
                'parts' => 'parts:json',
                'hours' => 'hours:number',
                'cost' => 'cost:number',
                'requires' => 'requires:json',
                'forbids' => 'forbids:json',
                'steps' => 'steps:json',
            ] + self::SOURCED,
        ],
        'evidence' => [
            'table' => 'evidence_models',
            'title' => 'Evidence tables',
            'key' => ['code'],
            'fields' => ['code' => 'code:text', 'body' => 'body:json', 'source' => 'source:text'],
        ],
    ];

    private const SPEC = [
        'table' => 'specs',
        'key' => ['code'],
        'family' => true,
        'fields' => ['code' => 'code:text', 'name' => 'name:text', 'body' => 'body:json'] +
            self::SOURCED + ['claims' => 'claims:json?', 'signed' => 'signed:json?'],
    ];

    /** What a code names, by type: table, column. */
    private const CODES = [
        'part' => ['parts', 'number'],
        'variant' => ['variants', 'code'],
        'vehicle' => ['vehicles', 'code'],
    ];

    /** @return list<string> kinds in the order they must be written */
    public static function kinds(): array
    {
        return array_keys(self::KINDS);
    }

    public static function has(string $kind): bool
    {
        return isset(self::KINDS[$kind]);
    }

    /** @return array<string, mixed> table, key, fields, and whether the kind lives inside a family */
    public static function of(string $kind): array
    {
        $map = self::KINDS[$kind];

        return isset($map['spec']) ? $map + self::SPEC : $map;
    }

    public static function inFamily(string $kind): bool
    {
        return self::of($kind)['family'] ?? false;
    }

    /**
     * @param  array<string, mixed>  $fields  node field => "column:type"
     * @param  array<string, array<string, int>>  $ids  type => code => id
     * @return array<string, mixed>
     */
    public static function row(array $fields, \stdClass|string $node, array $ids): array
    {
        $row = [];
        foreach ($fields as $name => $spec) {
            [$column, $type, $empty] = self::parse($spec);
            $value = $name === '' ? $node : $node->{$name} ?? null;
            $row[$column] = match (true) {
                isset(self::CODES[$type]) => $ids[$type][$value],
                $type === 'json' => self::json($value),
                $type === 'bool' => (int) $value,
                default => $value,
            } ?? self::absent($column, $type, $empty);
        }

        return $row;
    }

    /** What a column holds where the pack says nothing. */
    private static function absent(string $column, string $type, mixed $empty): mixed
    {
        return match (true) {
            in_array($column, ['thickness_unit', 'vin_pattern', 'signed'], true) => null,
            $type === 'json' => '[]',
            $type === 'text' => $empty,
            default => null,
        };
    }

    private static function json(mixed $value): ?string
    {
        return $value === null
            ? null
            : json_encode(
                $value,
                JSON_THROW_ON_ERROR | JSON_UNESCAPED_UNICODE | JSON_UNESCAPED_SLASHES | JSON_PRESERVE_ZERO_FRACTION,
            );
    }

    /**
     * @param  array<string, mixed>  $fields
     * @param  array<string, array<int, string>>  $codes  type => id => code
     */
    public static function node(array $fields, object $row, array $codes): \stdClass
    {
        $node = new \stdClass();
        foreach ($fields as $name => $spec) {
            [$column, $type, $empty, $optional] = self::parse($spec);
            $raw = $row->{$column};
            $value = match (true) {
                $raw === null => null,
                isset(self::CODES[$type]) => $codes[$type][(int) $raw],
                $type === 'json' => json_decode($raw),
                $type === 'bool' => (bool) $raw,
                $type === 'int' => (int) $raw,
                $type === 'number' => self::number($raw),
                default => $raw,
            };
            if (! $optional || ($value !== null && $value !== $empty && $value !== [] && $value !== false)) {
                $node->{$name} = $value;
            }
        }

        return $node;
    }

    /** A decimal column as the number it holds: 21.00 is 21. */
    private static function number(string|float|int $raw): int|float
    {
        $n = (float) $raw;

        return floor($n) === $n && abs($n) < 1e15 ? (int) $n : $n;
    }

    /** @return array{string, string, string, bool} column, type, empty value, optional */
    public static function parse(string $spec): array
    {
        [$column, $type] = explode(':', $spec);
        $optional = str_contains($type, '?');
        [$type, $empty] = $optional ? explode('?', $type) : [$type, ''];

        return [$column, $type, $empty, $optional];
    }

    /**
     * Ids of the codes that nodes name.
     *
     * @param  array<string, mixed>  $fields
     * @param  list<\stdClass|string>  $nodes
     * @return array<string, array<string, int>>
     */
    public static function ids(array $fields, array $nodes): array
    {
        $ids = [];
        foreach ($fields as $name => $spec) {
            $type = self::parse($spec)[1];
            if (isset(self::CODES[$type])) {
                [$table, $column] = self::CODES[$type];
                $wanted = array_values(array_unique(array_map(fn ($n) => $name === '' ? $n : $n->{$name}, $nodes)));
                $ids[$type] = ($ids[$type] ?? []) + self::idsOf($table, $column, $wanted);
            }
        }

        return $ids;
    }

    /**
     * @param  list<string>  $codes
     * @return array<string, int>
     */
    public static function idsOf(string $table, string $column, array $codes): array
    {
        $ids = [];
        foreach (array_chunk($codes, 1000) as $chunk) {
            $ids += DB::table($table)->whereIn($column, $chunk)->pluck('id', $column)->all();
        }

        return $ids;
    }

    /**
     * Codes of the ids that rows hold, as they are now (codes are keys and do not change).
     *
     * @param  array<string, mixed>  $fields
     * @param  iterable<object>  $rows
     * @return array<string, array<int, string>>
     */
    public static function codes(array $fields, iterable $rows): array
    {
        $wanted = [];
        foreach ($rows as $row) {
            foreach ($fields as $spec) {
                [$column, $type] = self::parse($spec);
                if (isset(self::CODES[$type])) {
                    $wanted[$type][(int) $row->{$column}] = true;
                }
            }
        }
        $codes = [];
        foreach ($wanted as $type => $ids) {
            [$table, $column] = self::CODES[$type];
            foreach (array_chunk(array_keys($ids), 1000) as $chunk) {
                $codes[$type] =
                    ($codes[$type] ?? []) + DB::table($table)->whereIn('id', $chunk)->pluck($column, 'id')->all();
            }
        }

        return $codes;
    }
}
