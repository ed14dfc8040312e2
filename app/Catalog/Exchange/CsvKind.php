<?php

namespace App\Catalog\Exchange;

/** What a CSV import of one kind reads, checks and writes. */
final class CsvKind
{
    private const CONFIDENCE = ['documented', 'shop-measured', 'borrowed', 'recalled', 'unverified'];

    private const PART_KINDS = ['soft', 'hard', 'selective', 'fastener', 'converter', 'fluid', 'outside', 'kit'];

    public const KINDS = [
        'parts' => [
            'title' => 'Parts',
            'required' => ['number', 'name', 'kind', 'price'],
            'optional' => ['thickness', 'thickness_unit', 'aliases', 'single_use'],
            'table' => 'parts',
            'key' => ['number'],
            'names' => [],
        ],
        'prices' => [
            'title' => 'Prices',
            'required' => ['number', 'price'],
            'optional' => [],
            'table' => 'parts',
            'key' => ['number'],
            'names' => [],
        ],
        'applications' => [
            'title' => 'Applications',
            'required' => ['variant', 'vehicle', 'from_year', 'to_year', 'source', 'confidence'],
            'optional' => ['edition'],
            'table' => 'applications',
            'key' => ['vehicle_id', 'variant_id', 'from_year'],
            'names' => ['variant' => ['variants', 'code'], 'vehicle' => ['vehicles', 'code']],
        ],
        'stock' => [
            'title' => 'Shelf stock',
            'required' => ['part', 'lot', 'quantity', 'received_on'],
            'optional' => ['supplier', 'place'],
            'table' => 'stock_lots',
            'key' => ['part_id', 'lot'],
            'names' => ['part' => ['parts', 'number']],
        ],
    ];

    /**
     * One line as the row of its table. Codes are still names here; they become ids when the whole chunk is looked up.
     *
     * @param  array<string, string>  $in
     * @return array<string, mixed>
     *
     * @throws CsvRefusal
     */
    public static function row(string $kind, array $in): array
    {
        return match ($kind) {
            'parts' => self::part($in),
            'prices' => ['number' => self::text($in, 'number', 40), 'price' => self::money($in, 'price')],
            'applications' => [
                'variant' => self::text($in, 'variant', 40),
                'vehicle' => self::text($in, 'vehicle', 40),
                'source' => self::text($in, 'source', 160),
                'edition' => $in['edition'] ?? '',
                'confidence' => self::choice($in, 'confidence', self::CONFIDENCE),
            ] + self::years($in),
            'stock' => [
                'part' => self::text($in, 'part', 40),
                'lot' => self::text($in, 'lot', 40),
                'quantity' => self::whole($in, 'quantity', 0, 1_000_000),
                'received_on' => self::date($in, 'received_on'),
                'supplier' => $in['supplier'] ?? '',
                'place' => $in['place'] ?? '',
            ],
            default => throw new \LogicException("There is no CSV kind \"$kind\"."),
        };
    }

    /**
     * @param  array<string, string>  $in
     * @return array<string, mixed> what the file does not name stays as it is
     */
    private static function part(array $in): array
    {
        $row = [
            'number' => self::text($in, 'number', 40),
            'name' => self::text($in, 'name', 120),
            'kind' => self::choice($in, 'kind', self::PART_KINDS),
            'price' => self::money($in, 'price'),
        ] + self::thickness($in);
        if (isset($in['aliases'])) {
            $aliases = array_values(array_filter(array_map(trim(...), explode('|', $in['aliases']))));
            $row['aliases'] = json_encode($aliases, JSON_UNESCAPED_UNICODE);
        }
        if (isset($in['single_use'])) {
            $row['single_use'] = (int) self::yes($in, 'single_use');
        }

        return $row;
    }

    /** @param  array<string, string>  $in */
    private static function text(array $in, string $column, int $longest): string
    {
        return match (true) {
            $in[$column] === '' => throw new CsvRefusal("The column \"$column\" is empty."),
            mb_strlen($in[$column]) > $longest => throw new CsvRefusal(
                "The column \"$column\" may have $longest characters.",
            ),
            default => $in[$column],
        };
    }

