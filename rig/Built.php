<?php

declare(strict_types=1);

namespace Yard\Rig;

/**
 * A unit as it stands on the rig: the specimen file (docs/formats/rig.md) turned into what the model reckons with, with
 * the faults that were set at the rig's console worked in. Severity runs from 0 (nothing) to 1 (as bad as it gets).
 */
final class Built
{
    /** Fault => where it sits: an element, a shift as "2-3", a gear, a solenoid, a channel, or nowhere. */
    public const FAULTS = [
        'worn-pack' => 'element',
        'leaking-piston' => 'element',
        'wrong-clearance' => 'element',
        'missing-wave-plate' => 'element',
        'blocked-accumulator' => 'element',
        'slow-accumulator' => 'element',
        'tie-up' => 'shift',
        'low-pressure' => '',
        'high-pressure' => '',
        'spiking-pressure' => '',
        'stuck-valve' => 'gear',
        'dead-solenoid' => 'solenoid',
        'stuck-solenoid' => 'solenoid',
        'lockup-slips' => '',
        'lockup-hunts' => '',
        'lockup-shudders' => '',
        'wrong-ratio' => 'set',
        'dead-sensor' => 'channel',
        'stuck-sensor' => 'channel',
        'drifting-sensor' => 'channel',
        'oil-leak' => '',
        'aerated-oil' => '',
        'blocked-cooler' => '',
        'drifting-torque-cell' => '',
    ];

    /** What a fault of the whole unit changes, and what it is when it is as bad as it gets. */
    private const FAR = [
        'low-pressure' => ['line', 0.35],
        'high-pressure' => ['line', 1.9],
        'spiking-pressure' => ['spikes', 1.0],
        'lockup-slips' => ['lockup', 0.08],
        'lockup-hunts' => ['hunt', 1.0],
        'lockup-shudders' => ['shudder', 1.0],
        'aerated-oil' => ['air', 1.0],
        'blocked-cooler' => ['cooler', 0.1],
        'drifting-torque-cell' => ['torqueCell', 0.2],
    ];

    /** Torque of the turbine an element carries as its accumulator begins and ends, where there is none, N.m. */
    private const ACCUMULATES_NM = [25.0, 190.0];

    /** @var array<string, array<string, mixed>> element => what Holder takes */
    public array $holders = [];

    /** @var array<string, array{float, float}> one-way clutch => least and most torque on its first node */
    public array $oneWays = [];

    /** @var array<string, list<string>> gear => elements that are let on */
    public array $chart = [];

    /** @var array<string, float> gear => ratio its teeth make, as the unit is really built */
    public array $ratios = [];

    /** @var array<string, array<string, float>> gear => element => torque it carries for one of the turbine */
    public array $shares = [];

    /** @var array<string, float> of the whole unit, each 1 or 0 when nothing is wrong */
    public array $whole = [
        'line' => 1.0,
        'spikes' => 0.0,
        'air' => 0.0,
        'oilLost_s' => 0.0,
        'lockup' => 1.0,
        'hunt' => 0.0,
        'shudder' => 0.0,
        'cooler' => 1.0,
        'torqueCell' => 0.0,
    ];

    /** Torque the converter's clutch holds for each kPa behind its piston, Nm; none where it has no such clutch. */
    public float $lockUp;

    /** How the friction of that clutch goes over slip, 1 as it begins to slide. */
    public readonly Friction $lockUpLining;

    /** @var array<string, array{string, float}> channel => how its sensor is ill, how badly */
    public array $sensors = [];

    /** @var array<string, float> "2-3" => seconds the element that lets go holds on */
    public array $late = [];

    /** @var array<string, string> gear asked => gear the valves make of it */
    public array $valves = [];

    /** @var array<string, mixed> */
    public readonly array $file;

