<?php

declare(strict_types=1);

namespace Yard\Core\Tests;

/** The heat of a shift in a plate: against a half-space of a textbook, an explicit grid, a lump cooled in steps. */
final class LiningTemperatureTest extends CoreTestCase
{
    private const SHIFT = ['heat_j' => 20600, 'area_mm2' => 60000, 'shift_s' => 0.35] +
        ['plate_mm' => 1.75, 'oil_degc' => 90];

    /**
     * A half space under a flux falling evenly to nothing is hottest half-way, at 0.532 q0 sqrt(ts) / sqrt(k rho c)
     * (Carslaw and Jaeger, flux as a power of time, superposed): a thick plate must agree.
     */
    public function test_a_thick_plate_is_a_half_space(): void
    {
        $out = $this->calc('lining.temperature', ['plate_mm' => 60, 'intoSteel' => 0.9] + self::SHIFT);
        $flux = 2 * 0.9 * 20600 / (0.06 * 0.35);
        $effusivity = sqrt(46 * 7850 * 480);
        $rise = $flux * (2.0 / sqrt(M_PI)) * sqrt(0.175) * (2.0 / 3.0) / $effusivity;
        $this->assertRelative(90 + $rise, $out['peak_degc'], 2e-4);
        $this->assertEqualsWithDelta(0.175, $out['peakAt_s'], 0.002);
    }

    /** The heat equation on a grid of 60 cells, explicit, flux on the outside, nothing through the middle. */
    public function test_a_thin_plate_on_a_grid(): void
    {
        $flux = 2 * 20600 / (0.06 * 0.35);
        ['hottest' => $hottest, 'mean' => $mean] = self::grid(fn (float $t): float => $flux * (1 - $t / 0.35));
        $out = $this->calc('lining.temperature', self::SHIFT);
        $this->assertEqualsWithDelta(90 + $hottest, $out['peak_degc'], 0.3);
        $this->assertRelative($mean, $out['bulkRise_k'], 1e-3);
        $this->assertGreaterThan($out['bulkRise_k'], $out['peak_degc'] - 90);
    }

    /** Even friction is the course in closed form; any other on the grid, its slip integrated in small steps. */
    public function test_friction_over_slip(): void
    {
        $even = [['slip' => 0, 'mu' => 0.13], ['slip' => 1, 'mu' => 0.13]];
        $plain = $this->calc('lining.temperature', self::SHIFT);
        $out = $this->calc('lining.temperature', ['friction' => $even] + self::SHIFT);
        $this->assertEqualsWithDelta($plain['peak_degc'], $out['peak_degc'], 0.4);
        $this->assertEqualsWithDelta($plain['peakAt_s'], $out['peakAt_s'], 0.01);
        $rising = [['slip' => 0, 'mu' => 0.15], ['slip' => 0.4, 'mu' => 0.12], ['slip' => 1, 'mu' => 0.07]];
        $mu = fn (float $s): float => $s < 0.4 ? 0.15 - 0.03 * $s / 0.4 : 0.12 - 0.05 * ($s - 0.4) / 0.6;
        // How long it takes with an inertia of one: then scaled to the shift.
        for ($slip = 1.0, $whole = 0.0; $slip > 0.0; $whole += 1e-4) {
            $slip -= 1e-4 * $mu($slip);
        }
        $scale = $whole / 0.35;
        // Of a unit of inertia the whole heat is 1/2; here it is 20.6 kJ over 0.06 m2.
        $flux = 20600 / 0.06 / 0.5 * $scale;
        $slip = 1.0;
        ['hottest' => $hottest] = self::grid(function (float $t, float $dt) use (&$slip, $mu, $flux, $scale): float {
            $in = $slip > 0.0 ? $flux * $mu($slip) * $slip : 0.0;
            $slip -= $dt * $scale * $mu(max(0.0, $slip));

            return $in;
        });
        $out = $this->calc('lining.temperature', ['friction' => $rising] + self::SHIFT);
        $this->assertEqualsWithDelta(90 + $hottest, $out['peak_degc'], 0.6);
        $late = ['plate_mm' => 60] + self::SHIFT;
        $thick = fn (array $of): float => $this->calc('lining.temperature', $of + $late)['peakAt_s'];
        $this->assertGreaterThan($thick([]) + 0.01, $thick(['friction' => $rising]), 'it bites softer at the start');
        $this->assertRelative($plain['bulkRise_k'], $out['bulkRise_k'], 1e-9);
        $order = ['friction' => array_reverse($rising)] + self::SHIFT;
        $this->assertRefused('lining.temperature', $order, 'order', '/friction/1/slip');
    }

    /**
     * The heat equation on 60 cells, explicit, flux on the outside, nothing through the middle.
     *
     * @param  callable(float, float): float  $flux  W/m2 at a time, and the step
     * @return array{hottest: float, mean: float} K
     */
    private static function grid(callable $flux): array
    {
        [$cells, $capacity] = [60, 7850 * 480];
        $dx = 0.875e-3 / $cells;
        $dt = 0.2 * $dx ** 2 * $capacity / 46;
        $t = array_fill(0, $cells, 0.0);
        $hottest = 0.0;
        for ($n = 0; $n * $dt < 0.35; $n++) {
            $in = $flux($n * $dt, $dt);
            $before = 0.0;
            $next = $t;
            for ($i = 0; $i < $cells; $i++) {
                $through = $i === $cells - 1 ? $in : 46 * ($t[$i + 1] - $t[$i]) / $dx;
                $next[$i] += $dt * ($through - $before) / ($capacity * $dx);
                $before = $through;
            }
            $t = $next;
            $hottest = max($hottest, end($t) + $in * $dx / 2 / 46);
        }

        return ['hottest' => $hottest, 'mean' => array_sum($t) / $cells];
    }

    public function test_shift_after_shift(): void
    {
        $one = $this->calc('lining.temperature', self::SHIFT);
        $this->assertRelative(7850 * 480 * 0.875e-3 / 400, $one['coolsIn_s']);
        $repeat = ['every_s' => 6, 'times' => 8];
        $out = $this->calc('lining.temperature', compact('repeat') + self::SHIFT)['repeated'];
        $left = 0.0;
        for ($n = 1; $n < 8; $n++) {
            $left = ($left + $one['bulkRise_k']) * exp(-6 / $one['coolsIn_s']);
        }
        $this->assertRelative($one['peak_degc'] + $left, $out['last_degc']);
        $this->assertGreaterThan($out['last_degc'], $out['settles_degc']);
        $single = $this->calc('lining.temperature', ['repeat' => ['every_s' => 6, 'times' => 1]] + self::SHIFT);
        $this->assertRelative($one['peak_degc'], $single['repeated']['last_degc']);
    }

    public function test_limits_and_nonsense(): void
    {
        $holds = function (float $limit_degc): bool {
            return $this->calc('lining.temperature', compact('limit_degc') + self::SHIFT)['holds'];
        };
        $peak = $this->calc('lining.temperature', self::SHIFT)['peak_degc'];
        $this->assertSame([false, true], [$holds($peak - 1), $holds($peak + 1)]);
        $this->assertRelative(90.0, $this->calc('lining.temperature', ['heat_j' => 0] + self::SHIFT)['peak_degc']);
        $this->assertRefused('lining.temperature', ['area_mm2' => 0] + self::SHIFT, 'range', '/area_mm2');
        $this->assertRefused('lining.temperature', ['intoSteel' => 2] + self::SHIFT, 'range', '/intoSteel');
    }
}
