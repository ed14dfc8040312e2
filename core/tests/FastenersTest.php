<?php

declare(strict_types=1);

namespace Yard\Core\Tests;

use PHPUnit\Framework\Attributes\DataProvider;

final class FastenersTest extends CoreTestCase
{
    /**
     * Stress area by formula; proof stress ISO 898-1 and SAE J429 (from memory); T = 0.2 x 0.75 x proof x d (Shigley
     * ch. 8).
     */
    public static function bolts(): array
    {
        return [
            ['M5x0.8', '8.8', 14.18254712, 8225.877328, 6.169407996],
            ['M6x1.0', '8.8', 20.12337599, 11671.55807, 10.50440227],
            ['M6', '10.9', 20.12337599, 16702.40207, 15.03216186],
            ['M8x1.25', '12.9', 36.60854076, 35510.28454, 42.61234145],
            ['M10', '8.8', 57.98959311, 33633.964, 50.450946],
            ['M14x2', '10.9', 115.4393605, 95814.66923, 201.2108054],
            ['1/4-20', 'SAE 2', 20.52980197, 1750.169118 * 4.4482216152605, 7.415345948],
            ['5/16-18', 'SAE 8', 33.82618, 6291.682074 * 4.4482216152605, 33.32177922],
            ['1/2-13', 'SAE 5', 91.5479413, 12061.46539 * 4.4482216152605, 102.2071953],
            ['3/8-24', 'SAE 8', 56.6634473, 10539.42229 * 4.4482216152605, 66.98220891],
        ];
    }

    #[DataProvider('bolts')]
    public function test_stress_area_proof_load_and_torque(
        string $thread,
        string $grade,
        float $area,
        float $proof,
        float $torque,
    ): void {
        $out = $this->calc('fastener.torque', [
            'thread' => $thread,
            'grade' => $grade,
            'k' => 0.2,
            'preloadFraction' => 0.75,
        ]);
        $this->assertRelative($area, $out['stressArea_mm2'], 1e-6);
        $this->assertRelative($proof, $out['proofLoad_n'], 1e-9);
        $this->assertRelative($torque, $out['torque_nm'], 1e-9);
    }

    public function test_strength_drops_in_large_metric_8_8(): void
    {
        $this->assertRelative(
            600.0,
            $this->calc('fastener.torque', [
                'thread' => 'M20',
                'grade' => '8.8',
                'k' => 0.2,
                'preloadFraction' => 0.75,
            ])['proofStress_mpa'],
        );
    }

    public function test_trade_values_lie_below_the_computed_ceiling(): void
    {
        // M6 8.8 10 N.m: common practice, no source.
        $this->assertGreaterThan(
            10.0,
            $this->calc('fastener.torque', [
                'thread' => 'M6',
                'grade' => '8.8',
                'k' => 0.2,
                'preloadFraction' => 0.75,
            ])['torque_nm'],
        );
    }

    public function test_bad_threads_and_grades(): void
    {
        $bolt = ['thread' => 'M6', 'grade' => '8.8', 'k' => 0.2, 'preloadFraction' => 0.75];
        $this->assertRefused('fastener.torque', ['thread' => 'M8x1,25'] + $bolt, 'decimal-comma', '/thread');
        $this->assertRefused('fastener.torque', ['thread' => 'six'] + $bolt, 'thread', '/thread');
        $this->assertRefused('fastener.torque', ['thread' => 'M1x2'] + $bolt, 'thread', '/thread');
        $this->assertRefused('fastener.torque', ['thread' => '5/16-18'] + $bolt, 'grade-thread', '/grade');
        $this->assertRefused('fastener.torque', ['grade' => '7.7'] + $bolt, 'choice', '/grade');
        $this->assertRefused('fastener.torque', ['k' => 0] + $bolt, 'range', '/k');
    }

    /** Statics of a wrench with an adapter: T_set = T L / (L + E cos phi). */
    public static function adapters(): array
    {
        return [
            [100, 400, 50, 0, 88.88888888888889],
            [100, 400, 50, 90, 100],
            [100, 400, 50, 180, 114.2857142857143],
            [100, 400, 50, 45, 91.87896969],
            [27, 300, 50.8, 0, 23.09007981755986],
            [12, 230, 35, 0, 10.41509433962264],
        ];
    }

    #[DataProvider('adapters')]
    public function test_adapter_setting(
        float $wanted,
        float $wrench,
        float $adapter,
        float $angle,
        float $expected,
    ): void {
        $this->assertRelative(
            $expected,
            $this->calc('torque.adapter', [
                'wanted_nm' => $wanted,
                'wrenchLength_mm' => $wrench,
                'adapterLength_mm' => $adapter,
                'angle_deg' => $angle,
            ])['setting_nm'],
            1e-9,
        );
    }

    public function test_folded_back_adapter_without_arm_is_refused(): void
    {
        $this->assertRefused(
            'torque.adapter',
            ['wanted_nm' => 10, 'wrenchLength_mm' => 50, 'adapterLength_mm' => 50, 'angle_deg' => 180],
            'range',
            '/adapterLength_mm',
        );
    }

    public function test_scale_on_a_spanner(): void
    {
        // 10 N.m at 0.23 m: 43.5 N, about 4.4 kgf (common practice, no source; the arithmetic is statics).
        $out = $this->calc('torque.lever', ['torque_nm' => 10, 'arm_m' => 0.23]);
        $this->assertRelative(43.47826086956522, $out['force_n']);
        $this->assertRelative(4.433548752, $out['force_kgf'], 1e-9);
        $this->assertRelative(9.774301874, $out['force_lbf'], 1e-9);
    }
}
