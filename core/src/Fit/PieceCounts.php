<?php

declare(strict_types=1);

namespace Yard\Core\Fit;

use Yard\Core\BadInput;

/**
 * How many pieces of each scarce part are taken, packed into whole numbers, so that two are added, and held against a
 * limit, in one step.
 */
final readonly class PieceCounts
{
    private const BITS = 15;

    /** Counts in one whole number: 60 of its bits. */
    private const FIELDS = 4;

    /** The top bit of a field stays free: it tells whether a difference fell below 0. */
    private const MOST = 16_383;

    private int $guards;

    /** @param  int  $parts  that are counted */
    public function __construct(private int $parts)
    {
        $guards = 0;
        for ($f = 0; $f < self::FIELDS; $f++) {
            $guards |= (self::MOST + 1) << (self::BITS * $f);
        }
        $this->guards = $guards;
    }

    /** @throws BadInput */
    public static function mustCount(int $pieces): void
    {
        $most = self::MOST;
        $pieces <= $most || throw new BadInput('too-many', "A build of a bin takes $most pieces at most.", '/builds');
    }

    /** @return array<int, int> */
    public function none(): array
    {
        return array_fill(0, intdiv($this->parts + self::FIELDS - 1, self::FIELDS), 0);
    }

    /**
     * @param  array<int, int>  $a
     * @param  array<int, int>  $b
     * @return array<int, int>
     */
    public static function sum(array $a, array $b): array
    {
        foreach ($b as $k => $counts) {
            $a[$k] += $counts;
        }

        return $a;
    }

    /**
     * @param  array<int, int>  $use
     * @param  array<int, int>  $limits
     */
    public function fits(array $use, array $limits): bool
    {
        foreach ($use as $k => $counts) {
            if (((($limits[$k] | $this->guards) - $counts) & $this->guards) !== $this->guards) {
                return false;
            }
        }

        return true;
    }

    /**
     * @param  array<int, int>  $pieces  by part
     * @return array<int, int>
     */
    public function packed(array $pieces): array
    {
        $counts = $this->none();
        foreach ($pieces as $part => $count) {
            $counts[intdiv($part, self::FIELDS)] += min($count, self::MOST) << (self::BITS * ($part % self::FIELDS));
        }

        return $counts;
    }

    /**
     * @param  array<int, int>  $left
     * @param  array<int, int>  $takes
     * @return array<int, int>|null what is left then; null where it does not suffice
     */
    public function left(array $left, array $takes): ?array
    {
        foreach ($takes as $k => $counts) {
            $after = ($left[$k] | $this->guards) - $counts;
            if (($after & $this->guards) !== $this->guards) {
                return null;
            }
            $left[$k] = $after & ~$this->guards;
        }

        return $left;
    }

    /**
     * @param  array<int, int>  $counts
     * @return array<int, int> part => pieces, only of those that are taken
     */
    public function listed(array $counts): array
    {
        $out = [];
        for ($part = 0; $part < $this->parts; $part++) {
            $field = $counts[intdiv($part, self::FIELDS)] >> (self::BITS * ($part % self::FIELDS));
            ($field & self::MOST) > 0 && $out[$part] = $field & self::MOST;
        }

        return $out;
    }
}
