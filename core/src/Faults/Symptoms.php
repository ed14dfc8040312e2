<?php

declare(strict_types=1);

namespace Yard\Core\Faults;

use Yard\Core\BadInput;
use Yard\Core\Drivetrain\ApplyChart;
use Yard\Core\Evidence\ChoiceFeature;

/** What was driven, gauged, blown, looked at in the pan and found on the parts of a unit. */
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
        'launch' => ['ok', 'weak'],
        'idle' => ['ok', 'stalls'],
        'road' => ['ok', 'hot', 'slow'],
        'noise' => ['quiet', 'whine', 'growl', 'rattle'],
        'pan' => ['clean', 'lining', 'metal', 'varnish'],
        'air' => ['tight', 'leaks'],
        'finding' => ['sound', 'worn', 'burnt', 'fused', 'broken'],
    ];

    /** States that say that all is well. */
    public const WELL = ['ok', 'normal', 'tight', 'sound', 'clean', 'quiet'];

    /** What is looked at once in a unit, not element by element. */
    public const ONCE = ['lockup', 'launch', 'idle', 'road', 'noise', 'pan'];

    /**
     * What a look costs, in looks at one gear on the road (common practice, no source): a gauge takes the vehicle onto
     * the lift, air the valve body off, a finding the unit apart.
     */
    private const EFFORT = ['pan' => 3.0, 'pressure' => 4.0, 'air' => 8.0, 'finding' => 25.0];

    /** @var array<string, string> feature ("gear:4", "shift:2-3", "pressure:C1", "pan:pan") => what was seen */
    public array $seen;

    /**
     * @param  array<string, string>  $observed  gear, shift ("2-3") or "lockup" => its state
     * @param  array<string, string>  $pressures  circuit => low, normal, high
     * @param  list<StoredCode>  $codes
     * @param  array<string, array<string, string>>  $looked "air" and "finding" by element, what is looked at once by
     *     its own name => its state
     *
     * @throws BadInput at /observed, /pressures, /codes, or where it was looked
     */
    public function __construct(
        private ApplyChart $chart,
        array $observed,
        array $pressures = [],
        public array $codes = [],
        array $looked = [],
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
        $this->seen = $seen + $this->lookedAt($looked);
    }

    /**
     * @param  list<array{kind: string, what: string, state: string}>  $looks
     *
     * @throws BadInput as the constructor
     */
    public static function ofLooks(ApplyChart $chart, array $looks): self
    {
        $by = [];
        foreach ($looks as $look) {
            $by[$look['kind']][$look['what']] = $look['state'];
        }
        $observed = ($by['gear'] ?? []) + ($by['shift'] ?? []) + ($by['lockup'] ?? []);
        $looked = array_diff_key($by, array_flip(['gear', 'shift', 'lockup', 'pressure']));

        return new self($chart, $observed, $by['pressure'] ?? [], [], $looked);
    }

    /**
     * @param  array<string, array<string, string>>  $looked
     * @return array<string, string>
     */
    private function lookedAt(array $looked): array
    {
        $seen = [];
        foreach ($looked as $kind => $states) {
            $once = in_array($kind, self::ONCE, true);
            foreach ($states as $what => $state) {
                $at = $once ? "/$kind" : ($kind === 'finding' ? "/findings/$what" : "/$kind/$what");
                $once ||
                    isset($this->chart->train->elements[$what]) ||
                    throw new BadInput('unknown-element', "There is no element \"$what\".", $at);
                $seen["$kind:$what"] = self::oneOf($state, $kind, $at);
            }
        }

        return $seen;
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
     * What was not looked at yet: each gear and shift on the road, the lock-up, how it pulls away, the pan; the
     * pressure and the air check of each clutch and brake, and each element taken apart.
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
        $all = [
            ...array_map(static fn (string $g): string => "gear:$g", $gears),
            ...array_map(static fn (string $once): string => "$once:$once", self::ONCE),
        ];
        foreach (array_slice($forward, 1) as $n => $gear) {
            $all[] = "shift:$forward[$n]-$gear";
        }
        foreach ($this->chart->train->elements as $id => $element) {
            array_push($all, ...($element->kind === 'one-way' ? [] : ["pressure:$id", "air:$id"]), ...["finding:$id"]);
        }
        $out = [];
        foreach (array_diff($all, array_keys($this->seen)) as $feature) {
            [$kind] = self::split($feature);
            $effort = self::EFFORT[$kind] ?? 1.0;
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
