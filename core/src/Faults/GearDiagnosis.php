<?php

declare(strict_types=1);

namespace Yard\Core\Faults;

use Yard\Core\BadInput;
use Yard\Core\Drivetrain\ApplyChart;
use Yard\Core\Evidence\ChoiceFeature;
use Yard\Core\Evidence\EvidenceModel;
use Yard\Core\Evidence\Hypothesis;

/**
 * Which element failed: hypotheses from the apply chart and the torque each gear puts on each element, ranked by their
 * evidence. A good gear clears an element only when it loads the element at least as hard as a bad gear does.
 */
final class GearDiagnosis
{
    public const GEAR_STATES = ['ok', 'slips', 'missing'];

    public const SHIFT_STATES = ['ok', 'flare', 'tie-up', 'delayed'];

    public const PRESSURES = ['low', 'normal', 'high'];

    private const OTHERS = ['line-pressure', 'converter', 'control'];

    private const EVEN = 1e-9;

    /**
     * @var array<string, array<string,
     *     float>> gear => element => |torque| relative to the input torque; below 0 when applied but undetermined
     */
    private array $torque = [];

    /** @var array<string, string> feature ("gear:4", "shift:2-3", "pressure:C1") => what was seen */
    private array $observed = [];

    private readonly LikelihoodTable $table;

    /**
     * @param  array<string, string>  $seen  gear or shift ("2-3") => its state
     * @param  array<string, string>  $pressures  circuit => low, normal, high
     * @param  list<StoredCode>  $codes
     * @param  array<string, float>  $weak  hypothesis => how much more often than others it fails in this family
     *
     * @throws BadInput at /observed, /pressures, /codes or /weak
     */
    public function __construct(
        private readonly ApplyChart $chart,
        array $seen,
        array $pressures = [],
        private readonly array $codes = [],
        private readonly array $weak = [],
    ) {
        $this->table = LikelihoodTable::house();
        foreach ($chart->solved() as $gear => $solved) {
            foreach ($chart->applied[$gear] as $element) {
                $this->torque[$gear][$element] = abs($solved->elementTorque[$element] ?? -1.0) *
                    ($solved->elementTorque === [] ? -1.0 : 1.0);
            }
        }
        foreach ($seen as $what => $state) {
            $this->observe((string) $what, $state);
        }
        foreach ($pressures as $circuit => $level) {
            $this->observed["pressure:$circuit"] = self::oneOf($level, self::PRESSURES, "/pressures/$circuit");
        }
        foreach (array_keys($weak) as $id) {
            in_array((string) $id, $this->hypotheses(), true) ||
                throw new BadInput('unknown-element', "There is no element \"$id\".", "/weak/$id");
        }
        foreach ($codes as $n => $code) {
            $code->gear === '' ||
                $chart->has($code->gear) ||
                throw new BadInput(
                    'unknown-gear',
                    "There is no gear \"$code->gear\" in the chart.",
                    "/codes/$n/gear",
                );
        }
    }

    /**
     * @return array{suspects: list<array{element: string, posterior: float, because: string,
     *     clearedBy?: list<string>}>, entropyBits: float}
     */
    public function ranked(): array
    {
        $stored = array_map(static fn (StoredCode $c): string => "code:$c->code", $this->codes);
        $hypotheses = array_map($this->hypothesis(...), $this->hypotheses());
        $ranking = (new EvidenceModel($this->features(), $hypotheses))->given(
            $this->observed + array_fill_keys($stored, 'stored'),
        );
        $suspects = [];
        foreach ($ranking->hypotheses as $row) {
            $clearedBy = $this->clearedBy($row->id);
            $suspects[] =
                [
                    'element' => $row->id,
                    'posterior' => $row->posterior,
                    'because' => $this->because($row->id, $clearedBy),
                ] + ($clearedBy === [] ? [] : ['clearedBy' => $clearedBy]);
        }

        return ['suspects' => $suspects, 'entropyBits' => $ranking->entropyBits];
    }

