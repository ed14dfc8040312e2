<?php

namespace Tests\Feature;

use App\Catalog\Exchange\CheckPrograms;
use App\Catalog\Models\Family;
use App\Catalog\Models\JobType;
use App\Catalog\Models\Package;
use App\Catalog\Models\Variant;
use App\Stations\Dyno\Actions\OnTheRig;
use App\Stations\Dyno\Models\Run;
use App\Stations\Ordering\Queries\Specification;
use App\Yard\AskedOrder;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\TestCase;

/** What an order puts into a unit goes with it to the test cell. */
final class HardwareTest extends TestCase
{
    /** @return array<string, mixed> what would be frozen with the release */
    private static function frozen(Variant $variant, string $package, array $add = []): array
    {
        $desk = app(Specification::class);
        $spec = $desk->of($variant->family, new AskedOrder($package, $add), null, $variant);

        return $desk->bench($variant, $package, $spec, JobType::query()->where('code', 'rebuild')->sole());
    }

    public static function families(): array
    {
        return [['RD4'], ['OV3'], ['LP6'], ['TX6'], ['GV5']];
    }

    #[DataProvider('families')]
    public function test_every_package_of_every_variant_has_windows_of_units_built_alike(string $code): void
    {
        $family = Family::query()->where('code', $code)->sole();
        foreach (Variant::query()->where('family_id', $family->id)->get() as $variant) {
            foreach (Package::query()->where('family_id', $family->id)->get() as $package) {
                $program = self::frozen($variant, $package->code)['testProgram'];
                $this->assertSame('built', $program['referenceOf'], "$variant->code, $package->code");
                $this->assertGreaterThan(70, count($program['reference']));
            }
        }
    }

    public function test_a_wish_that_changes_the_hardware_has_no_windows_and_says_so(): void
    {
        $variant = Variant::query()->where('code', 'OV3-B')->sole();
        $program = self::frozen($variant, 'daily', ['pressure-raised'])['testProgram'];
        $this->assertSame('family', $program['referenceOf']);
        $this->assertSame(
            ['cooler', 'efficiency', 'sensor'],
            collect($program['reference'])->keys()->map(fn (string $k) => explode(':', $k)[0])->unique()->sort()
                ->values()->all(),
        );
        $plain = self::frozen(Variant::query()->where('code', 'OV3-A')->sole(), 'tow');
        $this->assertFalse($plain['hardware']['lockup']);
        $this->assertSame(0.94, $plain['hardware']['capacities']['C1']['lining']['staticRatio']);
        $this->assertArrayNotHasKey('lockupSlip_rpm', $plain['testProgram']['limits']);
        $this->assertNotContains('on', array_column($plain['testProgram']['steps'], 'lockup'));
    }

    public function test_the_file_for_the_rig_has_what_the_package_builds_in(): void
    {
        $unit = $this->bringTo('dyno', 'C-9001', 'tow');
        $file = json_decode((string) json_encode(app(OnTheRig::class)->file($unit->currentBuild)), true);
        $variant = $unit->knownVariant()->hardware;
        $power = $unit->knownFamily()->body['power'];
        // The regulator spring of the trailer package gives 170 kPa more, in every gear at every throttle.
        $this->assertEqualsWithDelta($power['spring_kpa'] + 170.0, $file['pressure']['idle_kpa'], 1e-9);
        $full = array_replace($power['pressure_kpa'], $variant['pressure_kpa'] ?? []);
        foreach ($full as $gear => $kpa) {
            $this->assertEqualsWithDelta($kpa + 170.0, $file['pressure']['full_kpa'][$gear], 1e-9, "gear $gear");
        }
        $this->assertNotEquals($power['capacities']['B2'], $file['capacities']['B2'], 'the wide band');
        $this->assertSame(2, $file['capacities']['lock-up']['frictionFaces'], 'the heavy converter');
        $this->assertArrayNotHasKey('lock-up', $file['travel_mm']);
        $this->assertSame($unit->currentBuild->frozen()['fluid']['litres'], $file['fluid_l']);

        $id = $this->as('dyno')->write('/units/C-9001/dyno/runs', ['cell' => 'A'])->assertCreated()->json('id');
        $asked = Run::query()->findOrFail($id)->program;
        $this->assertSame('built', $asked['referenceOf']);
        $this->assertGreaterThan(600, $asked['reference']['line:0']['max'], 'the raised line is what good units show');
        $this->assertSame(
            ['of' => 'built', 'count' => count($asked['reference'])],
            $this->onCard('dyno.program.windows'),
        );
    }

    public function test_windows_of_what_the_family_does_not_have_are_not_taken_in(): void
    {
        $pack = json_decode((string) file_get_contents(database_path('demo/catalog.json')));
        $family = array_column($pack->families, null, 'code')['GV5'];
        $this->assertSame([], CheckPrograms::errors($family, '/families/4'));
        $first = $family->testPrograms[0]->body->references[0];
        [$first->variants[0], $first->options[0]] = ['GV5-9', 'rings-scarf'];
        $this->assertSame(
            [
                '/families/4/testPrograms/0/body/references/0/variants/0',
                '/families/4/testPrograms/0/body/references/0/options/0',
            ],
            array_column(CheckPrograms::errors($family, '/families/4'), 'pointer'),
        );
    }
}
