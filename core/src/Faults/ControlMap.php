<?php

declare(strict_types=1);

namespace Yard\Core\Faults;

use Yard\Core\Evidence\ChoiceFeature;
use Yard\Core\Evidence\EvidenceModel;
use Yard\Core\Evidence\Hypothesis;
use Yard\Core\Evidence\NextLook;

/**
 * Which gear one gets when a solenoid is stuck: the set of solenoids that are on forces the gear whose state it is. One
 * stuck solenoid explains every gear it takes part in.
 */
final class ControlMap
{
    public const NONE = 'none';

    /** What a test of a solenoid by itself can show. */
    private const TESTED = ['works', 'stuck-on', 'stuck-off'];

    /** @var array<string, string> the solenoids that are on, sorted, as a key => gear */
    private array $gearOf = [];

    /** @var list<array{solenoid: string, state: string, obtained: array<string, string>}> */
    public readonly array $faults;

    /**
     * @param  list<string>  $solenoids
     * @param  array<string, list<string>>  $states  gear => solenoids that are on
     * @param  string|null  $limp  the gear the controller falls back to
     */
    public function __construct(private readonly array $solenoids, private readonly array $states, ?string $limp)
    {
        foreach ($states as $gear => $on) {
            $this->gearOf[self::key($on)] = (string) $gear;
        }
        $faults = [['solenoid' => self::NONE, 'state' => 'works', 'obtained' => $this->obtained(null, false)]];
        foreach ($solenoids as $id) {
            $faults[] = ['solenoid' => $id, 'state' => 'stuck-on', 'obtained' => $this->obtained($id, true)];
            $faults[] = ['solenoid' => $id, 'state' => 'stuck-off', 'obtained' => $this->obtained($id, false)];
        }
        if ($limp !== null) {
            $faults[] = [
                'solenoid' => 'limp',
                'state' => 'limp',
                'obtained' => array_fill_keys(array_keys($states), $limp),
            ];
        }
        $this->faults = $faults;
    }

    /** @param  array<int, string>  $on */
    public static function key(array $on): string
    {
        sort($on);

        return implode("\n", $on);
    }

    /** @return array<string, string> commanded gear => the gear one gets */
    private function obtained(?string $stuck, bool $isOn): array
    {
        return array_map(function (array $on) use ($stuck, $isOn): string {
            $on = array_diff($on, [$stuck]);

            return $this->gearOf[self::key($isOn && $stuck !== null ? [...$on, $stuck] : $on)] ?? self::NONE;
        }, $this->states);
    }

    /**
     * @param  array<string, string>  $observed  commanded gear => the gear obtained
     * @param  array<string, float>  $effort  of the test of a solenoid, in looks at one gear
     * @return array{faults: list<array<string, mixed>>, next: list<array<string, mixed>>}
     */
    public function given(array $observed, float $reliability, array $effort): array
    {
        $gears = array_map(strval(...), array_keys($this->states));
        $features = array_map(
            static fn (string $g): ChoiceFeature => new ChoiceFeature("gear:$g", [...$gears, self::NONE], $reliability),
            $gears,
        );
        foreach ($this->solenoids as $id) {
            $features[] = new ChoiceFeature("solenoid:$id", self::TESTED, $reliability, $effort[$id] ?? 1.0);
        }
        $seen = [];
        foreach ($observed as $gear => $obtained) {
            $seen["gear:$gear"] = $obtained;
        }
        $ranking = (new EvidenceModel($features, $this->hypotheses()))->given($seen);
        $faults = [];
        foreach ($ranking->hypotheses as $row) {
            $faults[] = $this->faults[(int) $row->id] + ['posterior' => $row->posterior];
        }

        return ['faults' => $faults, 'next' => array_map(fn (NextLook $n): array => self::test($n), $ranking->next)];
    }

    /** @return non-empty-list<Hypothesis> */
    private function hypotheses(): array
    {
        $out = [];
        foreach ($this->faults as $n => ['solenoid' => $of, 'state' => $state, 'obtained' => $obtained]) {
            $expect = [];
            foreach ($obtained as $gear => $got) {
                $expect["gear:$gear"] = [$got => 1.0];
            }
            foreach ($this->solenoids as $id) {
                $expect["solenoid:$id"] = [$id === $of ? $state : 'works' => 1.0];
            }
            $out[] = new Hypothesis((string) $n, 1.0, $expect);
        }

        return $out;
    }

    /** @return array{test: string, kind: string, effort: float, gainBits: float} */
    private static function test(NextLook $look): array
    {
        [$kind, $test] = explode(':', $look->feature, 2);

        return [
            'test' => $test,
            'kind' => $kind,
            'effort' => $look->gainPerEffort > 0.0 ? $look->gainBits / $look->gainPerEffort : 1.0,
            'gainBits' => $look->gainBits,
        ];
    }
}
