<?php

declare(strict_types=1);

namespace Yard\Core\Evidence;

use Yard\Core\BadInput;
use Yard\Core\Input;
use Yard\Core\Maths\Special;

/**
 * Agreement of two people who graded the same parts, beyond what chance gives: Cohen 1960 and, weighted, 1968; the
 * error of Fleiss, Cohen and Everitt 1969.
 */
final readonly class Agreement
{
    /**
     * @param  list<list<float>>  $shares  of pairs, first by second grade
     * @param  list<list<float>>  $weights  1: the same, 0: as far apart as can be
     */
    private function __construct(public int $n, private array $shares, private array $weights)
    {
    }

    /** @throws BadInput */
    public static function read(Input $in): self
    {
        $pairs = array_map(self::pair(...), $in->list('pairs', 1));
        $weighted = $in->choice('weights', ['none', 'linear', 'quadratic']);
        if ($weighted !== 'none' && ! $in->has('order')) {
            throw $in->fail('missing', 'The field "order" is missing: weights need the order of the grades.');
        }
        $grades = $in->has('order') ? self::order($in->at('order')) : self::named($pairs);

        return self::of($pairs, $grades, $weighted);
    }

    /**
     * @param  list<array{string, string}>  $pairs  grades of the first and the second person
     * @param  list<string>  $grades  in their order, each once
     * @param  string  $weighted  how much near grades count: none, linear or quadratic
     *
     * @throws BadInput for a grade that is none, or where all are the same
     */
    public static function of(array $pairs, array $grades, string $weighted): self
    {
        $place = array_flip($grades);
        $shares = array_fill(0, count($grades), array_fill(0, count($grades), 0.0));
        foreach ($pairs as $i => $pair) {
            foreach ($pair as $k => $grade) {
                isset($place[$grade]) ||
                    throw new BadInput('choice', "\"$grade\" is not one of the grades.", "/pairs/$i/$k");
            }
            $shares[$place[$pair[0]]][$place[$pair[1]]] += 1.0 / count($pairs);
        }
        if (count(array_unique(array_merge(...$pairs))) === 1) {
            throw new BadInput('undefined', 'All grades are the same, so agreement says nothing.', '/pairs');
        }

        return new self(count($pairs), array_map(array_values(...), $shares), self::weights(count($grades), $weighted));
    }

    /** @return array{string, string} */
    private static function pair(Input $pair): array
    {
        $both = $pair->asStrings();
        if (count($both) !== 2) {
            throw $pair->fail('range', 'A pair has the grades of two people.');
        }

        return [$both[0], $both[1]];
    }

    /** @return list<string> */
    private static function order(Input $in): array
    {
        $order = $in->asStrings();
        if (count($order) < 2 || count(array_unique($order)) !== count($order)) {
            throw $in->fail('range', 'The order needs at least two grades, each once.');
        }

        return $order;
    }

    /**
     * @param  list<array{string, string}>  $pairs
     * @return list<string>
     */
    private static function named(array $pairs): array
    {
        return array_map(strval(...), array_keys(array_flip(array_merge(...$pairs))));
    }

    /** @return list<list<float>> */
    private static function weights(int $grades, string $kind): array
    {
        $power = ['none' => 0, 'linear' => 1, 'quadratic' => 2][$kind];
        $weights = [];
        for ($i = 0; $i < $grades; $i++) {
            for ($j = 0; $j < $grades; $j++) {
                $apart = $power === 0 ? ($i === $j ? 0.0 : 1.0) : (abs($i - $j) / ($grades - 1)) ** $power;
                $weights[$i][$j] = 1.0 - $apart;
            }
        }

        return array_map(array_values(...), array_values($weights));
    }

    public function observed(): float
    {
        return $this->sum(fn (int $i, int $j): float => $this->shares[$i][$j] * $this->weights[$i][$j]);
    }

    public function expected(): float
    {
        [$first, $second] = $this->margins();

        return $this->sum(fn (int $i, int $j): float => $first[$i] * $second[$j] * $this->weights[$i][$j]);
    }

    public function kappa(): float
    {
        $chance = $this->expected();

        return ($this->observed() - $chance) / (1.0 - $chance);
    }

    /**
     * Large-sample bounds, cut to -1 and 1.
     *
     * @return array{float, float}
     */
    public function bounds(float $confidence): array
    {
        $reach = Special::invert(Special::normalCdf(...), (1.0 + $confidence) / 2.0, 0.0, 9.0) * $this->standardError();

        return [max(-1.0, $this->kappa() - $reach), min(1.0, $this->kappa() + $reach)];
    }

    /** Large-sample, where kappa is not nought. */
    public function standardError(): float
    {
        [$po, $pe] = [$this->observed(), $this->expected()];
        [$first, $second] = $this->margins();
        $rows = $columns = [];
        foreach (array_keys($first) as $i) {
            $rows[$i] = array_sum(array_map(fn (float $p, float $w) => $p * $w, $second, $this->weights[$i]));
            $columns[$i] = array_sum(array_map(
                fn (float $p, float $w) => $p * $w,
                $first,
                array_column($this->weights, $i),
            ));
        }
        $spread = $this->sum(fn (int $i, int $j): float => $this->shares[$i][$j] *
            ($this->weights[$i][$j] * (1.0 - $pe) - ($rows[$i] + $columns[$j]) * (1.0 - $po)) ** 2);
        $variance = ($spread - ($po * $pe - 2.0 * $pe + $po) ** 2) / ($this->n * (1.0 - $pe) ** 4);

        return sqrt(max(0.0, $variance));
    }

    /** @return array{list<float>, list<float>} shares of each grade, by the first and by the second person */
    private function margins(): array
    {
        $second = [];
        foreach (array_keys($this->shares) as $j) {
            $second[] = array_sum(array_column($this->shares, $j));
        }

        return [array_map(array_sum(...), $this->shares), $second];
    }

    /** @param  callable(int, int): float  $of */
    private function sum(callable $of): float
    {
        $sum = 0.0;
        foreach ($this->shares as $i => $row) {
            foreach (array_keys($row) as $j) {
                $sum += $of($i, $j);
            }
        }

        return $sum;
    }
}
