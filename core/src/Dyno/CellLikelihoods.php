<?php

declare(strict_types=1);

namespace Yard\Core\Dyno;

use Yard\Core\Drivetrain\ApplyChart;
use Yard\Core\Evidence\ChoiceFeature;
use Yard\Core\Evidence\EvidenceModel;
use Yard\Core\Evidence\Hypothesis;

/**
 * How well each element, each gear set and the control explain which shifts, gears and ranges of a test program failed:
 * a shift fails by what comes or what goes, a gear by what is applied, a ratio by the teeth of its sets. The shares are
 * a house table by feel, marked so where they are shown.
 */
final class CellLikelihoods
{
    /** Share of shifts that fail when what comes, what goes, or neither is the culprit. */
    private const SHIFT = ['comes' => 0.85, 'goes' => 0.35, 'other' => 0.06];

    private const GEAR = ['applied' => 0.6, 'other' => 0.03];

    private const ENGAGE = ['applied' => 0.6, 'other' => 0.05];

    private const RATIO = ['depends' => 0.95, 'other' => 0.01];

    /** How often an element makes a gear come as another gear whose ratio is exact: that is the valves' way. */
    private const EXACT = 0.05;

    /** What the control does to shifts, ranges and gears. */
    private const CONTROL = ['exact' => 0.9, 'shift' => 0.2, 'engage' => 0.3, 'gear' => 0.3];

    /** What fails beside what a gear set or the converter makes fail. */
    private const ELSEWHERE = 0.04;

    /** Least weight of what the diagnosis of the gears alone would not suspect. */
    private const LEAST = 0.03;

    /** A ratio is a gear's own within this, %. */
    private const RATIO_PCT = 1.5;

    /** @var array<string, bool> feature => whether it failed */
    private array $seen = [];

    /** @param  list<array{check: string, value: float|null, pass: bool, where: string}>  $checks */
    public function __construct(private readonly ApplyChart $chart, array $checks)
    {
        foreach ($checks as $check) {
            $feature = match (true) {
                preg_match('/^(\S+)-(\S+?)(, time \d+)?$/', $check['where'], $m) === 1 => 'shift',
                preg_match('/^gear (\S+?)( from .*)?$/', $check['where'], $m) === 1 => $this->ofGear($check, $m[1]),
                preg_match('/^range (\S+)$/', $check['where'], $m) === 1 => 'engage',
                default => null,
            };
            $gears = $feature === 'shift' ? array_slice($m, 1, 2) : array_slice($m, 1, 1);
            if ($feature !== null && array_filter($gears, $chart->has(...)) === $gears) {
                $feature = implode(':', [$feature, ...$gears]);
                $this->seen[$feature] = ($this->seen[$feature] ?? false) || ! $check['pass'];
            }
        }
    }

    /** @param  array{check: string, value: float|null}  $check */
    private function ofGear(array $check, string $gear): string
    {
        return match (true) {
            $check['check'] === 'Ratio against the chart' => 'ratio',
            $check['check'] === 'Gear comes' && $this->isOther($check['value'], $gear) => 'exact',
            default => 'gear',
        };
    }

    /** Whether a gear came as another one, exactly. */
    private function isOther(?float $ratio, string $gear): bool
    {
        foreach ($this->chart->ratios() as $other => $nominal) {
            $off = $ratio === null ? INF : abs($ratio / $nominal - 1.0) * 100.0;
            if ((string) $other !== $gear && $off < self::RATIO_PCT) {
                return true;
            }
        }

        return false;
    }

    /**
     * @param  array<string, float>  $prior  by element, from the diagnosis of the gears
     * @return array<string, float> posterior, the likeliest first
     */
    public function ranked(array $prior): array
    {
        $features = $observed = [];
        foreach ($this->seen as $feature => $failed) {
            $features[] = new ChoiceFeature($feature, ['fails', 'holds'], 0.98);
            $observed[$feature] = $failed ? 'fails' : 'holds';
        }
        $weight = static fn (string $id): float => max(self::LEAST, $prior[$id] ?? 0.0);
        $hypotheses = array_map(
            fn (string $id): Hypothesis => new Hypothesis($id, $weight($id), $this->expect($id)),
            $this->candidates(),
        );
        $out = [];
        foreach ((new EvidenceModel($features, $hypotheses))->given($observed)->hypotheses as $ranked) {
            $out[$ranked->id] = $ranked->posterior;
        }

        return $out;
    }

    /** @return array<string, array<string, float>> feature => value => how likely */
    private function expect(string $id): array
    {
        $expect = [];
        foreach (array_keys($this->seen) as $feature) {
            $p = $this->fails($id, explode(':', (string) $feature));
            $expect[$feature] = ['fails' => $p, 'holds' => 1.0 - $p];
        }

        return $expect;
    }

    /** @return non-empty-list<string> */
    private function candidates(): array
    {
        return [
            ...array_map(strval(...), array_keys($this->chart->train->elements)),
            ...array_map(static fn ($set): string => "set:$set->id", $this->chart->train->sets),
            'control',
            'converter',
        ];
    }

    /** @param  list<string>  $feature  kind, and gears */
    private function fails(string $id, array $feature): float
    {
        [$kind, $gear] = $feature;

        return match (true) {
            $kind === 'ratio' => self::RATIO[$this->turns($id, $gear) ? 'depends' : 'other'],
            $id === 'converter' || str_starts_with($id, 'set:') => self::ELSEWHERE,
            $id === 'control' => self::CONTROL[$kind],
            default => $this->elementFails($id, $feature),
        };
    }

    /** @param  list<string>  $feature */
    private function elementFails(string $id, array $feature): float
    {
        $place = $this->chart->carries($feature[1], $id) ? 'applied' : 'other';

        return match ($feature[0]) {
            'exact' => self::EXACT,
            'shift' => $this->shiftFails($id, $feature[1], $feature[2]),
            'engage' => self::ENGAGE[$place],
            default => self::GEAR[$place],
        };
    }

    private function shiftFails(string $id, string $from, string $to): float
    {
        [$before, $after] = [$this->chart->carries($from, $id), $this->chart->carries($to, $id)];

        return self::SHIFT[$after && ! $before ? 'comes' : ($before && ! $after ? 'goes' : 'other')];
    }

    /** Whether the ratio of a gear turns on the teeth of a set. */
    private function turns(string $id, string $gear): bool
    {
        return str_starts_with($id, 'set:') && in_array($gear, $this->chart->turning()[substr($id, 4)] ?? [], true);
    }

    /** What of the program speaks for it, in a sentence; empty where nothing does. */
    public function because(string $id): string
    {
        $said = [];
        foreach (array_keys(array_filter($this->seen)) as $feature) {
            $of = explode(':', (string) $feature);
            if ($this->fails($id, $of) >= 0.3) {
                $said[] = match ($of[0]) {
                    'shift' => "shift $of[1]-$of[2]",
                    'engage' => "range $of[1]",
                    'ratio' => "the ratio of gear $of[1]",
                    default => "gear $of[1]",
                };
            }
        }

        $turn = count($said) > 1 ? 'all turn' : 'it turns';

        return $said === [] ? '' : ucfirst(implode(', ', $said))." failed, and $turn on it.";
    }
}
