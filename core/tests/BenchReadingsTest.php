<?php

declare(strict_types=1);

namespace Yard\Core\Tests;

use PHPUnit\Framework\Attributes\DataProvider;
use PHPUnit\Framework\TestCase;
use Yard\Core\BadInput;
use Yard\Core\Electric\CoilResistance;
use Yard\Core\Fit\Metal;
use Yard\Core\Quantity\Unit;

/** Numbers off parts on the bench: coils brought to 20 degrees, vacuum and unbalance, a bush in its bore. */
final class BenchReadingsTest extends TestCase
{
    /**
     * Temperature correction factors of copper, IEC 60228, annex B: 254.5 / (234.5 + t).
     *
     * @return array<string, array{float}>
     */
    public static function temperatures(): array
    {
        return ['0' => [0.0], '10' => [10.0], '20' => [20.0], '35' => [35.0], '80' => [80.0], '120' => [120.0]];
    }

    #[DataProvider('temperatures')]
    public function test_a_coil_is_brought_to_twenty_degrees_as_the_tables_do(float $celsius): void
    {
        $factor = 254.5 / (234.5 + $celsius);
        $this->assertEqualsWithDelta(30.0 * $factor, CoilResistance::at20(30.0, $celsius), 30.0 * 2e-4);
    }

    public function test_a_coil_is_not_measured_in_an_oven(): void
    {
        $this->expectException(BadInput::class);
        CoilResistance::at20(30.0, 400.0);
    }

    public function test_vacuum_and_unbalance_have_their_units(): void
    {
        // NIST SP 811, B.8: inch of mercury, conventional, 3.386 389 E+03 Pa
        $this->assertEqualsWithDelta(3386.389, Unit::of('inHg')->toSi(1.0), 1e-9);
        $this->assertEqualsWithDelta(29.92, Unit::of('kPa')->convert(101.325, Unit::of('inHg')), 0.002);
        $this->assertEqualsWithDelta(250.0, Unit::of('g.cm')->convert(25.0, Unit::of('g.mm')), 1e-9);
        $this->assertSame('an unbalance', Unit::noun('unbalance'));
    }

    /** One metal, by hand: p = E d (Do^2 - D^2) (D^2 - Di^2) / (2 D^3 (Do^2 - Di^2)), Shigley, eq. 3-57. */
    public function test_a_steel_bush_in_steel_presses_as_the_textbook_says(): void
    {
        $fit = Metal::pressed(Metal::Steel, Metal::Steel, 50.0, 0.05, 40.0, 80.0, 20.0, 0.12);
        $p = 207e3 * 0.05 * (80 ** 2 - 50 ** 2) * (50 ** 2 - 40 ** 2) / (2 * 50 ** 3 * (80 ** 2 - 40 ** 2));
        $this->assertEqualsWithDelta($p, $fit->pressure(), 1e-9 * $p);
        $this->assertEqualsWithDelta(0.12 * $fit->pressure() * M_PI * 50 * 20, $fit->insertForce(), 1e-6);
        $closes = $fit->boreClosure() ?? 0.0;
        $this->assertGreaterThan(0.0, $closes);
        $this->assertLessThan(50.0, $closes, 'the bore cannot close by more than the interference in micrometres');
    }

    public function test_a_softer_bore_holds_less(): void
    {
        $held = fn (Metal $into): float => Metal::pressed(Metal::Bronze, $into, 50, 0.05, 45, 70, 20, 0.1)->pressure();
        $this->assertGreaterThan($held(Metal::Iron), $held(Metal::Steel));
        $this->assertGreaterThan($held(Metal::Aluminium), $held(Metal::Iron));
        $this->assertGreaterThan($held(Metal::Magnesium), $held(Metal::Aluminium));
    }
}