    /**
     * @param  array<string, string>  $in
     * @param  list<string>  $allowed
     */
    private static function choice(array $in, string $column, array $allowed): string
    {
        return in_array($in[$column], $allowed, true)
            ? $in[$column]
            : throw new CsvRefusal(
                "\"{$in[$column]}\" is no $column; choose one of ".implode(', ', $allowed).'.',
            );
    }

    /** @param  array<string, string>  $in */
    private static function number(array $in, string $column): float
    {
        if (preg_match('/^\d+,\d+$/', $in[$column]) === 1) {
            throw new CsvRefusal(
                "The column \"$column\" must have a decimal point: ".
                    str_replace(',', '.', $in[$column]).
                    ', not '.
                    $in[$column].
                    '.',
            );
        }

        return preg_match('/^-?\d+(\.\d+)?$/', $in[$column]) === 1
            ? (float) $in[$column]
            : throw new CsvRefusal("The column \"$column\" must be a number, not \"{$in[$column]}\".");
    }

    /** @param  array<string, string>  $in */
    private static function money(array $in, string $column): float
    {
        $n = self::number($in, $column);

        return $n >= 0 && $n < 1e8 && round($n, 2) === $n
            ? $n
            : throw new CsvRefusal(
                "The column \"$column\" must be a price of 0 or more with two decimals, not {$in[$column]}.",
            );
    }

    /** @param  array<string, string>  $in */
    private static function whole(array $in, string $column, int $min, int $max): int
    {
        $n = self::number($in, $column);

        return floor($n) === $n && $n >= $min && $n <= $max
            ? (int) $n
            : throw new CsvRefusal(
                "The column \"$column\" must be a whole number from $min to $max, not {$in[$column]}.",
            );
    }

    /** @param  array<string, string>  $in */
    private static function yes(array $in, string $column): bool
    {
        return match (strtolower($in[$column])) {
            'yes', 'true', '1' => true,
            'no', 'false', '0', '' => false,
            default => throw new CsvRefusal("The column \"$column\" must be yes or no, not \"{$in[$column]}\"."),
        };
    }

    /** @param  array<string, string>  $in */
    private static function date(array $in, string $column): string
    {
        $date = \DateTimeImmutable::createFromFormat('!Y-m-d', $in[$column]);

        return $date !== false && $date->format('Y-m-d') === $in[$column]
            ? $in[$column]
            : throw new CsvRefusal("The column \"$column\" must be a date like 2026-11-24, not \"{$in[$column]}\".");
    }

    /**
     * @param  array<string, string>  $in
     * @return array{from_year: int, to_year: int}
     */
    private static function years(array $in): array
    {
        $years = [
            'from_year' => self::whole($in, 'from_year', 1950, 2100),
            'to_year' => self::whole($in, 'to_year', 1950, 2100),
        ];

        return $years['from_year'] <= $years['to_year']
            ? $years
            : throw new CsvRefusal(
                'The years must run forward, not from '.$years['from_year'].' to '.$years['to_year'].'.',
            );
    }

    /**
     * @param  array<string, string>  $in
     * @return array<string, mixed>
     */
    private static function thickness(array $in): array
    {
        if (! isset($in['thickness']) && ! isset($in['thickness_unit'])) {
            return [];
        }
        $given = [($in['thickness'] ?? '') !== '', ($in['thickness_unit'] ?? '') !== ''];

        return match ($given) {
            [false, false] => ['thickness' => null, 'thickness_unit' => null],
            [true, true] => [
                'thickness' => self::number($in, 'thickness') > 0
                        ? (float) $in['thickness']
                        : throw new CsvRefusal('The column "thickness" must be greater than 0.'),
                'thickness_unit' => self::choice($in, 'thickness_unit', ['in', 'mm', 'um']),
            ],
            default => throw new CsvRefusal('A thickness needs its unit, and a unit its thickness.'),
        };
    }
}