    /**
     * @param  array<string, mixed>  $file
     * @param  list<array{fault: string, where?: string, severity?: float}>  $faults
     *
     * @throws \InvalidArgumentException for what is no specimen file or no fault
     */
    public function __construct(array $file, array $faults = [])
    {
        foreach (['serial', 'train', 'capacities', 'pressure'] as $need) {
            isset($file[$need]) || throw new \InvalidArgumentException("The specimen file says nothing of \"$need\".");
        }
        foreach ($faults as $fault) {
            $file = $this->teeth($file, $fault);
        }
        $this->file = $file;
        $lockUp = $file['capacities']['lock-up'] ?? [];
        $this->lockUp = ($file['lockup'] ?? true) === true ? self::holds($lockUp) : 0.0;
        $this->lockUpLining = self::slides($lockUp);
        $this->chart();
        foreach ($file['train']['elements'] as $element) {
            $this->element($element);
        }
        foreach ($faults as $fault) {
            $this->work($fault['fault'], (string) ($fault['where'] ?? ''), (float) ($fault['severity'] ?? 1.0));
        }
    }

    /** @param  array<string, mixed>  $as  the clutch in the converter; nothing said: a usual one */
    private static function holds(array $as): float
    {
        if ($as === []) {
            return 0.62;
        }
        [$outer, $inner] = [$as['outerDiameter_mm'] / 2000.0, $as['innerDiameter_mm'] / 2000.0];
        $piston = (M_PI / 4.0) * ($as['pistonOuter_mm'] ** 2 - $as['pistonInner_mm'] ** 2) * 1.0e-6;
        // A full disc of lining pressed evenly: two thirds of the cubes over the squares of its radii.
        $radius = (2.0 / 3.0) * ($outer ** 3 - $inner ** 3) / ($outer ** 2 - $inner ** 2);

        return 1000.0 * $as['mu'] * $as['frictionFaces'] * $piston * $radius * ($as['pressureFactor'] ?? 1.0);
    }

    /** @param  array<string, mixed>  $as  the clutch in the converter */
    private static function slides(array $as): Friction
    {
        $lining = self::lining($as);
        $radius = (($as['outerDiameter_mm'] ?? 260.0) + ($as['innerDiameter_mm'] ?? 216.0)) / 4000.0;

        return new Friction(1.0, $radius, $lining['staticRatio'], $lining['muFall_s_per_m']);
    }

    /** Gears, what each lets on, and what each element then carries. */
    private function chart(): void
    {
        $train = self::bareTrain($this->file['train']);
        foreach ($this->file['train']['gears'] as $gear) {
            $name = (string) $gear['name'];
            $held = $train->holds($gear['applied'], $this->file['train']['input'], $this->file['train']['output']);
            $held === null && throw new \InvalidArgumentException("Gear $name does not hold on this train.");
            $this->chart[$name] = $gear['applied'];
            // Output and input torque are in balance with the case: their quotient is the ratio.
            $this->ratios[$name] = -$held['output'];
            $this->shares[$name] = $held['elements'];
        }
    }

    /** @param  array<string, mixed>  $train */
    private static function bareTrain(array $train): Train
    {
        $joins = [];
        foreach ($train['elements'] as $element) {
            $joins[$element['id']] = [$element['a'], $element['b']];
        }

        return new Train($train['sets'], $joins, [$train['input'] => 1.0, $train['output'] => 1.0]);
    }

    /** @param  array<string, mixed>  $element */
    private function element(array $element): void
    {
        $id = $element['id'];
        $as = $this->file['capacities'][$id] ?? [];
        if ($element['kind'] === 'one-way') {
            $most = (float) ($as['torque_nm'] ?? 3000.0);
            $this->oneWays[$id] = $element['locks'] === 'negative' ? [0.0, $most] : [-$most, 0.0];

            return;
        }
        $holder = self::parts($as) + $this->oil($id, ($as['kind'] ?? '') === 'band');
        $this->holders[$id] = $holder + $this->accumulator($id, $holder);
    }

