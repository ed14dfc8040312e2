<?php

declare(strict_types=1);

namespace Yard\Core\Tests;

/** Who comes first between two gears, worked by hand on the apply chart of a Ravigneaux train. */
final class HandOverTest extends CoreTestCase
{
    private const DUTY = [
        'inputTorque_nm' => 300,
        'coastTorque_nm' => 40,
        'inputSpeed_rpm' => 5000,
        'inputInertia_kgm2' => 0.22,
        'shiftTime_s' => 0.4,
    ];

    /** @return array<string, mixed> small sun 30, large sun 38, ring 74: 2.467, 1.498, 1, 0.661 */
    private static function train(): array
    {
        $file = dirname(__DIR__).'/schema/power.weakened.json';
        $in = json_decode((string) file_get_contents($file), true)['example']['input'];

        return array_intersect_key($in, array_flip(['input', 'output', 'sets', 'elements', 'gears']));
    }

    /** @return array<string, array<string, mixed>> "from-to" => shift */
    private function shifts(array $change = []): array
    {
        $out = [];
        foreach ($this->calc('shift.handover', $change + self::train() + self::DUTY)['shifts'] as $shift) {
            $out["{$shift['from']}-{$shift['to']}"] = $shift;
        }

        return $out;
    }

    public function test_when_nobody_holds_and_when_both_do(): void
    {
        $shifts = $this->shifts();
        $this->assertSame(['1-2', '2-1', '2-3', '3-2', '3-4', '4-3'], array_keys($shifts));
        $did = fn (string $of, string $when): string => $shifts[$of][$when]['as'] ?? $shifts[$of][$when]['state'];
        // C1 alone: the one-way takes the carrier, the train is in first again.
        $this->assertSame(['1', '2'], [$did('1-2', 'neither'), $did('1-2', 'both')]);
        $this->assertSame(['1', 'locked'], [$did('2-3', 'neither'), $did('2-3', 'both')]);
        $this->assertSame(['1', 'locked'], [$did('3-2', 'neither'), $did('3-2', 'both')]);
        // C3 alone drives the carrier and nothing holds a sun: the output is free.
        $this->assertSame(['neutral', 'locked'], [$did('3-4', 'neither'), $did('3-4', 'both')]);
        $this->assertSame(
            [false, false, true, true, true, true],
            array_column($shifts, 'changesHands'),
        );
    }

    public function test_the_engine_helps_down_when_it_drives_and_up_when_it_is_driven(): void
    {
        foreach ($this->shifts() as $shift) {
            $up = $shift['inputChange_rpm'] < 0;
            $this->assertSame($up ? 'apply' : 'release', $shift['driving']['first']);
            $this->assertSame($up ? 'release' : 'apply', $shift['coasting']['first']);
        }
        $ratios = array_column($this->calc('geartrain.solve', self::train())['gears'], 'ratio', 'name');
        $shift = $this->shifts()['3-2'];
        $change = 5000 * (1 - $ratios['3'] / $ratios['2']);
        $this->assertRelative($change, $shift['inputChange_rpm']);
        $this->assertRelative(0.22 * $change * M_PI / 30 / 300, $shift['driving']['seconds']);
    }

    /** I dw/dt = T - X and the heat of X times the slip, integrated step by step. */
    public function test_the_heat_of_what_does_the_work(): void
    {
        $steps = 40000;
        foreach ([['2-3', 'driving', -300.0], ['4-3', 'coasting', 40.0]] as [$name, $when, $against]) {
            $shift = $this->shifts()[$name];
            $dw = abs($shift['inputChange_rpm']) * M_PI / 30;
            $x = 0.22 * $dw / 0.4 - ($against < 0.0 ? $against : -$against);
            [$slip, $heat, $dt] = [$dw, 0.0, 0.4 / $steps];
            for ($n = 0; $n < $steps; $n++) {
                $next = $slip - ($x - abs($against)) / 0.22 * $dt;
                $heat += $x * ($slip + $next) / 2 * $dt;
                $slip = $next;
            }
            $this->assertEqualsWithDelta(0.0, $slip, 1e-6);
            $this->assertRelative($heat, $shift[$when]['heat_j'], 1e-6);
        }
    }

    public function test_gears_of_one_ratio_are_one_gear_and_nonsense_is_refused(): void
    {
        $train = self::train();
        array_splice($train['gears'], 1, 0, [['name' => '1 held', 'applied' => ['C1', 'F1']]]);
        $this->assertArrayHasKey('1-2', $this->shifts(['gears' => $train['gears']]));
        $bad = fn (array $change, string $code, string $path) => $this->assertRefused(
            'shift.handover',
            $change + self::train() + self::DUTY,
            $code,
            $path,
        );
        $bad(['shiftTime_s' => 0], 'range', '/shiftTime_s');
        $bad(['coastTorque_nm' => -5], 'range', '/coastTorque_nm');
    }
}
