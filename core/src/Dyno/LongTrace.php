<?php

declare(strict_types=1);

namespace Yard\Core\Dyno;

/**
 * The analysis of a recording of any length in the memory of a few minutes of it. It is read stretch by stretch and
 * cut where nothing happens: on the plateau of a gear, or where the output stands. What is read of the plateau before
 * the cut comes with the next stretch, so that its noise is known there too. A short run is read whole.
 */
final class LongTrace
{
    /** Samples held at most: three and a third minutes of the shipped rig, longer than any of its programs. */
    public const STRETCH = 40_000;

    /** So much of a plateau goes on into the next stretch, samples: its noise to three parts in a hundred. */
    private const OVERLAP = 1_200;

    /** A plateau to cut on, seconds, and how far from its end. */
    private const PLATEAU_S = 4.0;

    private const FROM_END_S = 2.0;

    /** Without a gear for so long, and the output stands: no shift is cut there. */
    private const STANDS_S = 10.0;

    /** A cut earlier than this share of the stretch would hardly get on. */
    private const GETS_ON = 0.1;

    private readonly JoinedTrace $joined;

    /** The first sample held, of the run. */
    private int $offset = 0;

    /** The first sample that belongs to no stretch yet, of the run. */
    private int $own = 0;

    private float $least = INF;

    /**
     * @param  float  $rate  samples a second
     * @param  array<string, float>  $ratios  gear => ratio of the chart
     */
    public function __construct(
        private readonly float $rate,
        private readonly array $ratios,
        private readonly Commands $commands,
    ) {
        $this->joined = new JoinedTrace($rate, $commands);
    }

    /**
     * @param  array<string, list<float>>  $channels  what is held now: what was left of the stretch before, and more
     * @return int how many of them are of no use any more
     */
    public function take(array $channels): int
    {
        $keep = 0;
        $this->read($channels, function (array $dwells, array $ratio) use (&$keep): int {
            [$cut, $keep] = $this->cut($dwells, $ratio);

            return $cut;
        });
        $this->offset += $keep;

        return $keep;
    }

    /**
     * @param  array<string, list<float>>  $channels  what is held at the end of the recording
     * @return array<string, mixed> as TraceAnalysis reports
     */
    public function report(array $channels): array
    {
        $this->read($channels, null);

        return $this->joined->report();
    }

    /**
     * @param  array<string, list<float>>  $channels
     * @param  (callable(list<Dwell>, list<?float>): int)|null  $last
     */
    private function read(array $channels, ?callable $last): void
    {
        $run = Recording::of($this->rate, $channels);
        $this->least = min($this->least, min($run->output));
        $offset = $this->offset / $this->rate;
        $analysis = new TraceAnalysis($run, $this->ratios, $this->commands->from($offset));
        $piece = $analysis->piece($this->least >= 0.0, $this->own - $this->offset, $last);
        $since = $this->own === 0 ? -INF : ($this->own - 1) / $this->rate;
        $this->joined->add($piece, $offset, $this->offset, $since);
        $this->own = $this->offset + $piece->last + 1;
    }

    /**
     * @param  list<Dwell>  $dwells
     * @param  list<?float>  $ratio
     * @return array{int, int} the last sample before the cut, and the first that the next stretch needs
     */
    private function cut(array $dwells, array $ratio): array
    {
        $count = count($ratio);
        $fromEnd = (int) ceil(self::FROM_END_S * $this->rate);
        $least = max((int) (self::GETS_ON * $count), $this->own - $this->offset);
        $best = [intdiv($count, 2), intdiv($count, 2)];
        $found = 0;
        foreach ($this->quiet($dwells, $ratio, $fromEnd) as [$from, $to]) {
            $cut = $to - $fromEnd;
            if ($cut > max($least, $found)) {
                [$found, $best] = [$cut, [$cut, max($from, $cut - self::OVERLAP)]];
            }
        }

        $found > 0 || $this->joined->cutAnywhere(($this->offset + $best[0]) / $this->rate);

        return $best;
    }

    /**
     * @param  list<Dwell>  $dwells
     * @param  list<?float>  $ratio
     * @return list<array{int, int}> plateaus, and where the output stands for long, by their samples
     */
    private function quiet(array $dwells, array $ratio, int $fromEnd): array
    {
        $quiet = [];
        $before = 0;
        foreach ([...$dwells, null] as $dwell) {
            $next = $dwell->first ?? count($ratio) - 1;
            if ($next - $before > self::STANDS_S * $this->rate && $ratio[$next - $fromEnd] === null) {
                $quiet[] = [$before, $next];
            }
            if ($dwell !== null && $dwell->steadyLast - $dwell->steadyFirst > self::PLATEAU_S * $this->rate) {
                $quiet[] = [$dwell->steadyFirst, $dwell->steadyLast];
            }
            $before = $dwell->last ?? $before;
        }

        return $quiet;
    }
}
