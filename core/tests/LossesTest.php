<?php

declare(strict_types=1);

namespace Yard\Core\Tests;

/** Losses of the train, and what they make of the oil on a grade. */
final class LossesTest extends CoreTestCase
{
    /** @return array<string, mixed> a simple set: ring held, sun held, straight through */
    private static function set(int $sun = 30, int $ring = 74): array
    {
        return [
            'input' => 'in',
            'output' => 'out',
            'sets' => [[
                'id' => 'P1', 'kind' => 'simple', 'sun' => 's', 'ring' => 'r', 'carrier' => 'out',
                'sunTeeth' => $sun, 'ringTeeth' => $ring,
            ]],
            'elements' => [
                ['id' => 'C1', 'kind' => 'clutch', 'a' => 'in', 'b' => 's'],
                ['id' => 'C2', 'kind' => 'clutch', 'a' => 'in', 'b' => 'r'],
                ['id' => 'B1', 'kind' => 'brake', 'a' => 'r', 'b' => 'case'],
                ['id' => 'B2', 'kind' => 'brake', 'a' => 's', 'b' => 'case'],
            ],
            'gears' => [
                ['name' => '1', 'applied' => ['C1', 'B1']],
                ['name' => '2', 'applied' => ['C2', 'B2']],
                ['name' => '3', 'applied' => ['C1', 'C2']],
                ['name' => 'N', 'applied' => ['C1']],
            ],
        ];
    }

    /** @return array<string, array<string, mixed>> by gear */
    private function gears(array $train, array $losses): array
    {
        return array_column($this->calc('geartrain.solve', $train + ['losses' => $losses])['gears'], null, 'name');
    }

    /**
     * Müller, Epicyclic Drive Trains (from memory): ring held, sun in, carrier out: (i0 n0 - 1)/(i0 - 1) with the basic
     * ratio i0 = -R/S and the basic efficiency n0 of two meshes; sun held, ring in: (i0 - n0)/(i0 - 1).
     */
    public function test_a_single_set_by_the_closed_formula(): void
    {
        foreach ([[30, 74], [38, 74], [26, 112]] as [$sun, $ring]) {
            foreach ([0.99, 0.98, 1.0] as $mesh) {
                $gears = $this->gears(self::set($sun, $ring), ['mesh' => $mesh]);
                [$i, $n] = [-$ring / $sun, $mesh ** 2];
                $this->assertEqualsWithDelta(($i * $n - 1) / ($i - 1), $gears['1']['efficiency'], 1e-12);
                $this->assertEqualsWithDelta(($i - $n) / ($i - 1), $gears['2']['efficiency'], 1e-12);
                $this->assertEqualsWithDelta(1.0, $gears['3']['efficiency'], 1e-12, 'nothing rolls: all turn as one');
                $this->assertArrayNotHasKey('efficiency', $gears['N']);
            }
        }
    }

    public function test_it_is_off_unless_asked_for_and_open_packs_drag_by_their_slip(): void
    {
        $plain = $this->calc('geartrain.solve', self::set());
        $this->assertArrayNotHasKey('efficiency', $plain['gears'][0]);
        $drag = ['mesh' => 1.0, 'drag_nm' => ['C2' => 2.0, 'B2' => 3.0], 'inputTorque_nm' => 200.0];
        $gears = $this->gears(self::set(), $drag);
        // First: the sun turns with the input, the ring stands: C2 slips by 1, B2 by 1.
        $this->assertEqualsWithDelta(2.0 / 200 + 3.0 / 200, 1 - $gears['1']['efficiency'], 1e-12);
        $this->assertEqualsWithDelta(0.01, $gears['1']['losses']['C2'], 1e-12);
        // Third: both members turn with the input; only the open brake of the sun drags.
        $this->assertEqualsWithDelta(3.0 / 200, 1 - $gears['3']['efficiency'], 1e-12);
        $this->assertRefused(
            'geartrain.solve',
            self::set() + ['losses' => ['drag_nm' => ['C9' => 1]] + $drag],
            'unknown-element',
            '/losses/drag_nm/C9',
        );
        $this->assertRefused('geartrain.solve', self::set() + ['losses' => ['mesh' => 1.2]], 'range', '/losses/mesh');
    }

    public function test_a_cooler_on_a_grade_by_hand_and_step_by_step(): void
    {
        $asked = [
            'mass_kg' => 4200, 'grade_pct' => 6, 'speed_kmh' => 72, 'rolling' => 0.01, 'cdA_m2' => 2.0,
            'efficiency' => 0.93, 'speedRatio' => 0.94, 'coolerUa_w_per_k' => 90, 'air_degc' => 30,
            'limit_degc' => 120, 'start_degc' => 85, 'fluid_l' => 10.4, 'metal_kg' => 60,
        ];
        $out = $this->calc('cooler.balance', $asked);
        $angle = atan(0.06);
        $force = 4200 * 9.80665 * (sin($angle) + 0.01 * cos($angle)) + 2.0 * 1.2 / 2 * 20 ** 2;
        $this->assertRelative($force * 20 / 1000, $out['road_kw']);
        $this->assertRelative($out['road_kw'] / 0.93 / 0.94, $out['engine_kw']);
        $this->assertRelative($out['engine_kw'] - $out['road_kw'], $out['heat_kw']);
        $this->assertRelative(30 + 1000 * $out['heat_kw'] / 90, $out['steady_degc']);
        $this->assertFalse($out['holds']);
        $capacity = 10.4 * 0.85 * 2000 + 60 * 480;
        for ($t = 0.0, $at = 85.0; $at < 120; $t += 0.01) {
            $at += 0.01 * (1000 * $out['heat_kw'] - 90 * ($at - 30)) / $capacity;
        }
        $this->assertEqualsWithDelta($t, $out['secondsTo'], 0.1);
        $enough = $this->calc('cooler.balance', ['coolerUa_w_per_k' => $out['neededUa_w_per_k'] + 0.01] + $asked);
        $this->assertTrue($enough['holds']);
        $this->assertArrayNotHasKey('secondsTo', $enough);
        $this->assertEqualsWithDelta(120, $enough['steady_degc'], 0.01);
        $locked = $this->calc('cooler.balance', array_diff_key($asked, ['speedRatio' => 0]));
        $this->assertEqualsWithDelta(0.0, $locked['converter_kw'], 1e-12);
        $this->assertRefused('cooler.balance', ['limit_degc' => 30] + $asked, 'range', '/limit_degc');
        $this->assertRefused('cooler.balance', ['efficiency' => 0] + $asked, 'range', '/efficiency');
    }
}
