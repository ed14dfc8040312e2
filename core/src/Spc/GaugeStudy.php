<?php

declare(strict_types=1);

namespace Yard\Core\Spc;

use Yard\Core\BadInput;
use Yard\Core\Maths\Special;

/**
 * How much a gauge and the people at it spread the same parts: crossed analysis of variance (AIAG, Measurement Systems
 * Analysis, 4th ed., from memory). The interaction of people and parts is pooled where it is none at five per cent.
 */
final readonly class GaugeStudy
{
    /** Interaction above this probability is chance. */
    private const CHANCE = 0.05;

    private const LARGEST = 100;

    /** Width of a part's spread in steps of the gauge's own spread that it can tell apart. */
    private const STEPS = 1.41;

    /**
     * @param  float  $repeatability  standard deviation of one person measuring one part again
     * @param  float  $reproducibility  between people, their interaction with the parts in it
     * @param  float  $parts  standard deviation between the parts
     * @param  float|null  $interaction  probability that the interaction is chance; null: nothing to tell it by
     */
    private function __construct(
        public float $repeatability,
        public float $reproducibility,
        public float $parts,
        public ?float $interaction,
    ) {
    }

    /**
     * @param  list<list<list<float>>>  $readings  by person, part and trial; as many of each for all
     *
     * @throws BadInput where the study is not crossed and balanced
     */
    public static function of(array $readings): self
    {
        [$people, $parts, $trials] = self::shape($readings);
        $mean = static fn (array $values): float => array_sum($values) / count($values);
        $cells = array_map(static fn (array $ofPerson): array => array_map($mean, $ofPerson), $readings);
        $ofPeople = array_map($mean, $cells);
        $ofParts = array_map(static fn (int $k): float => $mean(array_column($cells, $k)), range(0, $parts - 1));
        $all = $mean($ofPeople);
        $error = 0.0;
        foreach ($readings as $i => $ofPerson) {
            foreach ($ofPerson as $k => $values) {
                foreach ($values as $value) {
                    $error += ($value - $cells[$i][$k]) ** 2;
                }
            }
        }
        $squares = [
            'people' => $parts * $trials * self::around($ofPeople, $all),
            'parts' => $people * $trials * self::around($ofParts, $all),
            'error' => $error,
        ];
        $squares['both'] = max(
            0.0,
            $trials * self::around(array_merge(...$cells), $all) - $squares['people'] - $squares['parts'],
        );

        return self::components($squares, $people, $parts, $trials);
    }

    /** @param  list<float>  $means */
    private static function around(array $means, float $all): float
    {
        return array_sum(array_map(static fn (float $m): float => ($m - $all) ** 2, $means));
    }

    /** Standard deviation of the whole gauge: the instrument and the people. */
    public function gauge(): float
    {
        return hypot($this->repeatability, $this->reproducibility);
    }

    /** Groups of parts the gauge tells apart; at least one. */
    public function categories(): int
    {
        return $this->gauge() === 0.0 ? PHP_INT_MAX : max(1, (int) floor(self::STEPS * $this->parts / $this->gauge()));
    }

    /** Six standard deviations of the gauge as a share of a window: over 0.3 it cannot judge it. */
    public function shareOf(float $window): float
    {
        return 6.0 * $this->gauge() / $window;
    }

    /**
     * @param  list<list<list<float>>>  $readings
     * @return array{int, int, int}
     */
    private static function shape(array $readings): array
    {
        [$people, $parts] = [count($readings), count($readings[0] ?? [])];
        $trials = count($readings[0][0] ?? []);
        if ($people < 2 || $parts < 2 || $trials < 2 || max($people, $parts, $trials) > self::LARGEST) {
            throw new BadInput('range', 'A study needs two people, two parts and two trials at least.', '/readings');
        }
        foreach ($readings as $i => $ofPerson) {
            foreach ($ofPerson as $k => $values) {
                if (count($ofPerson) !== $parts || count($values) !== $trials) {
                    throw new BadInput(
                        'range',
                        "Everybody measures every part equally often: $parts parts, $trials times.",
                        "/readings/$i/$k",
                    );
                }
            }
        }

        return [$people, $parts, $trials];
    }

    /** @param  array{people: float, parts: float, both: float, error: float}  $squares */
    private static function components(array $squares, int $people, int $parts, int $trials): self
    {
        $free = ['both' => ($people - 1) * ($parts - 1), 'error' => $people * $parts * ($trials - 1)];
        $error = $squares['error'] / $free['error'];
        $both = $squares['both'] / $free['both'];
        $chance = $error > 0.0 ? self::exceeds($both / $error, $free['both'], $free['error']) : null;
        if ($chance !== null && $chance > self::CHANCE) {
            $error = ($squares['error'] + $squares['both']) / ($free['error'] + $free['both']);
            $both = $error;
        }
        $variance = static fn (float $of, float $against, int $times): float => max(0.0, ($of - $against) / $times);
        $interaction = $variance($both, $error, $trials);
        $between = $variance($squares['people'] / ($people - 1), $both, $parts * $trials);

        return new self(
            sqrt($error),
            sqrt($interaction + $between),
            sqrt($variance($squares['parts'] / ($parts - 1), $both, $people * $trials)),
            $chance,
        );
    }

    /** Probability that a ratio of variances is larger than this by chance. */
    private static function exceeds(float $ratio, int $above, int $below): float
    {
        return 1.0 - Special::betaI($above * $ratio / ($above * $ratio + $below), $above / 2.0, $below / 2.0);
    }
}
