<?php

declare(strict_types=1);

namespace Yard\Core\Hydraulics;

use Yard\Core\Input;

/**
 * A spring-loaded piston that takes up oil beside an element: pressure over volume, and how it fills through its feed.
 */
final readonly class Accumulator
{
    /**
     * @param  float  $area  mm2
     * @param  non-empty-list<array{volume_ml: float, pressure_kpa: float}>  $curve  straight between its points
     */
    private function __construct(
        public float $area,
        public float $startForce,
        public float $endForce,
        public array $curve,
        private ?Orifice $feed,
    ) {
    }

    /** Reads piston, springs, stroke and optionally "feed", the orifice it fills through. */
    public static function read(Input $in): self
    {
        $outer = $in->number('pistonDiameter_mm', above: 0.0);
        $rod = $in->numberOr('rodDiameter_mm', 0.0, min: 0.0, below: $outer);
        $area = (M_PI / 4.0) * ($outer ** 2 - $rod ** 2);
        $springs = array_map(Spring::read(...), $in->list('springs'));
        $back = $in->numberOr('backPressure_kpa', 0.0, min: 0.0);
        $stroke = $in->number('stroke_mm', min: 0.0);
        $installed = $in->number('installedLength_mm', above: 0.0);
        self::mustClear($in->at('stroke_mm'), $springs, $installed - $stroke);
        $force = static fn (float $length): float => array_sum(
            array_map(static fn (Spring $s): float => $s->force($length), $springs),
        );
        $curve = array_map(
            static fn (float $t): array => [
                'volume_ml' => ($area * $t) / 1000.0,
                'pressure_kpa' => $back + ($force($installed - $t) / $area) * 1000.0,
            ],
            self::bends($springs, $installed, $stroke),
        );
        $feed = $in->optional('feed');

        return new self(
            $area,
            $force($installed),
            $force($installed - $stroke),
            $curve,
            $feed === null ? null : Orifice::read($feed),
        );
    }

    /** @param  list<Spring>  $springs */
    private static function mustClear(Input $stroke, array $springs, float $shortest): void
    {
        $solid = max([0.0, ...array_map(static fn (Spring $s): float => $s->solid, $springs)]);
        if ($shortest < $solid) {
            [$travel, $least] = [Input::show($stroke->asNumber()), Input::show(round($solid, 6))];
            throw $stroke->fail(
                'solid',
                "A stroke of $travel mm presses a spring below its solid length of $least mm.",
            );
        }
    }

    /**
     * Where the curve bends: at both ends, and where a shorter inner spring begins to touch.
     *
     * @param  list<Spring>  $springs
     * @return non-empty-list<float> mm of travel
     */
    private static function bends(array $springs, float $installed, float $stroke): array
    {
        $touching = array_filter(
            array_map(static fn (Spring $s): float => $installed - $s->free, $springs),
            static fn (float $touch): bool => $touch > 0.0 && $touch < $stroke,
        );
        $travels = array_unique([0.0, ...array_values($touching), $stroke]);
        sort($travels);

        return $travels;
    }

    /** @return array{volume_ml: float, pressure_kpa: float} */
    public function end(): array
    {
        return $this->curve[count($this->curve) - 1];
    }

    public function hasFeed(): bool
    {
        return $this->feed !== null;
    }

    /**
     * The pressure behind the element while the piston gives way, in pieces line - (root - rate t)^2, t from the start
     * of the piece in s; the last one, at line pressure, has no end. Along a straight piece of the curve the flow falls
     * with the root of what is left to the line, so the root falls evenly.
     *
     * @param  float  $line  kPa before the feed orifice
     * @return non-empty-list<array{seconds: float, root: float, rate: float}>
     */
    public function filling(float $line): array
    {
        $pieces = [];
        $conductance = $this->feed?->conductance() ?? INF;
        foreach (array_slice($this->curve, 1) as $n => ['volume_ml' => $volume, 'pressure_kpa' => $pressure]) {
            ['volume_ml' => $from, 'pressure_kpa' => $start] = $this->curve[$n];
            if ($start >= $line || ! is_finite($conductance)) {
                break; // the line cannot move the piston any further
            }
            $root = sqrt($line - $start);
            $rate = ((($pressure - $start) / ($volume - $from)) * $conductance) / 2.0;
            $pieces[] = [
                'seconds' => $rate > 0.0
                        ? ($root - sqrt(max(0.0, $line - $pressure))) / $rate
                        : ($volume - $from) / ($conductance * $root),
                'root' => $root,
                'rate' => $rate,
            ];
        }

        return [...$pieces, ['seconds' => INF, 'root' => 0.0, 'rate' => 0.0]];
    }

    /** Seconds from the first movement to the end of the stroke; null where the line does not press it so far. */
    public function fillTime(float $line): ?float
    {
        return $this->feed === null || ($line <= $this->end()['pressure_kpa'] && $this->end()['volume_ml'] > 0.0)
            ? null
            : array_sum(array_slice(array_column($this->filling($line), 'seconds'), 0, -1));
    }
}
