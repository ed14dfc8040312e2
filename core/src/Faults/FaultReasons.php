<?php

declare(strict_types=1);

namespace Yard\Core\Faults;

/** Why a fault is suspected or not, in a sentence a builder would say. */
final readonly class FaultReasons
{
    private const SAID = [
        'stuck-on' => 'stuck on',
        'stuck-off' => 'dead',
        'free' => 'free both ways',
        'locked' => 'locked both ways',
        'reversed' => 'built in the wrong way round',
    ];

    public function __construct(
        private Symptoms $symptoms,
        private FaultRows $rows,
        private FaultOutcomes $outcomes,
    ) {
    }

    public function of(Fault $fault): string
    {
        $bench = array_filter(array_map($this->onTheBench(...), $fault->elements));

        return implode(' ', [$this->byGears($fault), ...$bench]);
    }

    private function byGears(Fault $fault): string
    {
        return match (true) {
            $fault->isOfUnit() => $this->ofUnit($fault->kind),
            $fault->isWeak() => implode(
                ' ',
                array_map(fn (string $e): string => $this->flares($e) ?? $this->carries($e), $fault->elements),
            ),
            default => $this->simulated($fault->elements[0], $fault->kind),
        };
    }

    private function ofUnit(string $kind): string
    {
        return match ($kind) {
            'control' => 'A wrong command or a stuck valve can lose single gears with every clutch sound: read the '
                .'circuit pressures at the case taps.',
            'sound' => $this->symptoms->failed() === []
                ? 'No gear that was tried fails.'
                : $this->gears($this->symptoms->failed()).' would not fail in a sound unit.',
            'vehicle' => 'Engine, linkage, cooler, sensors and wiring outside can look like this: rule them out '
                .'before it comes out.',
            'pump' => $this->touchesAll('The pump'),
            'line-pressure' => $this->touchesAll('Line pressure'),
            default => $this->ofConverter($kind),
        };
    }

    private function ofConverter(string $kind): string
    {
        return match ($kind) {
            'stator-free' => 'Its stator does not hold: it pulls away weakly and is right once it rolls'
                .$this->said('launch').'.',
            'stator-locked' => 'Its stator does not let go: it pulls away well, runs hot and lacks its top speed'
                .$this->said('road').'.',
            'hub' => 'A sheared hub does not turn the pump: no pressure and no gear at all.',
            'converter' => $this->touchesAll('The converter'),
            default => $this->lockup(),
        };
    }

    private function said(string $once): string
    {
        $state = $this->symptoms->seen["$once:$once"] ?? null;

        return match ($state) {
            null => '; nothing was said of that',
            'ok' => '; it is said not to',
            default => '; so it is said',
        };
    }

    /** What air and the parts themselves say of an element. */
    private function onTheBench(string $element): string
    {
        $air = $this->symptoms->seen["air:$element"] ?? null;
        $found = $this->symptoms->seen["finding:$element"] ?? null;

        return trim(
            ($air === null ? '' : ($air === 'leaks' ? "$element leaks air." : "$element is tight.")).
            ($found === null ? '' : " Its parts were found $found."),
        );
    }

    private function lockup(): string
    {
        return match ($this->symptoms->lockup()) {
            null => 'The lock-up clutch touches no gear; nothing was said of it.',
            'ok' => 'The lock-up clutch is said to be good.',
            'none' => 'Lock-up does not come.',
            'stays-on' => 'Lock-up stays on.',
            default => "Lock-up {$this->symptoms->lockup()}".($this->symptoms->lockup() === 'shudder' ? 's.' : '.'),
        };
    }

    private function touchesAll(string $name): string
    {
        $good = $this->symptoms->good();
        $be = count($good) === 1 ? 'is' : 'are';

        return match (true) {
            $this->symptoms->failed() === [] => "$name is in doubt only when gears fail.",
            $good === [] => "$name touches every gear, and every gear that was tried fails.",
            default => "$name touches every gear, yet {$this->join($good)} $be good.",
        };
    }

    private function flares(string $id): ?string
    {
        foreach ($this->symptoms->seen as $feature => $state) {
            [$kind, $shift] = Symptoms::split($feature);
            if ($kind !== 'shift' || $state !== 'flare') {
                continue;
            }
            [$from, $to] = Symptoms::shift($shift);
            if ($this->rows->works($id, $to) && ! $this->rows->works($id, $from)) {
                $by = $this->clearedBy($id);

                return "$id comes on in the $shift shift, which flares".
                    ($by === [] ? '.' : ", but gear {$this->join($by)} loads it fully and is good.");
            }
        }

        return null;
    }

    private function carries(string $id): string
    {
        $bad = $this->symptoms->failed();
        $in = array_values(array_filter($bad, fn (string $gear): bool => $this->rows->works($id, $gear)));
        if ($in === []) {
            return $bad === []
                ? "$id is used by no gear that failed."
                : "$id carries nothing in the failed {$this->count($bad)} {$this->join($bad)}.";
        }
        $without = array_values(array_diff($bad, $in));

        return "$id works in ".
            ($without === []
                ? "every failed gear ({$this->join($in)})"
                : "the failed {$this->count($in)} {$this->join($in)}").
            $this->unexplained($without).
            $this->cleared($id);
    }

    /** @param  list<string>  $without  failed gears the fault does not touch */
    private function unexplained(array $without): string
    {
        return $without === []
            ? ''
            : ", but {$this->join($without)} ".(count($without) === 1 ? 'fails' : 'fail').' without it';
    }

    private function cleared(string $id): string
    {
        $by = $this->clearedBy($id);
        $lighter = array_values(
            array_filter(
                $this->symptoms->good(),
                fn (string $gear): bool => $this->rows->works($id, $gear) && ! in_array($gear, $by, true),
            ),
        );

        return match (true) {
            $by !== [] => ", yet gear {$this->join($by)} loads it as hard and is good, which clears it.",
            $lighter !== [] => "; gear {$this->join($lighter)} is good but loads it less, so it is not cleared.",
            default => ' and in none of the good ones.',
        };
    }

    private function simulated(string $element, string $state): string
    {
        $name = "$element ".self::SAID[$state];
        $does = fn (string $gear): bool => $this->outcomes->of($element, $state, $gear) !== 'same';
        $failed = $this->symptoms->failed();
        $good = array_values(array_filter($this->symptoms->good(), $does));
        $touched = array_values(array_filter($failed, $does));
        if ($touched === [] && $good === []) {
            return "$name changes no gear that was tried.";
        }
        $what = array_map(
            fn (string $gear): string => $this->effect($element, $state, $gear),
            $touched === [] ? $good : $touched,
        );

        $be = count($good) === 1 ? 'is' : 'are';

        return "With $name, ".implode(', ', $what).
            $this->unexplained(array_values(array_diff($failed, $touched))).
            ($good === [] ? '.' : "; {$this->count($good)} {$this->join($good)} $be good, which clears it.");
    }

    private function effect(string $element, string $state, string $gear): string
    {
        $as = $this->outcomes->drivesAs($element, $state, $gear);

        return match ($this->outcomes->of($element, $state, $gear)) {
            'locks' => "gear $gear ties up",
            'neutral' => "gear $gear does not drive",
            default => $as === null ? "gear $gear drives with no gear's ratio" : "gear $gear drives as $as does",
        };
    }

    /** @return list<string> */
    private function clearedBy(string $element): array
    {
        return $this->rows->clearedBy(Fault::ofElement($element, 'weak', false));
    }

    /** @param  list<string>  $gears */
    private function gears(array $gears): string
    {
        return ucfirst($this->count($gears)).' '.$this->join($gears);
    }

    /** @param  list<string>  $gears */
    private function count(array $gears): string
    {
        return count($gears) === 1 ? 'gear' : 'gears';
    }

    /** @param  list<string>  $gears */
    private function join(array $gears): string
    {
        return implode(', ', $gears);
    }
}
