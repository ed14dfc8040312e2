<?php

namespace Tests\Feature;

use App\Catalog\Exchange\BadPack;
use App\Catalog\Exchange\ImportPack;
use App\Catalog\Models\FamilySpec;
use Illuminate\Support\Facades\DB;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\TestCase;

final class CatalogTest extends TestCase
{
    private static function pack(): \stdClass
    {
        return json_decode((string) file_get_contents(dirname(__DIR__, 2).'/database/demo/catalog.json'));
    }

    public static function broken(): array
    {
        return [
            'not JSON' => ['{"format":', ''],
            'a list' => ['[]', ''],
            'unknown field' => [fn ($p) => ($p->families[0]->color = 'red'), '/families/0'],
            'missing field' => [
                function ($p): void {
                    unset($p->parts[0]->price);
                },
                '/parts/0',
            ],
            'unknown part in a pack' => [
                fn ($p) => ($p->families[0]->packs[0]->body->slots[0]->parts[0] = 'BP-999'),
                '/families/0/packs/0/body/slots/0/parts/0',
            ],
            'selective part without thickness' => [
                fn ($p) => ($p->families[0]->packs[0]->body->slots[0]->parts[0] = 'FL-20'),
                '/families/0/packs/0/body/slots/0/parts/0',
            ],
            'window upside down' => [
                fn ($p) => ($p->families[0]->packs[1]->body->window->min = 0.2),
                '/families/0/packs/1/body/window',
            ],
            'duplicate part' => [fn ($p) => ($p->parts[3]->number = $p->parts[2]->number), '/parts/3/number'],
            'vehicle nobody makes' => [fn ($p) => ($p->applications[0]->vehicle = 'NONE'), '/applications/0/vehicle'],
            'option that needs nothing known' => [
                fn ($p) => ($p->families[0]->options[2]->body->requires = ['wings']),
                '/families/0/options/2/body/requires/0',
            ],
            'operations in a circle' => [
                fn ($p) => ($p->families[0]->teardown[0]->after = ['case']),
                '/families/0/teardown',
            ],
            'train with impossible teeth' => [
                fn ($p) => ($p->families[0]->train->sets[0]->sunTeeth = 0),
                '/families/0/train/sets/0/sunTeeth',
            ],
            'hardware for an element that is not there' => [
                fn ($p) => ($p->families[0]->body->power->capacities->C9 = (object) [
                    'kind' => 'fixed',
                    'torque_nm' => 100,
                ]),
                '/families/0/body/power/capacities/C9',
            ],
            'a clutch without its friction' => [
                function ($p): void {
                    unset($p->families[0]->body->power->capacities->C1->mu);
                },
                '/families/0/body/power/capacities/C1/mu',
            ],
            'an accumulator without its orifice' => [
                function ($p): void {
                    unset($p->families[0]->body->power->accumulators->B2->feed);
                },
                '/families/0/body/power/accumulators/B2',
            ],
            'an option whose piston presses its spring solid' => [
                fn ($p) => (array_values(
                    array_filter($p->families[0]->options, fn ($o) => $o->code === 'acc-stiff'),
                )[0]->body->power->accumulators->B2->stroke_mm = 60),
                '/families/0/options/18/body/power/accumulators/B2/stroke_mm',
            ],
            'a pack changed by an option nobody sells' => [
                fn ($p) => ($p->families[0]->packs[1]->body->byOption->wings = (object) []),
                '/families/0/packs/1/body/byOption/wings',
            ],
            'a plate more of a part that is not there' => [
                fn ($p) => ($p->families[0]->packs[1]->body->byOption->{'wave-flat'}->fixed[1]->part = 'NOPE'),
                '/families/0/packs/1/body/byOption/wave-flat/fixed/1/part',
            ],
            'a plate an option adds without its thickness' => [
                function ($p): void {
                    unset($p->families[0]->packs[1]->body->byOption->{'wave-flat'}->fixed[1]->thickness);
                },
                '/families/0/packs/1/body/byOption/wave-flat/fixed/1',
            ],
            'an option that makes text of a window' => [
                fn ($p) => ($p->families[0]->packs[1]->body->byOption->{'high-extra'}->window = 'wide'),
                '/families/0/packs/1/body/byOption/high-extra/window',
            ],
            'a plate without a name in what an option changes' => [
                fn ($p) => ($p->families[0]->packs[1]->body->byOption->{'high-extra'}->fixed = [
                    (object) ['count' => 5],
                ]),
                '/families/0/packs/1/body/byOption/high-extra/fixed/0',
            ],
            'a school that changes what is not there' => [
                fn ($p) => ($p->families[0]->packs[1]->body->byRule->steels->{'new always'} = (object) ['wings' => 2]),
                '/families/0/packs/1/body/byRule/steels/new always',
            ],
            'a variant with a ring inside out' => [
                fn ($p) => ($p->families[2]->variants[2]->hardware->capacities->C2->innerDiameter_mm = 400),
                '/families/2/variants/2/hardware/capacities/C2/innerDiameter_mm',
            ],
            'a converter that makes power' => [
                function ($p): void {
                    $stock = array_values(
                        array_filter($p->families[0]->options, fn ($o) => $o->code === 'converter-stock'),
                    )[0];
                    $p->families[0]->options[0]->body->converter = $stock->body->converter;
                    $p->families[0]->options[0]->body->converter->points[6]->torqueRatio = 1.3;
                },
                '/families/0/options/0/body/converter/points/6/torqueRatio',
            ],
            'a stall window that ends before it starts' => [
                fn ($p) => ($p->families[0]->packages[0]->body->stall_rpm->max = 900),
                '/families/0/packages/0/body/stall_rpm/max',
            ],
            'a part nobody has that is never left out' => [
                fn ($p) => ($p->families[0]->body->neverOmit[0]->part = 'NOPE'),
                '/families/0/body/neverOmit/0/part',
            ],
            'a school that brings what nobody sells' => [
                fn ($p) => ($p->families[0]->body->houseOptions->{'sealing-rings'}->solid[0] = 'wings'),
                '/families/0/body/houseOptions/sealing-rings/solid/0',
            ],
            'a school whose window is upside down' => [
                function ($p): void {
                    $p->families[0]->endPlays[0]->body->byRule->{'end-play-window'}->{'0.003-0.019 in'}->target = 0.5;
                },
                '/families/0/endPlays/0/body/byRule/end-play-window/0.003-0.019 in/window',
            ],
            'a tyre that is none' => [fn ($p) => ($p->vehicles[0]->tyre = 'big'), '/vehicles/0/tyre'],
            'an engine that runs backwards' => [
                fn ($p) => ($p->vehicles[0]->engineCurve[2]->speed_rpm = 900),
                '/vehicles/0/engineCurve/2/speed_rpm',
            ],
            'made-up confidence' => [
                fn ($p) => ($p->families[0]->packs[0]->confidence = 'certain'),
                '/families/0/packs/0/confidence',
            ],
        ];
    }

