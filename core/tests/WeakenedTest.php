<?php

declare(strict_types=1);

namespace Yard\Core\Tests;

use Yard\Core\Calculator\Calculators;

/** Worn, leaking and wrongly pressed elements against power.margin with the same change, and against closed forms. */
final class WeakenedTest extends CoreTestCase
{
    /** @return array<string, mixed> the schema's example without its faults */
    private static function sound(): array
    {
        $file = dirname(__DIR__).'/schema/power.weakened.json';
        $schema = json_decode((string) file_get_contents($file), true);

        return array_diff_key($schema['example']['input'], ['worn' => 0, 'leaks' => 0, 'boostFactor' => 0]);
    }

    /** @return array<string, float> gear => N.m it holds now */
    private function holds(array $faults, array $unit): array
    {
        $out = $this->calc('power.weakened', $faults + $unit);

        return array_combine(
            array_column($out['gears'], 'name'),
            array_map(fn (array $g): float => $g['now']['holds_nm'], $out['gears']),
        );
    }

    public function test_a_sound_unit_holds_what_it_held_and_shifts_as_it_should(): void
    {
        $out = $this->calc('power.weakened', self::sound());
        foreach ($out['gears'] as $gear) {
            $this->assertSame($gear['sound'], $gear['now']);
            $this->assertSame("Gear {$gear['name']} holds what it held.", $gear['sentence']);
        }
        $this->assertSame(['As it should be.'], array_values(array_unique(array_column($out['shifts'], 'sentence'))));
        $largest = $this->calc('power.margin', self::sound())['largestInputTorque_nm'];
        $this->assertRelative($largest, min($this->holds([], self::sound())));
    }

    public function test_what_is_left_of_an_element_is_what_is_left_of_its_gear(): void
    {
        $before = $this->holds([], self::sound());
        $after = $this->holds(['worn' => ['B2' => 0.35]], self::sound());
        $this->assertRelative(0.35 * $before['2'], $after['2']);
        $this->assertRelative(0.35 * $before['4'], $after['4']);
        $this->assertSame([$before['1'], $before['3']], [$after['1'], $after['3']]);
        $out = $this->calc('power.weakened', ['worn' => ['B2' => 0.0]] + self::sound());
        $this->assertSame('Gear 2 holds nothing: B2 slips at once.', $out['gears'][1]['sentence']);
        $this->assertTrue($out['gears'][1]['slips']);
    }

    /** A hole as large as the feed takes half the pressure, one of twice the diameter 16 of 17 parts. */
    public function test_a_leak_takes_pressure_as_two_orifices_in_a_row(): void
    {
        foreach ([[2.0, 1 / 2], [4.0, 1 / 17], [0.0, 1.0]] as [$hole, $share]) {
            $leak = ['leaks' => ['C3' => ['hole_mm' => $hole, 'feed_mm' => 2.0]]];
            $out = $this->calc('power.weakened', $leak + self::sound());
            $this->assertRelative($share, $out['reaches']['C3']);
            $changed = self::sound();
            $changed['capacities']['C3']['pressureFactor'] = $share;
            $this->assertEquals($this->holds([], $changed), $this->holds($leak, self::sound()));
        }
    }

    public function test_line_pressure_off_its_value(): void
    {
        $unit = self::sound();
        $low = $this->holds(['pressureFactor' => 0.6], $unit);
        $changed = ['pressure_kpa' => array_map(fn (float $p): float => 0.6 * $p, $unit['pressure_kpa'])] + $unit;
        $this->assertEqualsWithDelta($this->holds([], $changed), $low, 1e-9);
        $unit['capacities']['C3']['lining'] = ['pressure_kpa' => 2500];
        $this->assertSame([], $this->calc('power.weakened', $unit)['overPressed']);
        // The spring's 400 kPa stay, the other 500 are boost: 400 + 500 x 1.5.
        $out = $this->calc('power.weakened', ['boostFactor' => 1.5, 'pressureLimit_kpa' => 1200] + $unit);
        $this->assertRelative(1150.0, $out['gears'][2]['pressure_kpa']);
        $this->assertSame(['3', '4'], array_values(array_unique(array_column($out['overPressed'], 'gear'))));
        $this->assertSame(['1', '2'], array_column($out['overPressure'], 'gear'));
    }

