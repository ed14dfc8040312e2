<?php

namespace Tests\Feature;

use App\Catalog\Models\Application;
use App\Catalog\Models\Family;
use App\Catalog\Models\Package;
use App\Catalog\Models\Variant;
use App\Catalog\Models\Vehicle;
use App\Stations\Ordering\Duty;
use App\Stations\Ordering\Queries\Specification;
use App\Yard\AskedOrder;
use Tests\TestCase;

/** What a unit is built for: every duty on the vehicles it goes into, and the rules of a race build. */
final class DutiesTest extends TestCase
{
    /**
     * @param  array<string, mixed>  $duty
     * @param  list<string>  $wishes
     * @return array<string, mixed>
     */
    private static function order(string $family, string $package, array $duty = [], array $wishes = []): array
    {
        $family = Family::query()->where('code', $family)->firstOrFail();
        $application = Application::query()
            ->whereIn('variant_id', Variant::query()->where('family_id', $family->id)->select('id'))
            ->orderBy('id')
            ->firstOrFail();

        return app(Specification::class)->of(
            $family,
            new AskedOrder($package, $wishes, [], $duty),
            Duty::of($duty, Vehicle::query()->findOrFail($application->vehicle_id)),
            Variant::query()->findOrFail($application->variant_id),
        );
    }

    /** @return list<string> */
    private static function codes(array $spec): array
    {
        return array_column($spec['options'], 'code');
    }

    public function test_every_package_holds_behind_the_engine_of_a_vehicle_it_goes_into(): void
    {
        $duties = [];
        $families = Family::query()->pluck('code', 'id');
        foreach (Package::query()->orderBy('id')->get() as $package) {
            $family = $families[$package->family_id];
            $spec = self::order($family, $package->code);
            $told = "$family $package->code: ".($spec['conflicts'][0]['explain'] ?? '');
            $this->assertSame('ok', $spec['status'], $told);
            $this->assertGreaterThanOrEqual(1.0, $spec['margins']['weakest']['margin'] ?? 0.0, $told);
            $duties[$family][] = $package->duty;
        }
        foreach (['RD4', 'OV3', 'LP6', 'TX6', 'GV5'] as $family) {
            $this->assertSame([], array_diff(['daily', 'taxi', 'tow', 'off-road', 'street'], $duties[$family]));
        }
        $racing = array_filter($duties, fn (array $d): bool => in_array('race', $d, true));
        $this->assertSame(['RD4', 'LP6'], array_keys($racing));
    }

    /** Rules of a race build, common practice, no source. */
    public function test_a_race_build_follows_its_rules(): void
    {
        $race = self::codes(self::order('RD4', 'race', ['shiftSpeed' => '6200 rpm']));
        $rules = ['launch-brake', 'catch-can', 'charge-restrictor', 'flats-reverse', 'retainer-bigger'];
        $this->assertSame([], array_diff($rules, $race));
        $slow = self::codes(self::order('RD4', 'race', ['shiftSpeed' => '4600 rpm']));
        $this->assertContains('retainer-stock', $slow, 'up to 5,000 rev/min the one as made does');
        $this->assertNotContains('retainer-bigger', $slow);
        $street = self::order('RD4', 'street', [], ['flats-reverse']);
        $this->assertSame('conflict', $street['status']);
        $this->assertStringContainsString('only for the duty race', $street['conflicts'][0]['explain']);
        $this->assertContains('catch-can', self::codes(self::order('LP6', 'race')));
        $bom = array_column(self::order('LP6', 'race')['bom'], 'count', 'part');
        $this->assertSame(2, $bom['LP-LF-120'] ?? 0);
        $this->assertArrayNotHasKey('LP-LW-240', $bom, 'the flats take the place of the wave plate');
    }

    public function test_papers_of_race_and_tow_say_how_long_the_converter_may_be_held(): void
    {
        $this->assertNull(self::order('RD4', 'daily')['held']);
        $race = self::order('RD4', 'race');
        ['held' => $held, 'converterMatch' => $match] = $race;
        $this->assertSame($match['stall_rpm'], $held['speed_rpm']);
        // Lumped capacity in closed form: C dT/dt = P - UA (T - air), from 90 degrees, 4.8 L and 13.5 kg, 60 W/K.
        $power = $held['torque_nm'] * $held['speed_rpm'] * M_PI / 30;
        $capacity = 4.8e-3 * 850 * 2000 + 13.5 * 480;
        $seconds = fn (float $to): float => -$capacity / 60 * log(
            ($power - 60 * ($to - 25)) / ($power - 60 * (90 - 25)),
        );
        $this->assertEqualsWithDelta($power, $held['clock']['heat_w'], 1e-6 * $power);
        $this->assertEqualsWithDelta($seconds(135), $held['clock']['secondsTo'][0]['seconds'], 1e-6);
        $this->assertEqualsWithDelta($seconds(175), $held['clock']['secondsTo'][1]['seconds'], 1e-6);
        // Pressure on the one opening the shell has: its hub, 62 mm (or 66 mm).
        $area = M_PI / 4 * ((float) $match['hub']) ** 2;
        $thrust = array_column($held['thrust'], 'force_n', 'name');
        $this->assertEqualsWithDelta(620e-3 * $area, $thrust['Full charge on the hub'], 1e-6);
        $this->assertEqualsWithDelta(170e-3 * $area, $thrust['Dump valve for the converter charge'], 1e-6);
        $drop = 850 / 2 * (6e-3 / 60 / (0.7 * M_PI / 4 * 2.79e-3 ** 2)) ** 2 / 1000;
        $restricted = $thrust['Converter charge restricted to 0.110 in'];
        $this->assertEqualsWithDelta((620 - $drop) * 1e-3 * $area, $restricted, 1e-3);
        $this->assertNotNull(self::order('TX6', 'tow')['held']);
    }
}