    /**
     * @param  array<string, mixed>  $as  a clutch, or a band on its drum
     * @return array<string, mixed>
     */
    private static function parts(array $as): array
    {
        $common = ['returnForce_n' => (float) $as['returnForce_n'], 'mu' => (float) $as['mu']];

        return $common + self::lining($as) + (($as['kind'] ?? '') === 'band' ? [
            'pistonArea_cm2' => (M_PI * $as['servoDiameter_mm'] ** 2) / 400.0,
            'wrap_rad' => deg2rad((float) $as['wrap_deg']),
            'lever' => (float) $as['leverRatio'],
            'radius_m' => $as['drumDiameter_mm'] / 2000.0,
            'energised' => $as['energisedBy'],
        ] : [
            'pistonArea_cm2' => (M_PI * ($as['pistonOuter_mm'] ** 2 - ($as['pistonInner_mm'] ?? 0.0) ** 2)) / 400.0,
            'faces' => (int) $as['frictionFaces'],
            'radius_m' => ($as['outerDiameter_mm'] + $as['innerDiameter_mm']) / 4000.0,
        ]);
    }

    /**
     * @param  array<string, mixed>  $as
     * @return array{staticRatio: float, muFall_s_per_m: float} how its friction goes over slip
     */
    private static function lining(array $as): array
    {
        return [
            'staticRatio' => (float) ($as['lining']['staticRatio'] ?? 0.94),
            'muFall_s_per_m' => (float) ($as['lining']['muFall_s_per_m'] ?? 0.0),
        ];
    }

    /** @return array<string, float> what the oil has to fill, and through what */
    private function oil(string $id, bool $isBand): array
    {
        $travel = (float) ($this->file['travel_mm'][$id] ?? ($isBand ? 2.4 : 1.4));
        $feed = (float) ($this->file['accumulators'][$id]['feed_mm2'] ?? 2.4);

        return [
            'travel_mm' => $travel,
            'travelMeant_mm' => (float) ($this->file['travelMeant_mm'][$id] ?? $travel),
            'cushion_kpa' => 18.0,
            'leak' => 0.0,
            'feed_mm2' => $feed,
            'feedMeant_mm2' => $feed,
        ];
    }

    /**
     * What takes up oil while an element comes: the unit's own accumulator, or what its control does in its place.
     *
     * @param  array<string, mixed>  $holder
     * @return array<string, mixed>
     */
    private function accumulator(string $id, array $holder): array
    {
        $own = $this->file['accumulators'][$id] ?? null;
        if ($own !== null) {
            return [
                'backed' => false,
                'accumulator_cm3' => $own['volume_cm3'],
                'accumulator_kpa' => $own['pressure_kpa'],
            ];
        }
        $most = 0.0;
        foreach ($this->shares as $gear => $shares) {
            $gear === 'R' || ($most = max($most, abs($shares[$id] ?? 0.0)));
        }
        $most = $most > 0.0 ? $most : 1.0;
        $as = new Holder($holder + ['backed' => false, 'accumulator_cm3' => 0.0, 'accumulator_kpa' => [0.0, 0.0]]);

        return [
            'backed' => true,
            'accumulator_cm3' => 44.0,
            'accumulator_kpa' => array_map(
                static fn (float $torque): float => $as->pressureFor($most * $torque),
                self::ACCUMULATES_NM,
            ),
        ];
    }

    /**
     * Parts of another unit in a gear set change its teeth before anything else is reckoned.
     *
     * @param  array<string, mixed>  $file
     * @param  array{fault: string, where?: string, severity?: float}  $fault
     * @return array<string, mixed>
     */
    private function teeth(array $file, array $fault): array
    {
        if ($fault['fault'] !== 'wrong-ratio') {
            return $file;
        }
        foreach ($file['train']['sets'] as $k => $set) {
            if ($set['id'] === ($fault['where'] ?? $set['id'])) {
                $file['train']['sets'][$k]['sunTeeth'] += max(2, (int) round(6.0 * ($fault['severity'] ?? 1.0)));

                return $file;
            }
        }
        throw new \InvalidArgumentException("There is no gear set \"{$fault['where']}\".");
    }

