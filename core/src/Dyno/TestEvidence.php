<?php

declare(strict_types=1);

namespace Yard\Core\Dyno;

use Yard\Core\Drivetrain\ApplyChart;
use Yard\Core\Faults\GearDiagnosis;
use Yard\Core\Faults\Symptoms;

/**
 * What a test run says of the unit in the words of the diagnosis, and whom it makes suspect. What the run itself was
 * read by (a sensor, a torque cell) and what feeds every element (the line) is suspected before any element is.
 *
 * @phpstan-import-type Analysis from JudgeTrace
 *
 * @phpstan-type Check array{check: string, value: float|null, min: float|null, max: float|null, pass: bool,
 *     where: string}
 * @phpstan-type Suspect array{element: string, because: string, posterior: float|null}
 */
final readonly class TestEvidence
{
    /** A ratio off by more than this in a gear is not that gear's, %. */
    private const RATIO_PCT = 1.5;

    /** From this share of the readings of the line on, the line itself is at fault. */
    private const LINE_SHARE = 0.3;

    private const UNSTEADY = ['Line pressure ripple', 'Line pressure above its mean'];

    private const MOST = 8;

    /** @var Analysis */
    private array $analysis;

    /**
     * @param  array<string, mixed>  $analysis  as TraceAnalysis reports it
     * @param  list<Check>  $checks
     */
    public function __construct(private ApplyChart $chart, array $analysis, private array $checks)
    {
        /** @var Analysis $analysis */
        $this->analysis = $analysis;
    }

    /**
     * @param  array<string, float>  $weak  how often what fails in this family
     * @return list<Suspect> the likeliest first; empty where nothing failed
     */
    public function suspects(array $weak = []): array
    {
        $failed = array_filter($this->checks, static fn (array $c): bool => ! $c['pass']);
        if ($failed === []) {
            return [];
        }
        $observed = $this->observed();
        $outside = [...$this->sensors(), ...$this->line()];
        $isBad = array_filter($observed, static fn (string $state): bool => $state !== 'ok') !== [];
        $beside = $this->beside();
        $inside = $isBad || $outside === [] && $beside === [] ? $this->inside($observed, $weak) : [];

        return array_slice([...$outside, ...$inside, ...$beside], 0, self::MOST);
    }

    /**
     * What lies in the unit: the diagnosis of its gears, then weighed by which shifts and gears of the program failed.
     *
     * @param  array<string, string>  $observed
     * @param  array<string, float>  $weak
     * @return list<Suspect>
     */
    private function inside(array $observed, array $weak): array
    {
        $prior = [];
        $because = [];
        $diagnosis = new GearDiagnosis($this->chart, new Symptoms($this->chart, $observed), $weak);
        foreach ($diagnosis->ranked()['suspects'] as $s) {
            /** @var array{element: string, posterior: float, because: string} $s */
            $prior[$s['element']] = max($prior[$s['element']] ?? 0.0, $s['posterior']);
            $because[$s['element']] ??= $s['because'];
        }
        $cell = new CellLikelihoods($this->chart, $this->checks);
        $out = [];
        foreach ($cell->ranked($prior) as $element => $posterior) {
            $said = $cell->because($element);
            $out[] = [
                'element' => $element,
                'because' => trim($said.' '.($said === '' ? $because[$element] ?? '' : '')),
                'posterior' => $posterior,
            ];
        }

        return $out;
    }

    /** @return array<string, string> gear, upshift ("2-3") or lockup => its state */
    public function observed(): array
    {
        $out = $this->gears();
        foreach ($this->shifts() as $shift => $states) {
            $out[$shift] = current(array_intersect(['flare', 'tie-up', 'harsh', 'delayed'], $states)) ?: 'ok';
        }
        $lockup = $this->lockupState();

        return $out + ($lockup === null ? [] : ['lockup' => $lockup]);
    }

    /** @return array<string, string> gear => its state */
    private function gears(): array
    {
        $out = [];
        $ratios = $this->chart->ratios();
        foreach ($this->analysis['gears'] as $gear) {
            $out[$gear['gear']] ??= 'ok';
            abs($gear['ratioErrorPct']) > self::RATIO_PCT && ($out[$gear['gear']] = 'wrong-ratio');
        }
        foreach ($this->analysis['notReached'] as $missing) {
            isset($ratios[$missing['gear']]) && ($out[$missing['gear']] = 'missing');
        }
        foreach ($this->analysis['slips'] ?? [] as $slip) {
            $out[$slip['gear']] = 'slips';
        }

        return $out;
    }

    /** @return array<string, list<string>> upshift => what was wrong with it */
    private function shifts(): array
    {
        $forward = array_keys(array_filter($this->chart->ratios(), static fn (float $r): bool => $r > 0.0));
        $out = [];
        foreach ($this->checks as $check) {
            $isShift = preg_match('/^(\S+)-(\S+?)(, time \d+)?$/', $check['where'], $m) === 1;
            $from = $isShift ? array_search($m[1], array_map(strval(...), $forward), true) : false;
            if ($from === false || (string) ($forward[$from + 1] ?? '') !== $m[2]) {
                continue;
            }
            $shift = "$m[1]-$m[2]";
            $out[$shift] ??= [];
            if (! $check['pass'] && $check['value'] !== null) {
                $out[$shift][] = self::stateOf($check);
            }
        }

        return $out;
    }

    /** @param  Check  $check  of a shift, that failed */
    private static function stateOf(array $check): string
    {
        return match ($check['check']) {
            'Flare' => 'flare',
            'Tie-up' => 'tie-up',
            default => $check['value'] < ($check['min'] ?? -INF) ? 'harsh' : 'delayed',
        };
    }

    private function lockupState(): ?string
    {
        $seen = false;
        foreach ($this->checks as $check) {
            if ($check['where'] !== 'lock-up') {
                continue;
            }
            $seen = true;
            if (! $check['pass']) {
                return match (true) {
                    $check['check'] === 'Hunting' => 'hunts',
                    str_starts_with($check['check'], 'Lock-up shudder') => 'shudder',
                    default => 'none',
                };
            }
        }

        return $seen ? 'ok' : null;
    }

    /** @return list<Suspect> */
    private function sensors(): array
    {
        foreach ($this->checks as $check) {
            if ($check['check'] === 'Sensor stands still' && ! $check['pass']) {
                return [[
                    'element' => "sensor:$check[where]",
                    'because' => "The reading of $check[where] did not move at all while everything turned: what it ".
                        'would have shown is not known.',
                    'posterior' => null,
                ]];
            }
        }
        $errors = [];
        foreach ($this->analysis['gears'] as $gear) {
            $errors[$gear['gear']] = $gear['ratioErrorPct'];
        }
        $signs = array_unique(array_map(static fn (float $e): int => $e <=> 0.0, $errors));
        $most = $errors === [] ? 0.0 : max(array_map(abs(...), $errors));
        $all = count($errors) > 0 && count($signs) === 1 && min(array_map(abs(...), $errors)) > 0.3;

        // Teeth are wrong in some gears and by a step; a sensor is wrong in all of them, and the same way.
        return ! $all || $most < self::RATIO_PCT / 2.0 ? [] : [[
            'element' => 'sensor:speed',
            'because' => 'Every gear is off the same way: a speed sensor drifts, or its wheel is another one.',
            'posterior' => null,
        ]];
    }

    /** @return list<Suspect> */
    private function line(): array
    {
        $all = array_filter($this->checks, static fn (array $c): bool => $c['check'] === 'Line pressure');
        $off = array_filter($all, static fn (array $c): bool => ! $c['pass']);
        $last = end($all);
        $isLine = count($off) >= self::LINE_SHARE * count($all) || ($last !== false && ! $last['pass']);
        if ($off !== [] && $isLine) {
            $low = count(array_filter($off, static fn (array $c): bool => $c['value'] < ($c['min'] ?? -INF)));
            $how = 2 * $low > count($off) ? 'low' : 'high';

            return [self::pressure(sprintf('%d of %d readings of the line are %s.', count($off), count($all), $how))];
        }
        foreach ($this->checks as $check) {
            if (! $check['pass'] && in_array($check['check'], self::UNSTEADY, true)) {
                return [self::pressure("The line is not steady: $check[check], $check[where].")];
            }
        }

        return [];
    }

    /** @return Suspect */
    private static function pressure(string $because): array
    {
        return ['element' => 'line-pressure', 'because' => $because, 'posterior' => null];
    }

    /** @return list<Suspect> */
    private function beside(): array
    {
        $out = [];
        foreach ($this->checks as $check) {
            if ($check['pass']) {
                continue;
            }
            $element = match ($check['check']) {
                'Cooler flow' => 'cooler',
                'Torque out over torque in' => 'torque-cell',
                default => null,
            };
            $element === null || $out[$element] ??= [
                'element' => $element,
                'because' => $element === 'cooler'
                    ? 'Too little flows through the cooler: it is blocked, or feed and return are changed over.'
                    : 'More or less torque comes out than teeth and losses allow: a torque cell of the rig is off.',
                'posterior' => null,
            ];
        }

        return array_values($out);
    }
}
