<?php

declare(strict_types=1);

namespace Yard\Core\Tests;

use PHPUnit\Framework\Attributes\DataProvider;
use Yard\Rig\Built;
use Yard\Rig\Faults;
use Yard\Rig\Holder;
use Yard\Rig\Once;
use Yard\Rig\Rig;
use Yard\Rig\Train;

require_once dirname(__DIR__, 2).'/rig/classes.php';

/** The rig's own model against closed forms: it shares no equation with the core. */
final class RigTest extends CoreTestCase
{
    private const CLUTCH = [
        'pistonArea_cm2' => 100.0, 'returnForce_n' => 1000.0, 'travel_mm' => 1.0, 'travelMeant_mm' => 1.0, 'mu' => 0.12,
        'staticRatio' => 0.94, 'muFall_s_per_m' => 0.0, 'cushion_kpa' => 0.0, 'leak' => 0.0, 'feed_mm2' => 3.0,
        'feedMeant_mm2' => 3.0,
        'faces' => 8, 'radius_m' => 0.07, 'backed' => false, 'accumulator_cm3' => 0.0, 'accumulator_kpa' => [0.0, 0.0],
    ];

    public static function families(): array
    {
        return array_map(fn (string $c): array => [$c], ['RD4', 'OV3', 'LP6', 'TX6', 'GV5']);
    }

    /** Willis' equation solved by the core for the same teeth. */
    #[DataProvider('families')]
    public function test_the_ratios_of_its_train_are_those_of_the_teeth(string $code): void
    {
        $unit = new Built(TestCell::specimen($code, 1));
        $solved = $this->calc('geartrain.solve', TestCell::family($code)['train'])['gears'];
        foreach (array_column($solved, 'ratio', 'name') as $gear => $ratio) {
            $this->assertEqualsWithDelta($ratio, $unit->ratios[$gear], 1e-6 * abs($ratio), "$code $gear");
        }
    }

    public function test_a_simple_set_turns_by_its_teeth(): void
    {
        $set = ['id' => 'P', 'kind' => 'simple', 'sun' => 'in', 'ring' => 'r', 'carrier' => 'out', 'sunTeeth' => 30,
            'ringTeeth' => 70];
        $train = new Train([$set], ['B' => ['r', 'case']], ['in' => 0.1, 'out' => 1.0]);
        for ($k = 0; $k < 2000; $k++) {
            $train->step(0.001, ['in' => 10.0, 'out' => 0.0], ['B' => [-500.0, 500.0]]);
        }
        // 1 + 70/30 with the ring held; the input sees 0.1 + 1 / 3.333^2, and its masses speed up by 10 N.m.
        $ratio = 100.0 / 30.0;
        $this->assertEqualsWithDelta($ratio, $train->speed('in') / $train->speed('out'), 1e-6);
        $inertia = 0.1 + 1.0 / $ratio ** 2;
        $this->assertEqualsWithDelta(2.0 * 10.0 / $inertia, $train->speed('in'), 1.5);
        $this->assertEqualsWithDelta(0.0, $train->slip('B'), 1e-6);
    }

    public function test_a_clutch_that_slips_carries_what_it_can_and_stops_two_masses_at_their_common_speed(): void
    {
        $train = new Train([], ['C' => ['a', 'b']], ['a' => 0.2, 'b' => 0.6]);
        $train->step(0.001, ['a' => 20_000.0, 'b' => 0.0], ['C' => [0.0, 0.0]]);
        $this->assertEqualsWithDelta(100.0, $train->speed('a'), 1e-9);
        for ($k = 0; $k < 100; $k++) {
            $train->step(0.001, [], ['C' => [-50.0, 50.0]]);
        }
        $this->assertEqualsWithDelta(100.0 - 0.1 * 50.0 / 0.2, $train->speed('a'), 1e-6);
        for ($k = 0; $k < 500; $k++) {
            $train->step(0.001, [], ['C' => [-50.0, 50.0]]);
        }
        $this->assertEqualsWithDelta(100.0 * 0.2 / 0.8, $train->speed('a'), 1e-6, 'momentum stays');
        $this->assertEqualsWithDelta($train->speed('a'), $train->speed('b'), 1e-6);
    }

    public function test_a_one_way_clutch_holds_one_way_only(): void
    {
        $train = new Train([], ['F' => ['a', 'case']], ['a' => 0.1]);
        $train->step(0.001, ['a' => -30.0], ['F' => [0.0, 1000.0]]);
        $this->assertEqualsWithDelta(0.0, $train->speed('a'), 1e-9);
        $this->assertEqualsWithDelta(30.0, $train->torque('F', 0.001), 1e-6);
        $train->step(0.001, ['a' => 30.0], ['F' => [0.0, 1000.0]]);
        $this->assertEqualsWithDelta(0.3, $train->speed('a'), 1e-9);
    }

