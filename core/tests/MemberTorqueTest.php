<?php

declare(strict_types=1);

namespace Yard\Core\Tests;

use PHPUnit\Framework\TestCase;
use Yard\Core\Drivetrain\ApplyChart;
use Yard\Core\Input;
use Yard\Core\Power\MemberTorque;

/** The torque a member carries, on a single set whose numbers are done by hand (lever of one planetary set). */
final class MemberTorqueTest extends TestCase
{
    /** Sun 30, ring 70: ring in, carrier out. 1: sun held, ratio 10/7. 2: locked up, ratio 1. R is not there. */
    private static function chart(): ApplyChart
    {
        return ApplyChart::read(Input::of([
            'input' => 'in',
            'output' => 'out',
            'sets' => [[
                'id' => 'P',
                'kind' => 'simple',
                'sun' => 'sun',
                'ring' => 'in',
                'carrier' => 'out',
                'sunTeeth' => 30,
                'ringTeeth' => 70,
            ]],
            'elements' => [
                ['id' => 'B', 'kind' => 'brake', 'a' => 'sun', 'b' => 'case'],
                ['id' => 'C', 'kind' => 'clutch', 'a' => 'in', 'b' => 'sun'],
            ],
            'gears' => [['name' => '1', 'applied' => ['B']], ['name' => '2', 'applied' => ['C']]],
        ]));
    }

    public function test_the_gear_that_asks_most_is_found_with_launch_and_shock(): void
    {
        $worst = fn (string $of) => MemberTorque::worst(self::chart(), $of, 200.0, 1.9, 1.5);
        $this->assertSame('1', $worst('input')?->gear, 'the converter multiplies in the gear one pulls away in');
        $this->assertEqualsWithDelta(200.0 * 1.9 * 1.5, $worst('input')->torque ?? 0.0, 1e-9);
        $this->assertEqualsWithDelta(10.0 / 7.0 * 570.0, $worst('output')->torque ?? 0.0, 1e-9);
        // The sun takes 30 of 70 parts of the ring's torque.
        $this->assertEqualsWithDelta(3.0 / 7.0 * 570.0, $worst('B')->torque ?? 0.0, 1e-9);
        $this->assertSame('2', $worst('C')?->gear);
        $this->assertEqualsWithDelta(0.3 * 300.0, $worst('C')->torque ?? 0.0, 1e-9, 'locked: the sun takes 30 of 100');
        $this->assertNull($worst('Z'), 'nothing loads what is not there');
    }
}
