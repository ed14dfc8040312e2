<?php

namespace App\Kernel\Ledger;

use Illuminate\Database\Connection;

/** Knows when two values are the same to a column: the one an event wrote, and the one the database gives back. */
final readonly class ColumnTypes
{
    private const WHOLE = ['tinyint', 'smallint', 'mediumint', 'int', 'bigint', 'year'];

    /** @param  array<string, \stdClass>  $columns  type, scale, default */
    private function __construct(private array $columns)
    {
    }

    public static function of(Connection $db, string $table): self
    {
        $rows = $db
            ->table('information_schema.columns')
            ->where('table_schema', $db->getDatabaseName())
            ->where('table_name', $table)
            ->where('extra', 'not like', '%GENERATED%')
            ->whereNotIn('column_name', ['id', ...(AccountedTables::FLEETING[$table] ?? [])])
            ->get(['column_name AS name', 'data_type AS type', 'numeric_scale AS scale', 'column_default AS preset']);

        return new self($rows->keyBy('name')->all());
    }

    /**
     * @param  array<string, mixed>  $written
     * @param  array<string, mixed>  $actual
     * @return array<string, array{mixed, mixed}> column => what the events say, what the row says
     */
    public function differences(array $written, array $actual): array
    {
        $out = [];
        foreach ($this->columns as $name => $column) {
            $known = array_key_exists($name, $written);
            if (! $known && str_ends_with((string) $column->preset, ')')) {
                continue; // a default that is reckoned, such as the time of the insert
            }
            $says = $known ? $written[$name] : self::preset($column->preset);
            $this->same($column, $says, $actual[$name]) || ($out[$name] = [$says, $actual[$name]]);
        }

        return $out;
    }

    /** The database's own words for a default: 'text' in quotes, a number, NULL. */
    private static function preset(?string $preset): ?string
    {
        return match (true) {
            $preset === null, $preset === 'NULL' => null,
            str_starts_with($preset, "'") => stripslashes(substr($preset, 1, -1)),
            default => $preset,
        };
    }

    private function same(\stdClass $column, mixed $says, mixed $is): bool
    {
        if ($says === null || $is === null) {
            return $says === $is;
        }

        return match (true) {
            in_array($column->type, self::WHOLE, true) => (int) $says === (int) $is,
            $column->type === 'decimal' => abs((float) $says - (float) $is) <=
                0.5 * 10 ** -(int) $column->scale + 1e-12 * abs((float) $is),
            in_array($column->type, ['double', 'float'], true) => abs((float) $says - (float) $is) <=
                1e-12 * abs((float) $is),
            $column->type === 'date' => substr((string) $says, 0, 10) === (string) $is,
            in_array($column->type, ['datetime', 'timestamp'], true) => self::moment($says) === self::moment($is),
            $column->type === 'longtext' => $says === $is || self::sameJson((string) $says, (string) $is),
            default => (string) $says === (string) $is,
        };
    }

    private static function moment(mixed $time): string
    {
        return rtrim(rtrim(str_pad((string) $time, 20, '.'), '0'), '.');
    }

    private static function sameJson(string $a, string $b): bool
    {
        [$left, $right] = [json_decode($a, true), json_decode($b, true)];

        return $left !== null && $left == $right;
    }
}