    public function test_a_clutch_fills_and_carries_by_its_piston_and_faces(): void
    {
        $clutch = $this->filled([]);
        $this->assertEqualsWithDelta(100.0, $clutch->touch, 1e-9, '1,000 N on 100 cm2');
        $this->assertEqualsWithDelta(700.0, $clutch->pressure, 1.0);
        // mu N r (p A - F) = 0.12 x 8 x 0.07 m x 6,000 N
        $this->assertEqualsWithDelta(0.12 * 8 * 0.07 * 6000.0, $clutch->carries(50.0)[1], 2.0);
        $this->assertSame([0.0, 0.0], (new Holder(self::CLUTCH))->carries(50.0), 'without oil nothing');
    }

    /**
     * A mass braked by a lining that loses a share k of its friction with each rad/s: J dw/dt = -T (1 - k w), so that
     * 1 - k w grows with exp(k T t / J).
     */
    public function test_a_lining_carries_less_the_faster_it_slides(): void
    {
        $brake = $this->filled(['muFall_s_per_m' => 0.05, 'staticRatio' => 1.0]);
        [$inertia, $k] = [2.0, 0.05 * 0.07];
        $torque = 0.12 * 8 * 0.07 * 6000.0;
        $train = new Train([], ['B' => ['a', 'case']], ['a' => $inertia]);
        $train->step(0.001, ['a' => 150.0 * $inertia / 0.001], ['B' => [0.0, 0.0]]);
        for ($t = 0; $t < 500; $t++) {
            $train->step(0.001, [], ['B' => $brake->carries($train->slip('B'))]);
        }
        $left = (1.0 - (1.0 - $k * 150.0) * exp($k * $torque * 0.5 / $inertia)) / $k;
        $this->assertEqualsWithDelta($left, $train->speed('a'), 0.05);
        $even = 150.0 - $torque * 0.5 / $inertia;
        $this->assertGreaterThan($even + 20.0, $left, 'an even friction would stop it sooner');
    }

    public function test_a_lining_that_grabs_carries_more_as_it_comes_to_rest(): void
    {
        $good = $this->filled(['staticRatio' => 0.94]);
        $this->assertEqualsWithDelta(0.94, $good->carries(0.0)[1] / $good->carries(60.0)[1], 1e-6);
        $unit = fn (array $faults): array => (new Built(TestCell::specimen('RD4', 1), $faults))->holders['C3'];
        $glazed = $unit([['fault' => 'worn-pack', 'where' => 'C3', 'severity' => 0.7]]);
        $this->assertGreaterThan(1.0, $glazed['staticRatio']);
        $this->assertLessThan(0.5 * $unit([])['mu'], $glazed['mu'], 'and less all the same');
        $this->assertGreaterThan(0.0, $unit([])['muFall_s_per_m'], 'the pack says how it falls');
    }

    /** @param  array<string, mixed>  $as */
    private function filled(array $as): Holder
    {
        $clutch = new Holder($as + self::CLUTCH);
        $clutch->on = true;
        for ($k = 0; $k < 1000; $k++) {
            $clutch->fill(700.0, 0.001, 1.0);
        }

        return $clutch;
    }

    /** Through a sharp orifice q = 0.62 A sqrt(2 dp / rho) (Torricelli; contraction as common practice). */
    public function test_the_piston_is_home_when_the_orifice_has_filled_its_stroke(): void
    {
        $clutch = new Holder(self::CLUTCH);
        $clutch->on = true;
        $seconds = 10.0 / (0.62 * 3.0 * sqrt(2.0 * 600_000.0 / 850.0));
        $this->assertEqualsWithDelta($seconds, $clutch->expected(700.0), 0.01 * $seconds);
        for ($t = 0; $t < (int) (900 * $seconds); $t++) {
            $clutch->fill(700.0, 0.001, 1.0);
        }
        $this->assertLessThan(120.0, $clutch->pressure, 'it is still on its way');
    }

    public function test_what_goes_in_comes_out_or_becomes_heat(): void
    {
        $orders = [
            ['t' => 0.0, 'gear' => 'N', 'throttle' => 0.0], ['t' => 1.0, 'gear' => '1'],
            ['t' => 3.0, 'throttle' => 0.4, 'load' => 0.15], ['t' => 8.0, 'gear' => '2'], ['t' => 12.0, 'gear' => '3'],
            ['t' => 15.0, 'lockup' => 'on'],
        ];
        $rows = array_values(iterator_to_array(Once::run(TestCell::specimen('RD4', 3), [], $orders, 40.0, 9)));
        $last = fn (array $of, int $column): float => array_sum(array_column(array_slice($of, -400), $column)) / 400.0;
        $mean = fn (int $column): float => $last($rows, $column);
        // Locked up in the direct gear what the motor's flange gives arrives, less the drag of a few newton metres.
        $this->assertEqualsWithDelta($mean(1), $mean(2), 1.0, 'locked up');
        $this->assertEqualsWithDelta($mean(2), $mean(3), 1.0, 'direct gear');
        $this->assertEqualsWithDelta($mean(4), $mean(5), 6.0);
        $this->assertGreaterThan($mean(5), $mean(4));
        // Stalled, the converter takes what its capacity says.
        $stall = [['t' => 0.0, 'gear' => '1', 'hold' => 'on', 'throttle' => 0.3, 'load' => 0.0]];
        $rows = array_values(iterator_to_array(Once::run(TestCell::specimen('RD4', 3), [], $stall, 6.0, 9)));
        $this->assertEqualsWithDelta(0.0, $last($rows, 2), 2.0, 'the turbine stands');
        $this->assertGreaterThan(700.0, $last($rows, 1));
        // T = C w^2 with a capacity of 0.0058 at stall, and the speed of the motor in rad/s.
        $this->assertEqualsWithDelta(0.0058 * ($last($rows, 1) * M_PI / 30.0) ** 2, $last($rows, 4), 2.0);
    }