    private function work(string $fault, string $where, float $severity): void
    {
        isset(self::FAULTS[$fault]) || throw new \InvalidArgumentException("There is no fault \"$fault\".");
        match (self::FAULTS[$fault]) {
            'element' => $this->workElement($fault, $where, $severity),
            'shift' => $this->late[$where] = 0.15 + 0.5 * $severity,
            'gear' => $this->valves[$where] = $this->neighbour($where),
            'solenoid' => $this->solenoid($where, $fault === 'stuck-solenoid'),
            'channel' => $this->sensors[$where] = [$fault, $severity],
            default => $this->workWhole($fault, $severity),
        };
    }

    private function workElement(string $fault, string $where, float $severity): void
    {
        isset($this->holders[$where]) || throw new \InvalidArgumentException("There is no element \"$where\".");
        $h = &$this->holders[$where];
        match ($fault) {
            // A glazed lining carries less, and grabs as it comes to rest.
            'worn-pack' => [$h['mu'], $h['travel_mm'], $h['staticRatio']] = [
                $h['mu'] * (1.0 - 0.8 * $severity),
                $h['travel_mm'] * (1.0 + 0.6 * $severity),
                $h['staticRatio'] + 0.2 * $severity,
            ],
            'leaking-piston' => $h['leak'] = 6.0 * $severity,
            'wrong-clearance' => $h['travel_mm'] *= 1.0 + 2.5 * $severity,
            'missing-wave-plate' => [$h['cushion_kpa'], $h['travel_mm']] = [0.0, $h['travel_mm'] + 2.0 * $severity],
            'blocked-accumulator' => $h['accumulator_cm3'] *= 1.0 - $severity,
            default => $h['feed_mm2'] *= 1.0 - 0.8 * $severity,
        };
    }

    private function workWhole(string $fault, float $severity): void
    {
        $far = self::FAR[$fault] ?? null;
        // The teeth of mixed parts are worked in already.
        $far === null || $this->whole[$far[0]] += ($far[1] - $this->whole[$far[0]]) * $severity;
        if ($fault === 'oil-leak') {
            $this->whole['oilLost_s'] = 150.0 - 120.0 * $severity;
        }
    }

    private function neighbour(string $gear): string
    {
        $gears = array_values(array_filter(array_keys($this->ratios), fn ($g): bool => $this->ratios[$g] > 0.0));
        $at = array_search($gear, array_map(strval(...), $gears), true);
        $at === false && throw new \InvalidArgumentException("There is no gear \"$gear\".");

        return (string) ($gears[$at - 1] ?? $gears[$at + 1]);
    }

    /** A solenoid that is dead, or stays on: every gear becomes the one that its valves then make. */
    private function solenoid(string $id, bool $staysOn): void
    {
        $control = $this->file['control'] ?? null;
        in_array($id, array_column($control['solenoids'] ?? [], 'id'), true)
            || throw new \InvalidArgumentException("There is no solenoid \"$id\".");
        foreach ($control['states'] as $state) {
            $on = $staysOn
                ? array_unique([...$state['on'], $id])
                : array_values(array_diff($state['on'], [$id]));
            sort($on);
            $this->valves[(string) $state['gear']] = $this->madeBy($on, $control);
        }
    }

    /**
     * @param  list<string>  $on
     * @param  array<string, mixed>  $control
     */
    private function madeBy(array $on, array $control): string
    {
        foreach ($control['states'] as $state) {
            $of = $state['on'];
            sort($of);
            if ($of === $on) {
                return (string) $state['gear'];
            }
        }

        // Regulators of their own each: what is not fed is not there.
        return (string) ($control['limp'] ?? 'N');
    }
}