    private function observe(string $what, string $state): void
    {
        if ($this->chart->has($what)) {
            $this->observed["gear:$what"] = self::oneOf($state, self::GEAR_STATES, "/observed/$what");

            return;
        }
        [$from, $to] = array_pad(explode('-', $what, 2), 2, '');
        if (! $this->chart->has($from) || ! $this->chart->has($to)) {
            throw new BadInput(
                'unknown-gear',
                "\"$what\" is neither a gear of the chart nor a shift between two of them.",
                "/observed/$what",
            );
        }
        $this->observed["shift:$what"] = self::oneOf($state, self::SHIFT_STATES, "/observed/$what");
    }

    /** @param  list<string>  $allowed */
    private static function oneOf(string $value, array $allowed, string $at): string
    {
        if (! in_array($value, $allowed, true)) {
            throw new BadInput('choice', "\"$value\" must be one of ".implode(', ', $allowed).'.', $at);
        }

        return $value;
    }

    /** @return non-empty-list<string> */
    private function hypotheses(): array
    {
        return [...array_map(strval(...), array_keys($this->chart->train->elements)), ...self::OTHERS];
    }

    private function hypothesis(string $id): Hypothesis
    {
        $isElement = ! in_array($id, self::OTHERS, true);
        $expect = [];
        foreach (array_keys($this->observed) as $feature) {
            $row = $isElement ? $this->row($id, $feature) : $id;
            $expect[$feature] = $this->table->likelihoods(self::kindOf($feature), $row);
        }
        foreach ($this->codes as $code) {
            $row = match (true) {
                ! $isElement => $id,
                $this->chart->carries($code->gear, $id) => 'carries',
                default => 'idle',
            };
            $stored = $this->table->stored($code->means, $row);
            $expect["code:$code->code"] = ['stored' => $stored, 'not stored' => 1.0 - $stored];
        }

        return new Hypothesis(
            $id,
            $this->table->prior($isElement ? 'element' : $id) * ($this->weak[$id] ?? 1.0),
            $expect,
        );
    }

    /** @return list<ChoiceFeature> */
    private function features(): array
    {
        $values = ['gear' => self::GEAR_STATES, 'shift' => self::SHIFT_STATES, 'pressure' => self::PRESSURES];
        $out = [];
        foreach (array_keys($this->observed) as $feature) {
            $kind = self::kindOf($feature);
            $out[] = new ChoiceFeature($feature, $values[$kind], $this->table->reliability($kind));
        }
        foreach ($this->codes as $code) {
            $reliability = $this->table->reliability('code');
            $out[] = new ChoiceFeature("code:$code->code", ['stored', 'not stored'], $reliability);
        }

        return $out;
    }

    /** Which row of the table speaks of the element for this feature. */
    private function row(string $element, string $feature): string
    {
        [$kind, $what] = explode(':', $feature, 2);
        if ($kind === 'pressure') {
            return $what === $element ? 'own' : 'other';
        }
        if ($kind === 'shift') {
            [$from, $to] = explode('-', $what, 2);
            $before = $this->chart->carries($from, $element);
            $after = $this->chart->carries($to, $element);

            return $after && ! $before ? 'applies' : ($before && ! $after ? 'releases' : 'idle');
        }
        if (! $this->chart->carries($what, $element)) {
            return 'idle';
        }

        // A good gear that loads the element less than a bad one does not clear it.
        return $this->observed[$feature] === 'ok' &&
            $this->worstFailed($element) > $this->torque[$what][$element] + self::EVEN
            ? 'carriesLess'
            : 'carries';
    }

    /** The hardest a failed gear loads the element; below 0 where none does. */
    private function worstFailed(string $element): float
    {
        $worst = -1.0;
        foreach ($this->torque as $gear => $torques) {
            $failed = ($this->observed["gear:$gear"] ?? 'ok') !== 'ok';
            $worst = $failed && isset($torques[$element]) ? max($worst, $torques[$element]) : $worst;
        }

        return $worst;
    }