    /** At idle the control can ask for all the line there is: the regulator, not the throttle, decides. */
    #[DataProvider('families')]
    public function test_the_line_is_read_in_every_range_at_idle_and_at_full_command(string $code): void
    {
        $file = TestCell::specimen($code, 3);
        $orders = [
            ['t' => 0.0, 'gear' => 'P', 'throttle' => 0.0, 'hold' => 'on'], ['t' => 2.0, 'line' => 'full'],
            ['t' => 4.0, 'gear' => 'R'], ['t' => 7.0, 'line' => 'auto'],
        ];
        $rows = array_values(iterator_to_array(Once::run($file, [], $orders, 9.0, 9)));
        $read = array_column($rows, 1 + (int) array_search('line_kpa', Rig::CHANNELS, true));
        $at = fn (float $t): float => array_sum(array_slice($read, (int) (200 * $t) - 100, 100)) / 100.0;
        ['idle_kpa' => $idle, 'full_kpa' => $full] = $file['pressure'];
        $this->assertEqualsWithDelta(max(array_diff_key($full, ['R' => 0])), $at(4.0), 3.0, 'park, full command');
        $this->assertEqualsWithDelta($full['R'], $at(7.0), 3.0, 'reverse, full command');
        $this->assertEqualsWithDelta($idle + 0.12 * ($full['R'] - $idle), $at(9.0), 3.0, 'reverse, idle');
        $this->assertLessThan($at(4.0), $at(2.0));
    }

    public function test_the_same_seed_gives_the_same_run_and_another_one_another(): void
    {
        $run = fn (int $seed): array => array_values(iterator_to_array(
            Once::run(TestCell::specimen('OV3', 1), [], [['t' => 0.0, 'gear' => '1', 'throttle' => 0.3]], 2.0, $seed),
        ));
        $this->assertSame($run(4), $run(4));
        $this->assertNotSame($run(4), $run(5));
        $this->assertCount(2 * Rig::RATE_HZ + 1, $run(4));
        $this->assertCount(1 + count(Rig::CHANNELS), $run(4)[0]);
    }

    public static function unknown(): array
    {
        return [
            [['fault' => 'gremlins'], 'no fault "gremlins"'],
            [['fault' => 'worn-pack', 'where' => 'C9'], 'no element "C9"'],
            [['fault' => 'dead-solenoid', 'where' => 'Q'], 'no solenoid "Q"'],
            [['fault' => 'stuck-valve', 'where' => '9'], 'no gear "9"'],
            [['fault' => 'wrong-ratio', 'where' => 'PX'], 'no gear set "PX"'],
        ];
    }

    /** @param  array{fault: string, where?: string}  $fault */
    #[DataProvider('unknown')]
    public function test_what_the_unit_does_not_have_cannot_be_broken(array $fault, string $says): void
    {
        $this->expectExceptionMessage($says);
        new Built(TestCell::specimen('RD4', 1), [$fault]);
    }

    public function test_the_console_keeps_what_is_set_and_refuses_what_makes_no_sense(): void
    {
        $state = sys_get_temp_dir().'/rig-'.bin2hex(random_bytes(4));
        Faults::in($state)->set('VY-1', ['fault' => 'worn-pack', 'where' => 'C3', 'severity' => 0.7], 12);
        $faults = Faults::in($state);
        $this->assertSame([['fault' => 'worn-pack', 'where' => 'C3', 'severity' => 0.7]], $faults->of('VY-1'));
        $this->assertSame([12, null, []], [$faults->seed('VY-1'), $faults->seed('VY-2'), $faults->of('VY-2')]);
        $wrong = [['worn-pack', '', 1.0], ['low-pressure', 'C1', 1.0], ['worn-pack', 'C3', 2.0]];
        foreach ($wrong as [$fault, $where, $severity]) {
            try {
                $faults->set('VY-1', compact('fault', 'where', 'severity'), null);
                $this->fail("$fault was taken");
            } catch (\InvalidArgumentException $e) {
                $this->assertNotSame('', $e->getMessage());
            }
        }
        $faults->clear('VY-1');
        $this->assertSame([], Faults::in($state)->of('VY-1'));
    }
}
