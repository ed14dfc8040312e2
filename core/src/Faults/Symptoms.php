<?php

declare(strict_types=1);

namespace Yard\Core\Faults;

use Yard\Core\BadInput;
use Yard\Core\Drivetrain\ApplyChart;
use Yard\Core\Evidence\ChoiceFeature;

/** What a driver or a technician says the unit does, gear by gear and shift by shift. */
final readonly class Symptoms
{
    /**
     * Missing: not had, no more is known. Neutral: the engine runs free. Locks: ties up. Wrong ratio: drives with
     * another gear's.
     */
    public const STATES = [
        'gear' => ['ok', 'slips', 'missing', 'locks', 'neutral', 'harsh', 'delayed', 'wrong-ratio'],
        'shift' => ['ok', 'flare', 'tie-up', 'delayed', 'harsh'],
        'pressure' => ['low', 'normal', 'high'],
        'lockup' => ['ok', 'none', 'hunts', 'shudder', 'stays-on'],
    ];

    /** What a look costs, in looks at one gear on the road: a gauge takes the pan off the floor (common practice). */
    private const EFFORT = ['gear' => 1.0, 'shift' => 1.0, 'lockup' => 1.0, 'pressure' => 4.0];

    /** @var array<string, string> feature ("gear:4", "shift:2-3", "pressure:C1", "lockup:") => what was seen */
    public array $seen;

    /**
     * @param  array<string, string>  $observed  gear, shift ("2-3") or "lockup" => its state
     * @param  array<string, string>  $pressures  circuit => low, normal, high
     * @param  list<StoredCode>  $codes
     *
     * @throws BadInput at /observed, /pressures or /codes
     */
    public function __construct(
        private ApplyChart $chart,
        array $observed,
        array $pressures = [],
        public array $codes = [],
    ) {
        $seen = [];
        foreach ($observed as $what => $state) {
            $kind = $this->kindOfObserved((string) $what);
            $seen["$kind:$what"] = self::oneOf($state, $kind, "/observed/$what");
        }
        foreach ($pressures as $circuit => $level) {
            $seen["pressure:$circuit"] = self::oneOf($level, 'pressure', "/pressures/$circuit");
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
        $this->seen = $seen;
    }

    /** @return array{string, string} kind of a feature, and what it speaks of */
    public static function split(string $feature): array
    {
        [$kind, $what] = explode(':', $feature, 2);

        return [$kind, $what];
    }

    /** @return array{string, string} the gear before a shift and the gear after it */
    public static function shift(string $what): array
    {
        [$from, $to] = array_pad(explode('-', $what, 2), 2, '');

        return [$from, $to];
    }

    public function gear(string $gear): ?string
    {
        return $this->seen["gear:$gear"] ?? null;
    }

    public function lockup(): ?string
    {
        return $this->seen['lockup:lockup'] ?? null;
    }

    /** @return list<string> gears tried that are good, in the order of the chart */
    public function good(): array
    {
        return array_values(array_filter($this->chart->gears(), fn (string $g): bool => $this->gear($g) === 'ok'));
    }

    /** @return list<string> gears tried that are not, in the order of the chart */
    public function failed(): array
    {
        return array_values(
            array_filter(
                $this->chart->gears(),
                fn (string $gear): bool => ! in_array($this->gear($gear), [null, 'ok'], true),
            ),
        );
    }

    /** @return list<ChoiceFeature> */
    public function features(LikelihoodTable $table): array
    {
        $out = [];
        foreach (array_keys($this->seen) as $feature) {
            [$kind] = self::split($feature);
            $out[] = new ChoiceFeature($feature, self::STATES[$kind], $table->reliability($kind));
        }
        foreach ($this->codes as $code) {
            $out[] = new ChoiceFeature("code:$code->code", ['stored', 'not stored'], $table->reliability('code'));
        }

        return $out;
    }

    /**
     * What was not looked at yet: each gear and shift on the road, the lock-up, the pressure of each clutch and brake.
     *
     * @return list<ChoiceFeature>
     */
    public function unseen(LikelihoodTable $table): array
    {
        $gears = array_map(strval(...), array_keys($this->chart->applied));
        $forward = array_map(strval(...), array_keys(array_filter(
            $this->chart->ratios(),
            static fn (float $ratio): bool => $ratio > 0.0,
        )));
        $all = [...array_map(static fn (string $g): string => "gear:$g", $gears), 'lockup:lockup'];
        foreach (array_slice($forward, 1) as $n => $gear) {
            $all[] = "shift:$forward[$n]-$gear";
        }
        foreach ($this->chart->train->elements as $id => $element) {
            $element->kind === 'one-way' || $all[] = "pressure:$id";
        }
        $out = [];
        foreach (array_diff($all, array_keys($this->seen)) as $feature) {
            [$kind] = self::split($feature);
            $effort = self::EFFORT[$kind];
            $out[] = new ChoiceFeature($feature, self::STATES[$kind], $table->reliability($kind), $effort);
        }

        return $out;
    }

    /** @return array<string, string> feature => what was seen, stored codes with it */
    public function all(): array
    {
        return $this->seen + array_fill_keys(
            array_map(static fn (StoredCode $c): string => "code:$c->code", $this->codes),
            'stored',
        );
    }

    private function kindOfObserved(string $what): string
    {
        if ($this->chart->has($what)) {
            return 'gear';
        }
        if ($what === 'lockup') {
            return 'lockup';
        }
        foreach (self::shift($what) as $gear) {
            $this->chart->has($gear) ||
                throw new BadInput(
                    'unknown-gear',
                    "\"$what\" is neither a gear of the chart nor a shift between two of them.",
                    "/observed/$what",
                );
        }

        return 'shift';
    }

    private static function oneOf(string $value, string $kind, string $at): string
    {
        in_array($value, self::STATES[$kind], true) ||
            throw new BadInput('choice', "\"$value\" must be one of ".implode(', ', self::STATES[$kind]).'.', $at);

        return $value;
    }
}