    #[DataProvider('broken')]
    public function test_a_broken_pack_is_refused_with_its_pointer_and_imports_nothing(
        string|callable $break,
        string $pointer,
    ): void {
        $json = $break;
        if (! is_string($break)) {
            $pack = self::pack();
            $break($pack);
            $json = json_encode($pack);
        }
        $before = DB::table('parts')->count();
        try {
            app(ImportPack::class)->import($json, fn () => null);
            $this->fail('the pack was imported');
        } catch (BadPack $e) {
            $this->assertContains($pointer, array_column($e->errors, 'pointer'), json_encode($e->errors));
        }
        $this->assertSame($before, DB::table('parts')->count());
        $file = tempnam(sys_get_temp_dir(), 'pack');
        file_put_contents($file, $json);
        [$status, $output] = $this->command('catalog:import', ['file' => $file]);
        $this->assertSame(2, $status);
        $this->assertStringContainsString('Nothing was imported.', $output);
    }

    public function test_importing_twice_changes_nothing_and_reports_progress(): void
    {
        $before = DB::table('specs')->count();
        $seen = [];
        app(ImportPack::class)->import((string) json_encode(self::pack()), function (
            string $what,
            int $done,
            int $of,
        ) use (&$seen): void {
            $seen[$what] = [$done, $of];
        });
        $this->assertSame($before, DB::table('specs')->count());
        $this->assertSame($seen['parts'][0], $seen['parts'][1]);
        [$status, $output] = $this->command('catalog:import', ['file' => '/nowhere/x.json']);
        $this->assertSame(2, $status);
        $this->assertStringContainsString('cannot be read', $output);
    }

    public function test_every_specification_says_where_it_comes_from(): void
    {
        $this->assertSame(0, FamilySpec::query()->where('source', '')->count());
        $family = $this->as('viewer')->read('/catalog/families/RD4')->assertOk()->json();
        $this->assertCount(3, $family['variants']);
        $this->assertNotEmpty(array_filter($family['specs'], fn ($s) => $s['confidence'] === 'recalled'));
        // textbook closed forms of a Ravigneaux set with teeth 26/38/74: R/s, R(s+l)/(s(l+R)), 1, R/(l+R), -R/l
        $this->assertEqualsWithDelta(
            [74 / 26, (74 * 64) / (26 * 112), 1, 74 / 112, -74 / 38],
            array_column($family['solved']['gears'], 'ratio'),
            1e-9,
        );
    }

    public function test_windows_keep_their_history(): void
    {
        DB::rollBack();
        try {
            $old = FamilySpec::query()->where('code', 'front')->firstOrFail();
            usleep(20_000);
            $moment = DB::selectOne('SELECT NOW(6) AS t')->t;
            usleep(20_000);
            $old->update(['name' => 'Front end play, changed']);
            $asOf = DB::selectOne('SELECT name FROM specs FOR SYSTEM_TIME AS OF TIMESTAMP ? WHERE id = ?', [
                $moment,
                $old->id,
            ]);
            $this->assertSame('Front end play', $asOf->name);
        } finally {
            FamilySpec::query()
                ->where('code', 'front')
                ->update(['name' => 'Front end play']);
            DB::beginTransaction();
        }
    }
}