    /** Bending of a short cantilever all round: M = F a over pi D, section modulus t^2/6 for each mm. */
    public function test_the_land_behind_a_snap_ring(): void
    {
        $unit = self::sound();
        $clutch = $unit['capacities']['C3'];
        $unit['capacities']['C3']['land'] = [
            'diameter_mm' => 158.0,
            'land_mm' => 1.6,
            'arm_mm' => 1.3,
            'notch' => 2.4,
            'limit_mpa' => 170.0,
        ];
        $area = M_PI / 4 * ($clutch['pistonOuter_mm'] ** 2 - $clutch['pistonInner_mm'] ** 2);
        $force = fn (float $kpa): float => $kpa * 1e-3 * $area - $clutch['returnForce_n'];
        $stress = fn (float $f): float => 2.4 * ($f * 1.3 / (M_PI * 158.0)) / (1.6 ** 2 / 6);
        $pressure = max($unit['pressure_kpa']['3'], $unit['pressure_kpa']['4']);
        foreach ([[1.0, false], [2.2, true]] as [$factor, $over]) {
            $out = $this->calc('power.weakened', ['pressureFactor' => $factor] + $unit);
            [$land] = $out['lands'];
            $this->assertSame(['C3', $over], [$land['element'], $land['over']]);
            $this->assertRelative($force($factor * $pressure), $land['force_n']);
            $this->assertRelative($stress($land['force_n']), $land['stress_mpa']);
            $this->assertRelative($stress($force($pressure)), $land['sound_mpa']);
        }
        $unit['capacities']['C3']['land']['land_mm'] = 0.0;
        $this->assertRefused('power.weakened', $unit, 'range', '/capacities/C3/land/land_mm');
    }

    /** I dw/dt = T - X, integrated step by step: X from the capacity that power.margin prints. */
    public function test_the_time_to_pull_the_input_down(): void
    {
        $unit = self::sound();
        $rows = $this->calc('power.margin', ['converterRatio' => 1.0] + $unit)['gears'][2]['elements'];
        $c3 = array_column($rows, null, 'element')['C3'];
        $share = $c3['demand_nm'] / $unit['inputTorque_nm'];
        $ratios = array_column($this->calc('geartrain.solve', $unit)['gears'], 'ratio', 'name');
        [$w, $target] = [$unit['inputSpeed_rpm'], $unit['inputSpeed_rpm'] * $ratios['3'] / $ratios['2']];
        for ($steps = 0, $dt = 1e-5; $w > $target; $steps++) {
            $pull = $unit['inputTorque_nm'] - $c3['capacity_nm'] / $share;
            $w += $pull / $unit['shift']['inputInertia_kgm2'] * $dt * 30.0 / M_PI;
        }
        $shift = $this->calc('power.weakened', $unit)['shifts'][1];
        $this->assertSame(['2', '3', 'C3'], [$shift['from'], $shift['to'], $shift['element']]);
        $this->assertEqualsWithDelta($steps * $dt, $shift['sound']['pullsDown_s'], 2e-5);
    }

    public function test_what_comes_late_flares_what_comes_early_ties_up_and_what_does_not_hold_never_comes(): void
    {
        $shift = fn (array $faults): array => $this->calc('power.weakened', $faults + self::sound())['shifts'][2];
        $late = $shift(['worn' => ['B2' => 0.8]]);
        $this->assertLessThan(0.0, $late['feel']['now']['overlap_s']);
        $this->assertGreaterThan(0.0, $late['feel']['now']['flare_rpm']);
        $this->assertStringStartsWith('Flares by ', $late['sentence']);
        $early = $shift(['pressureFactor' => 1.5]);
        $this->assertGreaterThan(0.0, $early['feel']['now']['overlap_s']);
        $this->assertStringStartsWith('Ties up for ', $early['sentence']);
        $dead = $shift(['worn' => ['B2' => 0.2]]);
        $this->assertSame([], $dead['now']);
        $this->assertStringContainsString('the gear does not come', $dead['sentence']);
        // First to second takes over from a one-way clutch: late is softer, and nothing flares.
        $soft = $this->calc('power.weakened', ['worn' => ['B2' => 0.8]] + self::sound())['shifts'][0];
        $this->assertStringStartsWith('Softer: ', $soft['sentence']);
    }

    public function test_faults_that_make_no_sense(): void
    {
        $refused = fn (array $fault, string $code, string $path) => $this->assertRefused(
            'power.weakened',
            $fault + self::sound(),
            $code,
            $path,
        );
        $refused(['worn' => ['X' => 0.5]], 'unknown-element', '/worn/X');
        $refused(['worn' => ['B2' => 1.2]], 'range', '/worn/B2');
        $refused(['leaks' => ['C3' => ['hole_mm' => 1.0]]], 'missing', '/leaks/C3/feed_mm');
        $refused(['pressureFactor' => 0], 'range', '/pressureFactor');
        $this->assertContains('power.weakened', Calculators::names());
    }
}
