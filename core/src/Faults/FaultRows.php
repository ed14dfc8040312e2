<?php

declare(strict_types=1);

namespace Yard\Core\Faults;

use Yard\Core\Drivetrain\ApplyChart;

/**
 * Which row of the likelihood table speaks of a fault for a thing seen: from the torque each gear puts on a weak
 * element, and from what the train does with one that is stuck or dead.
 */
final class FaultRows
{
    private const EVEN = 1e-9;

    /** What is seen where nothing is wrong. */
    private const WELL = ['ok' => 0, 'normal' => 0, 'tight' => 0, 'sound' => 0, 'clean' => 0];

    /**
     * @var array<string, array<string,
     *     float>> gear => element => |torque| relative to the input torque; below 0 when applied but undetermined
     */
    private array $torque = [];

    public function __construct(
        private readonly ApplyChart $chart,
        private readonly Symptoms $symptoms,
        private readonly FaultOutcomes $outcomes,
        private readonly LikelihoodTable $table,
    ) {
        foreach ($chart->solved() as $gear => $solved) {
            foreach ($chart->applied[$gear] as $element) {
                $known = isset($solved->elementTorque[$element]);
                $this->torque[$gear][$element] = $known ? abs($solved->elementTorque[$element]) : -1.0;
            }
        }
    }

    /**
     * @param  list<string>  $open  features nobody has looked at yet
     * @return array<string, array<string, float>> feature => state => share
     */
    public function expected(Fault $fault, array $open = []): array
    {
        $out = [];
        foreach ([...array_keys($this->symptoms->seen), ...$open] as $feature) {
            [$kind] = Symptoms::split($feature);
            $out[$feature] = $this->table->likelihoods($kind, $this->row($fault, $feature));
        }
        foreach ($this->symptoms->codes as $code) {
            $stored = $this->table->stored($code->means, $this->codeRow($fault, $code));
            $out["code:$code->code"] = ['stored' => $stored, 'not stored' => 1.0 - $stored];
        }

        return $out;
    }

    /** @return list<string> good gears that could not be good with this fault */
    public function clearedBy(Fault $fault): array
    {
        return array_values(
            array_filter($this->symptoms->good(), fn (string $gear): bool => $this->clears($fault, $gear)),
        );
    }

    /** Whether a weak element is used by the gear, and could have shown itself there. */
    public function works(string $element, string $gear): bool
    {
        $torque = $this->torque[$gear][$element] ?? null;

        return match (true) {
            $torque === null => false,
            $torque >= 0.0 => $torque > self::EVEN,
            // What another element beside it carries alone does not slip when this one is weak.
            default => $this->outcomes->of($element, $this->dead($element), $gear) !== 'same',
        };
    }

    private function clears(Fault $fault, string $gear): bool
    {
        foreach ($fault->elements as $element) {
            $clears = $fault->isWeak()
                ? $this->works($element, $gear) && ! $this->isLighter($element, $gear)
                : $this->outcomes->of($element, $fault->kind, $gear) !== 'same';
            if ($clears) {
                return true;
            }
        }

        return false;
    }

    /** Of two weak elements the one speaks that leaves the least hope that all is well. */
    private function row(Fault $fault, string $feature): string
    {
        [$kind, $what] = Symptoms::split($feature);
        if ($fault->isOfUnit()) {
            return $fault->kind;
        }
        if (in_array($kind, Symptoms::ONCE, true)) {
            return $fault->priorRow();
        }
        $rows = array_map(
            fn (string $element): string => match ($kind) {
                'gear' => $this->gearRow($element, $fault->kind, $what),
                'shift' => $this->shiftRow($element, $fault->kind, $what),
                'finding' => $what === $element ? $fault->priorRow() : 'other',
                default => $what === $element && $fault->hasCircuit() ? $fault->kind : 'other',
            },
            $fault->elements,
        );
        $well = fn (string $row): float => max(
            array_intersect_key($this->table->likelihoods($kind, $row), self::WELL) ?: [0.0],
        );
        usort($rows, static fn (string $a, string $b): int => $well($a) <=> $well($b));

        return $rows[0];
    }

    private function gearRow(string $element, string $kind, string $gear): string
    {
        if ($kind !== 'weak') {
            $outcome = $this->outcomes->of($element, $kind, $gear);

            return $outcome === 'same' ? 'idle' : $outcome;
        }
        if (! $this->works($element, $gear)) {
            return 'idle';
        }

        // A good gear that loads the element less than a bad one does not clear it.
        return $this->symptoms->gear($gear) === 'ok' && $this->isLighter($element, $gear) ? 'carriesLess' : 'carries';
    }

    private function shiftRow(string $element, string $kind, string $shift): string
    {
        [$from, $to] = Symptoms::shift($shift);
        if ($kind !== 'weak') {
            $outcome = $this->outcomes->of($element, $kind, $to);

            return match (true) {
                $outcome === 'same' => 'idle',
                $this->outcomes->stays($element, $kind, $from, $to) => 'stays',
                default => $outcome,
            };
        }
        $before = $this->chart->carries($from, $element);
        $after = $this->chart->carries($to, $element);

        return $after && ! $before ? 'applies' : ($before && ! $after ? 'releases' : 'idle');
    }

    private function codeRow(Fault $fault, StoredCode $code): string
    {
        if ($fault->isOfUnit()) {
            return $fault->kind;
        }
        foreach ($fault->elements as $element) {
            $touched =
                $code->gear !== '' &&
                ($fault->isWeak()
                    ? $this->chart->carries($code->gear, $element)
                    : $this->outcomes->of($element, $fault->kind, $code->gear) !== 'same');
            if ($touched) {
                return 'carries';
            }
        }

        return 'idle';
    }

    private function isLighter(string $element, string $gear): bool
    {
        return $this->worstFailed($element) > $this->torque[$gear][$element] + self::EVEN;
    }

    /** The hardest a failed gear loads the element; below 0 where none does. */
    private function worstFailed(string $element): float
    {
        return max([-1.0, ...array_map(
            fn (string $gear): float => $this->torque[$gear][$element] ?? -1.0,
            $this->symptoms->failed(),
        )]);
    }

    private function dead(string $element): string
    {
        return $this->chart->train->elements[$element]->kind === 'one-way' ? 'free' : 'stuck-off';
    }
}