    /** @return list<string> good gears that load the element at least as hard as every bad gear */
    private function clearedBy(string $element): array
    {
        $out = [];
        foreach ($this->torque as $gear => $torques) {
            if (
                isset($torques[$element]) &&
                ($this->observed["gear:$gear"] ?? '') === 'ok' &&
                $this->worstFailed($element) <= $torques[$element] + self::EVEN
            ) {
                $out[] = (string) $gear;
            }
        }

        return $out;
    }

    /** @param  list<string>  $clearedBy */
    private function because(string $id, array $clearedBy): string
    {
        if ($id === 'control') {
            return 'A wrong command or a stuck valve can lose single gears with every clutch sound: read the circuit '
                .'pressures at the case taps.';
        }
        if (in_array($id, self::OTHERS, true)) {
            return $this->touchesAll($id === 'converter' ? 'The converter' : 'Line pressure');
        }

        return $this->flares($id, $clearedBy) ?? $this->carries($id, $clearedBy);
    }

    private function touchesAll(string $name): string
    {
        $good = $this->gears(static fn (string $state): bool => $state === 'ok');
        $be = count($good) === 1 ? 'is' : 'are';

        return match (true) {
            $this->failed() === [] => "$name is in doubt only when gears fail.",
            $good === [] => "$name touches every gear, and every gear that was tried fails.",
            default => "$name touches every gear, yet {$this->join($good)} $be good.",
        };
    }

    /** @param  list<string>  $clearedBy */
    private function flares(string $id, array $clearedBy): ?string
    {
        foreach ($this->observed as $feature => $state) {
            if (self::kindOf($feature) === 'shift' && $state === 'flare' && $this->row($id, $feature) === 'applies') {
                $shift = explode(':', $feature, 2)[1];

                return "$id comes on in the $shift shift, which flares".
                    ($clearedBy === [] ? '.' : ", but gear {$this->join($clearedBy)} loads it fully and is good.");
            }
        }

        return null;
    }

    /** @param  list<string>  $clearedBy */
    private function carries(string $id, array $clearedBy): string
    {
        $bad = $this->failed();
        $in = array_values(array_filter($bad, fn (string $gear): bool => $this->chart->carries($gear, $id)));
        $without = array_values(array_diff($bad, $in));
        if ($in === []) {
            $gears = count($bad) === 1 ? 'gear' : 'gears';

            return $bad === []
                ? "$id is used by no gear that failed."
                : "$id is not applied in the failed $gears {$this->join($bad)}.";
        }
        $sentence =
            "$id works in ".($without === [] ? 'every failed gear' : 'the failed gear')." ({$this->join($in)})";
        if ($without !== []) {
            $sentence .= ", but {$this->join($without)} ".(count($without) === 1 ? 'fails' : 'fail').' without it';
        }
        $lighter = array_values(
            array_filter(
                $this->gears(static fn (string $state): bool => $state === 'ok'),
                fn (string $g): bool => isset($this->torque[$g][$id]) && ! in_array($g, $clearedBy, true),
            ),
        );

        return $sentence.match (true) {
            $clearedBy !== [] => ", yet gear {$this->join($clearedBy)} loads it as hard and is good, which clears it.",
            $lighter !== [] => "; gear {$this->join($lighter)} is good but loads it less, so it is not cleared.",
            default => ' and in none of the good ones.',
        };
    }

    /** @return list<string> gears tried that are not good */
    private function failed(): array
    {
        return $this->gears(static fn (string $state): bool => $state !== 'ok');
    }

    /**
     * @param  callable(string): bool  $is
     * @return list<string> gears tried, in the order of the chart, whose state is so
     */
    private function gears(callable $is): array
    {
        return array_values(
            array_filter(
                $this->chart->gears(),
                fn (string $gear): bool => isset($this->observed["gear:$gear"]) && $is($this->observed["gear:$gear"]),
            ),
        );
    }

    /** @param  list<string>  $gears */
    private function join(array $gears): string
    {
        return implode(', ', $gears);
    }

    private static function kindOf(string $feature): string
    {
        return explode(':', $feature, 2)[0];
    }
}
