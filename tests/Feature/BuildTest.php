<?php

namespace Tests\Feature;

use App\Catalog\Models\Option;
use App\Stock\Models\Lot;
use App\Yard\Models\Build;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Process;
use Tests\TestCase;

final class BuildTest extends TestCase
{
    public function test_rules_answer_with_a_sentence_each(): void
    {
        $this->bringTo('ordering');
        $this->as('manager');
        $spec = $this->write('/units/C-9001/ordering/preview', ['package' => 'daily', 'add' => ['deep-pan']])->json();
        $this->assertSame('ok', $spec['status']);
        $this->assertContains(
            'long-filter',
            array_column($spec['options'], 'code'),
            'deep pan <-> long-neck filter (common practice)',
        );
        $this->assertStringContainsString('needs "Long-neck filter"', $spec['added'][0]['because']);
        $this->assertSame(['pan-stock'], array_column($spec['removed'], 'option'));
        $this->assertEqualsWithDelta(8.5 + 1.9, $spec['fluid']['litres'], 1e-9);
        $tow = $this->write('/units/C-9001/ordering/preview', ['package' => 'tow'])->json();
        $this->assertNotContains(
            'SV-50',
            array_column($tow['bom'], 'part'),
            'wide band: leave out the servo spacer (common practice)',
        );
        $this->assertContains(
            'All bushings new',
            array_column($tow['options'], 'name'),
            'the house list is always in',
        );
        $soft = $this->write('/units/C-9001/ordering/preview', [
            'package' => 'tow',
            'drop' => ['charge-restrictor'],
        ])->json();
        $this->assertStringContainsString(
            'thrust bearing',
            array_column($soft['removed'], 'because', 'option')['pressure-raised'],
            'what needs it goes along, and says so',
        );
        $clash = $this->write('/units/C-9001/ordering/preview', [
            'package' => 'daily',
            'add' => ['wide-band', 'band-stock'],
        ])->json();
        $this->assertSame(
            ['conflict', ['wide-band', 'band-stock']],
            [$clash['status'], $clash['conflicts'][0]['options']],
        );
        $this->assertSame(['wide-band', 'band-stock'], array_column($clash['alternatives'], 'without'));
        $race = collect(
            $this->write('/units/C-9001/ordering/preview', ['package' => 'tow'])->json('forbidden'),
        )->firstWhere('option', 'flats-reverse');
        $this->assertStringContainsString(
            'only for the duty race',
            $race['because'],
            'never carried over to other builds (common practice)',
        );
        $this->assertProblem(
            $this->write('/units/C-9001/ordering/preview', ['package' => 'turbo']),
            422,
            'no package',
            '/package',
        );
        $this->assertProblem(
            $this->write('/units/C-9001/ordering/preview', ['package' => 'tow', 'add' => ['turbo']]),
            422,
            'no option',
            '/add/0',
        );
    }

    public function test_release_freezes_the_spec_and_gives_the_serial(): void
    {
        $this->bringTo('ordering');
        $this->as('manager')
            ->write('/units/C-9001/ordering', ['package' => 'tow', 'vehicle' => 'HW-TR5'])
            ->assertCreated();
        $this->assertProblem(
            $this->write('/units/C-9001/ordering/release', ['version' => 1]),
            422,
            'Tell the customer first',
            '/acknowledged',
        );
        $this->assertProblem(
            $this->write('/units/C-9001/ordering/release', [
                'version' => 7,
                'acknowledged' => ['pressure-raised', 'lockup-firm'],
            ]),
            409,
            'Somebody else',
        );
        $card = $this->write('/units/C-9001/ordering/release', [
            'version' => 1,
            'acknowledged' => ['pressure-raised', 'lockup-firm'],
        ])->assertOk();
        $this->assertMatchesRegularExpression('/^VY-\d\d-\d{4}$/', $card->json('serial'));
        $price = $card->json('ordering.order.price');
        Option::query()
            ->where('code', 'wide-band')
            ->update(['price' => 999]);
        $this->assertSame(
            $price,
            $this->onCard('ordering.order.spec.price'),
            'a later catalog edit changes nothing',
        );
        $this->assertProblem($this->write('/units/C-9001/ordering', ['package' => 'daily']), 409, 'teardown');
    }

    public function test_an_order_above_the_stock_limit_gets_the_cheapest_options_that_hold(): void
    {
        $this->bringTo('ordering');
        $preview = fn (array $in) => $this->as('manager')
            ->write('/units/C-9001/ordering/preview', $in + ['package' => 'daily', 'vehicle' => 'HW-TR5'])
            ->assertOk()
            ->json();
        $stock = $preview(['duty' => ['engineTorque' => '', 'hold' => true]]);
        $this->assertSame([true, []], [$stock['margins']['holds'], $stock['added']]);
        $this->assertEqualsWithDelta(410.0, $stock['duty']['engineTorque_nm'], 1e-9, 'the vehicle says it');
        $limit = $stock['margins']['largestInputTorque_nm'];
        $strong = $preview(['duty' => ['engineTorque' => (string) round($limit * 1.05)]]);
        $this->assertTrue($strong['margins']['holds']);
        $this->assertSame(['pressure-raised', 'charge-restrictor'], array_column($strong['added'], 'option'));
        $this->assertSame(['pressure-stock'], array_column($strong['removed'], 'option'));
        $this->assertStringContainsString(
            'margin',
            array_column($strong['added'], 'because', 'option')['pressure-raised'],
        );
        $loose = $preview(['duty' => ['engineTorque' => (string) round($limit * 1.05), 'hold' => false]]);
        $this->assertSame([false, []], [$loose['margins']['holds'], $loose['added']], 'shown, not enforced');
        $never = $preview(['duty' => ['engineTorque' => '600 lbf.ft']]);
        $this->assertSame(['conflict', 'margin'], [$never['status'], $never['conflicts'][0]['rule']]);
        $tooBig = $preview(['duty' => ['engineTorque' => '900 lbf.ft']]);
        $this->assertStringContainsString(
            'above the 1250 to 2600 rev/min this duty wants',
            $tooBig['conflicts'][0]['explain'],
            'no converter matches such an engine',
        );
        $this->assertProblem(
            $this->write('/units/C-9001/ordering/preview', [
                'package' => 'daily',
                'duty' => ['engineTorque' => '40 psi'],
            ]),
            422,
            'torque',
            '/duty/engineTorque',
        );
        $this->assertProblem(
            $this->write('/units/C-9001/ordering/preview', [
                'package' => 'daily',
                'duty' => ['engineTorque' => '9000'],
            ]),
            422,
            'between 0 and 5000',
            '/duty/engineTorque',
        );
        // the same answer comes out of the calculator on its own
        $power = \App\Catalog\Models\Family::query()->where('code', 'RD4')->firstOrFail();
        $converter = Option::query()->where('family_id', $power->id)->where('code', 'converter-stock')->firstOrFail()
            ->body;
        $hardware = array_intersect_key($power->body['power'], [
            'pressure_kpa' => 0,
            'spring_kpa' => 0,
            'throttle' => 0,
            'slipping' => 0,
            'lockup' => 0,
        ]) + [
            'capacities' => $power->body['power']['capacities'] + $converter['power']['capacities'],
            'converter' => ['points' => $converter['converter']['points']],
        ];
        $alone = \Yard\Core\Calculator\Calculators::call(
            'power.margin',
            $hardware + [
                'engine' => [
                    'curve' => \App\Catalog\Models\Vehicle::query()->where('code', 'HW-TR5')->firstOrFail()
                        ->engine_curve,
                ],
                'limit' => 1.15,
            ] +
                $power->train,
        );
        $this->assertEqualsWithDelta($alone['largestInputTorque_nm'], $limit, 1e-9);
    }

    public function test_the_duty_is_reckoned_with_and_each_field_refuses_on_its_own(): void
    {
        $this->bringTo('ordering');
        $preview = fn (array $duty) => $this->as('manager')->write('/units/C-9001/ordering/preview', [
            'package' => 'tow',
            'vehicle' => 'HW-TR5',
            'duty' => $duty,
        ]);
        $alone = $preview([])->json();
        $this->assertSame(
            ['vehicle', 1980, 3.42, '235/65R17'],
            [
                $alone['duty']['curveFrom'],
                $alone['duty']['mass_kg'],
                $alone['duty']['axleRatio'],
                $alone['duty']['tyre'],
            ],
        );
        $towing = $preview(['mass' => '9900 lb', 'axle' => '3.73', 'tyre' => '265/70R17', 'grade' => '15'])->json();
        $this->assertEqualsWithDelta(9900 * 0.45359237, $towing['duty']['mass_kg'], 1e-4);
        $this->assertGreaterThan(
            2 * $alone['converterMatch']['launch']['heat_kj'],
            $towing['converterMatch']['launch']['heat_kj'],
            'twice the mass and steeper: more heat for each start',
        );
        $this->assertGreaterThan(0.0, $towing['margins']['gears'][0]['roadSpeed_kmh']);
        $this->assertCount(3, $towing['margins']['shifts']);
        $this->assertFalse($preview(['mass' => '20000', 'grade' => '40'])->json('converterMatch.launch.reaches'));
        $flat = $preview(['engineCurve' => '1000 410, 5000 410'])->json();
        $this->assertSame(['order', 410.0], [$flat['duty']['curveFrom'], (float) $flat['duty']['engineTorque_nm']]);
        $this->assertGreaterThan(
            $alone['converterMatch']['stall_rpm'],
            $flat['converterMatch']['stall_rpm'],
            'more torque low down, more stall',
        );
        $tuned = $preview(['engineTorque' => '430'])->json();
        $this->assertEqualsWithDelta(
            430.0,
            max(array_column($tuned['duty']['curve'], 'torque_nm')),
            1e-9,
            'the same shape at another peak',
        );
        foreach (
            [
                ['mass', 'heavy', 'mass'],
                ['mass', '9', 'between 100 and 60000'],
                ['axle', '3,73', 'point'],
                ['tyre', 'big', '235/60R16'],
                ['grade', '90', 'between 0 and 60'],
                ['shiftSpeed', '99', 'between 500'],
                ['engineCurve', '1500', 'no point of the curve'],
                ['engineCurve', '3000 300, 2000 250', 'must rise'],
            ] as [$field, $text, $sentence]
        ) {
            $this->assertProblem($preview([$field => $text]), 422, $sentence, "/duty/$field");
        }
    }

    public function test_an_accumulator_option_changes_the_shift_and_the_power_flow_desk_shows_the_same(): void
    {
        $this->bringTo('ordering');
        $order = [
            'package' => 'daily',
            'vehicle' => 'HW-TR5',
            'duty' => ['engineTorque' => '300', 'shiftSpeed' => '4600', 'mass' => '1900', 'axle' => '3.5'],
        ];
        $feel = function (array $add) use ($order): array {
            $spec = $this->as('manager')
                ->write('/units/C-9001/ordering/preview', ['add' => $add] + $order)
                ->assertOk()
                ->json();

            return [
                'radius' => $spec['duty']['tyreRadius_mm'],
                'torque' => array_column($spec['duty']['curve'], 'torque_nm', 'speed_rpm'),
            ] + $spec['margins']['shifts'][0]['elements'][0];
        };
        [$stock, $short] = [$feel([]), $feel(['acc-short'])];
        $this->assertLessThan(
            $stock['feel']['duration_s'] + $stock['feel']['takeOver_s'],
            $short['feel']['duration_s'] + $short['feel']['takeOver_s'],
        );
        $this->assertLessThan($stock['energy_j'], $short['energy_j'], 'quicker is cooler');

        $feels = $this->getJson('/api/catalog/families/RD4')->assertOk()->json('shiftFeels');
        $this->assertSame(
            [['1', '2', 'B2', false], ['2', '3', 'C3', true], ['3', '4', 'B2', true]],
            array_map(fn (array $f) => [$f['from'], $f['to'], $f['element'], $f['timed']], $feels),
            'from first gear a one-way clutch lets go by itself',
        );
        $names = array_column($feels[0]['builds'], 'name');
        $this->assertSame('As made', $names[0]);
        $this->assertSame(
            [],
            array_diff(
                [
                    'Accumulators, stiffer springs',
                    'Accumulators, stroke cut to 1.0 in',
                    'Accumulators blocked solid',
                    'Wide band',
                    'Raised pressure spring',
                ],
                $names,
            ),
        );
        $this->assertNotContains(
            'Wide band',
            array_column($feels[1]['builds'], 'name'),
            'the high clutch has no band',
        );
        $raised = array_column($feels[0]['builds'], 'line_kpa', 'name');
        $this->assertEqualsWithDelta(
            170.0,
            $raised['Raised pressure spring'] - $raised['As made'],
            1e-9,
            'the spring adds its pressure',
        );

        $at = array_values(
            array_filter(
                $feels[0]['builds'],
                fn (array $b) => in_array($b['name'], ['As made', 'Accumulators, stroke cut to 1.0 in'], true),
            ),
        );
        $torque = $this->torqueAt($stock['torque'], 4600.0);
        $alone = \Yard\Core\Calculator\Calculators::call(
            'shift.feel',
            array_intersect_key($feels[0], [
                'from' => 0,
                'to' => 0,
                'element' => 0,
                'inputInertia_kgm2' => 0,
                'capacity' => 0,
            ]) + [
                'inputTorque_nm' => $torque,
                'inputSpeed_rpm' => 4600,
                'vehicle' => ['mass_kg' => 1900, 'axleRatio' => 3.5, 'tyreRadius_mm' => $stock['radius']],
                'builds' => $at,
            ] +
                \App\Catalog\Models\Family::query()->where('code', 'RD4')->firstOrFail()->train,
        );
        foreach ([$stock, $short] as $n => $here) {
            $this->assertEqualsWithDelta($alone['builds'][$n]['duration_s'], $here['feel']['duration_s'], 1e-9);
            $this->assertEqualsWithDelta($alone['builds'][$n]['energy_j'], $here['energy_j'], 1e-6);
        }
        $this->assertSame(
            [],
            $this->getJson('/api/catalog/families/OV3')->json('shiftFeels'),
            'a family whose accumulators nobody described',
        );
    }

    /** @param  array<int, float>  $curve  speed => torque, straight between the points */
    private function torqueAt(array $curve, float $rpm): float
    {
        $before = array_key_last(array_filter($curve, fn (int $s) => $s <= $rpm, ARRAY_FILTER_USE_KEY));
        $after = array_key_first(array_filter($curve, fn (int $s) => $s > $rpm, ARRAY_FILTER_USE_KEY));

        return $after === null
            ? $curve[$before]
            : $curve[$before] + (($curve[$after] - $curve[$before]) * ($rpm - $before)) / ($after - $before);
    }

    public function test_an_order_is_reproduced_on_the_command_line_from_its_json(): void
    {
        $this->bringTo('ordering');
        foreach (
            [
                ['package' => 'tow', 'duty' => ['engineTorque' => '480', 'mass' => '4200']],
                ['package' => 'daily', 'add' => ['servo-d'], 'drop' => ['lockup-firm']],
                ['package' => 'daily', 'add' => ['wide-band', 'band-stock']],
            ] as $order
        ) {
            $order += ['vehicle' => 'HW-TR5'];
            $shown = $this->as('manager')->write('/units/C-9001/ordering/preview', $order)->assertOk()->json();
            $json = $this->write('/units/C-9001/ordering/calculation', $order)->assertOk()->getContent();
            $run = Process::input($json)->run(['php', base_path('core/bin/calc'), 'package.resolve']);
            $this->assertSame(0, $run->exitCode(), $run->output());
            $alone = json_decode($run->output(), true);
            $this->assertSame(
                [],
                preg_grep('~/(name|source)$~', $alone['ignored'] ?? [], PREG_GREP_INVERT),
                'every field but names and sources is read',
            );
            $this->assertSame(
                [
                    $shown['status'],
                    array_column($shown['options'], 'code'),
                    array_column($shown['conflicts'], 'explain'),
                ],
                [$alone['status'], $alone['chosen'], array_column($alone['conflicts'], 'explain')],
            );
            $this->assertEqualsWithDelta($shown['price'], $alone['price'], 1e-9);
            $this->assertEquals($shown['margins']['weakest'] ?? null, $alone['margins']['weakest'] ?? null);
            $this->assertEquals($shown['margins']['shifts'] ?? null, $alone['margins']['shifts'] ?? null);
        }
        $this->assertProblem(
            $this->write('/units/C-9001/ordering/calculation', ['package' => 'turbo']),
            422,
            'no package',
            '/package',
        );
    }

    public function test_what_the_options_ask_for_are_steps_the_builder_signs(): void
    {
        $this->bringTo('ordering');
        $this->as('manager')
            ->write('/units/C-9001/ordering', ['package' => 'tow', 'vehicle' => 'HW-TR5'])
            ->assertCreated();
        $spec = $this->write('/units/C-9001/ordering/release', [
            'version' => 1,
            'acknowledged' => ['pressure-raised', 'lockup-firm'],
        ])
            ->assertOk()
            ->json('ordering.order.spec');
        $checks = array_values(array_filter($spec['work'], fn (array $w) => $w['kind'] === 'check'));
        $final = array_values(array_filter($spec['work'], fn (array $w) => $w['kind'] === 'final'));
        $this->assertSame(['Solid sealing rings'], array_column($checks, 'option'));
        $this->assertContains(
            'Raised pressure spring',
            array_column($final, 'option'),
            'a gauge reading is for after the test',
        );
        $build = Build::query()
            ->where('serial', \App\Yard\Models\Unit::byNumber('C-9001')->currentBuild->serial)
            ->firstOrFail();
        $steps = array_column($build->spec['assembly'], 'name');
        foreach ($spec['work'] as $work) {
            $work['kind'] === 'final'
                ? $this->assertNotContains($work['text'], $steps)
                : $this->assertContains($work['text'], $steps);
        }
        $reasons = app(\App\Yard\Gatekeeper::class)->blockers($build->unit, \App\Yard\Gate::SignOff);
        $this->assertContains("Step \"{$checks[0]['text']}\" is not done.", array_column($reasons, 'sentence'));
        // at dispatch the rest is done one by one before it is packed, and stands on the sheet
        \App\Yard\Models\Unit::byNumber('C-9001')->moveTo(\App\Yard\StationName::Dispatch);
        DB::table('job_types')
            ->where('code', 'rebuild')
            ->update(['route' => '["identification","ordering","teardown","assembly","dispatch","field"]']);
        $this->workThrough('C-9001', 'dispatch', 'order-check-2');
        $refused = $this->as('manager')->write('/units/C-9001/dispatch/shipment', ['customer' => 'WS-LOW']);
        $this->assertProblem($refused, 409, $final[1]['text']);
        $work = $this->onCard('dispatch.work.operations');
        $this->assertSame('waits', array_column($work, 'state', 'code')['packed']);
        $this->workThrough('C-9001', 'dispatch');
        $card = $this->write('/units/C-9001/dispatch/shipment', ['customer' => 'WS-LOW'])->assertCreated();
        $this->assertSame(
            [...array_column($checks, 'text'), ...array_column($final, 'text')],
            $card->json('dispatch.sheet.checks'),
        );
    }

    public function test_the_house_s_school_takes_the_place_of_the_stock_option(): void
    {
        $this->bringTo('ordering');
        $options = fn (string $package, array $more = []) => array_column(
            $this->as('manager')
                ->write('/units/C-9001/ordering/preview', ['package' => $package, 'vehicle' => 'HW-TR5'] + $more)
                ->assertOk()
                ->json('options'),
            null,
            'code',
        );
        $this->assertArrayHasKey('rings-scarf', $options('daily'));
        $this->house('sealing-rings', 'solid');
        $this->house('lock-up', 'convert to on-off');
        $this->house('accumulators', 'blocked solid');
        $daily = $options('daily');
        $this->assertSame(
            ['house', 'solid'],
            [$daily['rings-solid']['origin'], $daily['rings-solid']['house']['choice']],
        );
        $this->assertArrayNotHasKey('rings-scarf', $daily);
        $this->assertSame('house', $daily['lockup-block']['origin']);
        $this->assertArrayNotHasKey('acc-stock', $daily);
        $this->assertStringContainsString(
            'Shifts hit hard',
            $daily['acc-blocked']['surprise'],
            'what surprises the customer is still told',
        );
        $this->assertArrayHasKey(
            'rings-scarf',
            $options('daily', ['add' => ['rings-scarf']]),
            'a wish goes before the house',
        );
        $this->house('sealing-rings', 'scarf-cut');
        $this->assertArrayHasKey('rings-solid', $options('tow'), 'a package that asks for more keeps it');
    }

    public function test_a_house_rule_changes_the_window_the_pattern_and_the_fill_of_builds_released_after_it(): void
    {
        $this->bringTo('ordering');
        $this->as('manager')
            ->write('/units/C-9001/ordering', ['package' => 'daily', 'vehicle' => 'HW-TR5'])
            ->assertCreated();
        $this->house('end-play-window', '0.003-0.019 in');
        $this->house('front-rear-play', 'front larger');
        $this->house('tightening', 'any order on stiff covers');
        $this->house('converter-fill', 'dry, topped up in steps');
        $this->house('soak-time', 'overnight');
        $this->write('/units/C-9001/ordering/release', ['version' => 1])->assertOk();
        $assembly = $this->onCard('assembly');
        $front = collect($assembly['places'])->firstWhere('code', 'front');
        $this->assertSame(
            [['min' => 0.003, 'max' => 0.019], 0.011, '0.003-0.019 in'],
            [$front['window'], $front['target'], $front['house'][0]['choice']],
            'both schools of common practice, no source',
        );
        $rear = collect($assembly['places'])->where('kind', 'end-play')->firstWhere('code', 'rear');
        $this->assertSame([0.008, 'front larger'], [$rear['target'], $rear['house'][0]['choice']]);
        $this->assertSame('any order', collect($assembly['fasteners'])->firstWhere('code', 'tail')['pattern']);
        $this->assertSame(
            'star',
            collect($assembly['fasteners'])->firstWhere('code', 'pump')['pattern'],
            'only where the catalog writes the school',
        );
        $soak = array_column($assembly['work']['operations'], null, 'code')['soak'];
        $this->assertSame('overnight', $soak['house'][0]['choice']);
        $this->assertEqualsWithDelta(720, $soak['proofs'][0]['minutes'], 1e-9, 'the clock follows the school');
        $build = Build::query()->latest('id')->firstOrFail();
        $this->assertEquals(0, $build->spec['converter']['prefill_l']);
        $this->house('end-play-window', '0.007-0.019 in');
        $this->assertSame(
            0.003,
            collect($this->onCard('assembly.places'))->firstWhere(
                'code',
                'front',
            )['window']['min'],
            'frozen with the release',
        );
    }

    public function test_pressure_above_the_house_limit_is_named(): void
    {
        $this->bringTo('ordering');
        $over = fn () => $this->as('manager')
            ->write('/units/C-9001/ordering/preview', ['package' => 'tow', 'vehicle' => 'HW-TR5'])
            ->json('margins.overPressure');
        $this->assertSame([], $over());
        $this->house('pressure-limit', '250');
        $this->assertSame(['R'], array_column($over(), 'gear'), '1770 kPa in reverse is over 250 psi, 1724 kPa');
    }

    public function test_a_part_never_left_out_and_what_another_variant_takes_are_told(): void
    {
        $this->bringTo('ordering');
        $spec = $this->as('manager')
            ->write('/units/C-9001/ordering/preview', ['package' => 'daily', 'vehicle' => 'HW-TR5'])
            ->json();
        $because = array_column($spec['forbidden'], 'because', 'option');
        $this->assertStringContainsString(
            'never left out here: without the load-release springs',
            $because['high-full'],
            'common practice, no source',
        );
        $this->assertStringContainsString('this unit takes 62 mm', $because['converter-stock-66']);
        $this->assertSame([], $spec['removed'], 'the sister for the other hub is not missed');
        $this->assertSame('converter-stock', $spec['converterMatch']['option']);
    }

    public function test_a_released_build_shows_what_differs_from_today_s_catalog(): void
    {
        $this->bringTo('ordering');
        $this->as('manager')
            ->write('/units/C-9001/ordering', ['package' => 'daily', 'vehicle' => 'HW-TR5'])
            ->assertCreated();
        $this->write('/units/C-9001/ordering/release', ['version' => 1])
            ->assertOk();
        $differs = fn () => $this->read('/units/C-9001/ordering/difference')->assertOk()->json('differs');
        $this->assertSame([], $differs());
        Option::query()
            ->where('code', 'bushings')
            ->update(['price' => 55]);
        $this->assertCount(1, $differs());
        $this->assertStringContainsString('55.00 more', $differs()[0]);
    }

    public function test_the_bench_stacks_what_the_options_put_in(): void
    {
        $this->bringTo('ordering');
        $this->as('manager')
            ->write('/units/C-9001/ordering', [
                'package' => 'daily',
                'vehicle' => 'HW-TR5',
                'add' => ['high-extra', 'wave-flat'],
            ])
            ->assertCreated();
        $this->write('/units/C-9001/ordering/release', ['version' => 1, 'acknowledged' => ['wave-flat']])->assertOk();
        $spec = $this->unit('C-9001')->currentBuild->spec;
        $packs = array_column($spec['packs'], null, 'code');
        $this->assertSame(
            ['friction plates' => 5, 'flat plate' => 1],
            array_column($packs['C3']['fixed'], 'count', 'name'),
            'one plate more, and the flat where the wave plate was',
        );
        $this->assertSame(
            [5, ['HS-056', 'HS-060']],
            [$packs['C3']['slots'][0]['pick'], array_column($packs['C3']['slots'][0]['options'], 'part')],
        );
        $this->assertSame(
            ['One plate more in the high clutch', 'Flat of 0.100 in for the high wave plate'],
            $packs['C3']['forOptions'],
        );
        $this->assertArrayNotHasKey('forOptions', $packs['C1']);
        $bom = array_column($spec['bom'], 'count', 'part');
        $this->assertSame(
            [5, 1, false],
            [$bom['FR-H077'], $bom['HF-100'], isset($bom['HW-100'])],
            'the bill of materials says the same',
        );
        // the thin steels really bring the deeper stack into its window
        $fit = \Yard\Core\Calculator\Calculators::call('fit.stack', [
            'unit' => 'in',
            'depth' => 0.89,
            'fixed' => array_map(
                fn (array $f) => ['name' => $f['name'], 'thickness' => $f['thickness'], 'count' => $f['count']],
                $packs['C3']['fixed'],
            ),
            'slots' => $packs['C3']['slots'],
            'window' => $packs['C3']['window'],
            'target' => $packs['C3']['target'],
        ]);
        $this->assertTrue($fit['feasible']);

        $this->bringTo('ordering', 'C-9002');
        $this->house('wave-plate', 'flat of 0.100 in');
        $house = $this->as('manager')
            ->write('/units/C-9002/ordering/preview', ['package' => 'daily', 'vehicle' => 'HW-TR5'])
            ->assertOk()
            ->json('options');
        $this->assertSame(
            'house',
            array_column($house, 'origin', 'code')['wave-flat'],
            'the school of the house brings it',
        );
    }

    public function test_every_pack_an_option_changes_can_be_stacked_from_the_shelf(): void
    {
        $tried = 0;
        foreach (\App\Catalog\Models\FamilySpec::query()->where('kind', 'pack')->get() as $spec) {
            $body = $spec->body;
            foreach (array_keys($body['byOption'] ?? []) as $code) {
                $pack = \App\Catalog\Read\ByOption::apply($body, [$code => $code]);
                $parts = \App\Catalog\Models\Part::query()
                    ->pluck('thickness', 'number')
                    ->map(fn ($t) => (float) $t)
                    ->all();
                $slots = array_map(
                    fn (array $s) => [
                        'name' => $s['name'],
                        'pick' => $s['pick'],
                        'options' => array_map(
                            fn (string $p) => ['part' => $p, 'thickness' => $parts[$p]],
                            $s['parts'],
                        ),
                    ],
                    $pack['slots'],
                );
                foreach ([-1, 0, 1] as $side) {
                    $fit = \Yard\Core\Calculator\Calculators::call('fit.stack', [
                        'unit' => $pack['unit'],
                        'depth' => round($pack['depth']['nominal'] + $side * $pack['depth']['tolerance'], 4),
                        'fixed' => array_map(
                            fn (array $f) => array_intersect_key($f, ['name' => 0, 'thickness' => 0, 'count' => 0]),
                            $pack['fixed'],
                        ),
                        'slots' => $slots,
                        'window' => $pack['window'],
                    ]);
                    $this->assertTrue($fit['feasible'], "$spec->code with $code at side $side of its depth");
                    $tried++;
                }
            }
        }
        $this->assertSame(24, $tried, 'eight changes of five families, at the middle and both ends of the depth');
    }

    public function test_the_quote_adds_up_and_sets_the_alternatives_beside_it(): void
    {
        $this->bringTo('ordering');
        $this->assertProblem(
            $this->as('manager')->read('/units/C-9001/ordering/quote'),
            409,
            'Write the order first',
        );
        $this->write('/units/C-9001/ordering', [
            'package' => 'tow',
            'vehicle' => 'HW-TR5',
            'customer' => 'WS-LOW',
        ])->assertCreated();
        $quote = $this->read('/units/C-9001/ordering/quote')->assertOk()->json();
        $this->assertEqualsWithDelta($quote['price'], array_sum(array_column($quote['lines'], 'amount')), 0.005);
        $this->assertEqualsWithDelta(
            $quote['total'],
            $quote['price'] + array_sum(array_column($quote['core'], 'amount')),
            0.005,
        );
        $this->assertSame(
            ['Rebuild this one', 'Decline'],
            array_column($quote['alternatives'], 'what'),
            'nothing stands on the shelf',
        );
        $this->assertSame(
            (int) ceil($quote['made']['hours'] / 8) + 2,
            $quote['alternatives'][0]['days'],
            'bench hours of the house, and its days of wash, test and papers',
        );
        $this->house('waiting-days', '5');
        $this->assertSame(
            $quote['alternatives'][0]['days'] + 3,
            $this->read('/units/C-9001/ordering/quote')->json('alternatives.0.days'),
        );
        $this->assertEqualsWithDelta(
            $quote['alternatives'][0]['price'] - $quote['alternatives'][0]['cost'],
            $quote['alternatives'][0]['left'],
            0.005,
        );
        $this->assertNotEmpty($quote['surprises'], 'what may surprise the customer stands on the quote');
    }

    public function test_a_held_unit_is_not_released(): void
    {
        $this->bringTo('ordering');
        $this->as('manager')
            ->write('/units/C-9001/ordering', ['package' => 'daily'])
            ->assertCreated();
        $this->write('/units/C-9001/holds', ['reason' => 'Customer has not paid'])->assertCreated();
        $this->assertProblem($this->write('/units/C-9001/ordering/release', ['version' => 1]), 409, 'on hold');
    }

    public function test_teardown_follows_the_graph_and_counts(): void
    {
        $this->bringTo('teardown');
        $this->as('teardown');
        $counted = ['counts' => ['check balls' => 7, 'valve body bolts' => 22]];
        $valveBody = fn (string $note = '') => $this->prove(
            'C-9001',
            'teardown',
            'valve-body',
            'count',
            $counted,
            $note,
        );
        $this->assertProblem($valveBody(), 409, 'comes after \\"Filter drawn, its neck O-ring felt for\\"');
        $this->workThrough('C-9001', 'teardown', 'valve-body', 'converter-out');
        $this->assertProblem($valveBody(), 422, '7 were counted', '/answer/counts/check balls');
        $valveBody('One was missing on arrival')->assertOk();
        $this->assertProblem($this->write('/units/C-9001/teardown/complete'), 409, 'Still to do');
    }

    public function test_symptoms_and_chart_name_the_suspect(): void
    {
        $this->bringTo('teardown');
        $card = $this->as('teardown')
            ->write('/units/C-9001/teardown/symptoms', [
                'observed' => ['1' => 'ok', '2' => 'ok', '3' => 'slips', '4' => 'slips'],
            ])
            ->assertOk();
        $this->assertSame('C3', $card->json('teardown.suspects.0.element'));
        $this->assertProblem(
            $this->write('/units/C-9001/teardown/symptoms', ['observed' => ['7' => 'ok']]),
            422,
            'neither a gear',
        );
    }

    public function test_what_a_dead_element_does_is_told_apart_from_a_weak_one(): void
    {
        $this->bringTo('teardown');
        $first = fn (array $observed): array => $this->as('teardown')
            ->write('/units/C-9001/teardown/symptoms', compact('observed'))
            ->assertOk()
            ->json('teardown.suspects.0');
        $good = ['1' => 'ok', '3' => 'ok', 'R' => 'ok'];
        $dead = $first(['2' => 'wrong-ratio', '4' => 'neutral'] + $good);
        $this->assertSame(['B2', 'stuck-off'], [$dead['element'], $dead['fault']]);
        $this->assertStringContainsString('gear 2 drives as 1 does', $dead['because']);
        $weak = $first(['2' => 'slips', '4' => 'slips'] + $good);
        $this->assertSame(['B2', 'weak'], [$weak['element'], $weak['fault']]);
        $lockup = $first(['2' => 'ok', '4' => 'ok', 'lockup' => 'shudder'] + $good);
        $this->assertSame(['converter', 'lock-up'], [$lockup['element'], $lockup['fault']]);
        $this->assertProblem(
            $this->write('/units/C-9001/teardown/symptoms', ['observed' => ['lockup' => 'purrs']]),
            422,
            'must be one of ok, none, hunts, shudder, stays-on',
            '/observed/lockup',
        );
    }

    public function test_findings_know_whose_part_it_is_and_who_changed_them(): void
    {
        $this->receive('C-9001', ['ownership' => 'customer', 'jobType' => 'inspection'])->assertCreated();
        $this->write('/units/C-9001/identification', ['variant' => 'RD4-M', 'note' => 'by the papers'])
            ->assertOk()
            ->assertJsonPath('station', 'teardown');
        $finding = ['part' => 'planet', 'condition' => 'sound', 'disposition' => 'shelf', 'role' => 'none'];
        $this->assertProblem(
            $this->as('teardown')->write('/units/C-9001/teardown/findings', $finding),
            422,
            'swap agreement',
            '/disposition',
        );
        $this->write('/units/C-9001/teardown/findings', ['disposition' => 'reuse'] + $finding)->assertCreated();
        $this->assertProblem(
            $this->write('/units/C-9001/teardown/findings', ['disposition' => 'scrap', 'version' => 9] + $finding),
            409,
            'Somebody else changed',
        );
        $this->assertProblem(
            $this->write(
                '/units/C-9001/teardown/findings',
                ['condition' => 'blue cheese', 'disposition' => 'reuse'] + $finding,
            ),
            422,
            'no condition',
            '/condition',
        );
    }

    public function test_pack_is_fitted_from_shelf_stock_and_can_be_exchanged(): void
    {
        $this->bringTo('assembly');
        $this->as('builder');
        $shelf = fn (string $part) => (int) Lot::query()
            ->join('parts', 'parts.id', '=', 'part_id')
            ->where('number', $part)
            ->sum('quantity');
        $this->workThrough('C-9001', 'assembly', 'pack-C1', 'pack-C3');
        $before = $shelf('ST-069') + $shelf('ST-084');
        $proposal = $this->write('/units/C-9001/assembly/places/C1/propose', ['reading' => '.982'])
            ->assertOk()
            ->json();
        $best = $proposal['result']['best'];
        // depth .982 - 5 x .080 = .582; five steels and a plate to .557 +- .005
        $sum = array_sum(
            array_map(
                fn ($p) => $p['count'] *
                    [
                        'BP-180' => 0.18,
                        'BP-195' => 0.195,
                        'BP-212' => 0.212,
                        'BP-226' => 0.226,
                        'BP-242' => 0.242,
                        'ST-069' => 0.069,
                        'ST-084' => 0.084,
                    ][$p['part']],
                $best['picks'],
            ),
        );
        $this->assertEqualsWithDelta(0.582 - $sum, $best['clearance'], 1e-12);
        $fit = fn (array $answer) => $this->prove('C-9001', 'assembly', 'pack-C1', 'fit-pack-c1', $answer);
        $fit(['reading' => '.982', 'picks' => $best['picks']])->assertOk();
        $this->assertSame($before - 5, $shelf('ST-069') + $shelf('ST-084'));
        $second = $this->write('/units/C-9001/assembly/places/C1/propose', ['reading' => '.990'])->json(
            'result.best',
        );
        $fit(['reading' => '.990', 'picks' => $second['picks']])->assertOk();
        $this->assertSame($before - 5, $shelf('ST-069') + $shelf('ST-084'), 'the first pack went back to the shelf');
        $this->assertProblem(
            $fit(['reading' => '.982', 'picks' => [['slot' => 'steels', 'part' => 'ST-069', 'count' => 5]]]),
            422,
            'Take one of the proposals',
            '/answer/picks',
        );
        $this->assertProblem(
            $this->write('/units/C-9001/assembly/places/C1/propose', ['reading' => '9.82 in']),
            422,
            'Measure again',
            '/reading',
        );
        $lot = DB::table('installed_parts')
            ->join('stock_lots', 'stock_lots.id', '=', 'lot_id')
            ->whereNull('removed_at')
            ->value('lot');
        $this->assertContains(
            'C-9001',
            array_column($this->read('/lots/'.$lot)->json('units'), 'coreTag'),
            'which units carry this lot',
        );
    }

    public function test_stock_never_goes_below_zero(): void
    {
        $this->expectException(\Illuminate\Database\QueryException::class);
        Lot::query()
            ->firstOrFail()
            ->update(['quantity' => -1]);
    }

    public function test_readings_need_a_gauge_that_can_show_them(): void
    {
        $this->bringTo('assembly');
        $this->as('builder');
        $this->workThrough('C-9001', 'assembly', 'pack-C1', 'pack-C3');
        $measure = fn (array $change) => $this->measure(
            'C-9001',
            $change + ['kind' => 'pack', 'code' => 'C1', 'reading' => '.025', 'gauge' => 'F-01'],
        );
        $this->assertProblem($measure(['gauge' => null]), 422, 'which gauge', '/answer/gauge');
        $this->assertProblem($measure(['gauge' => 'P-01']), 422, 'measures a pressure', '/answer/gauge');
        $this->assertProblem($measure(['reading' => '.500']), 422, 'cannot have shown', '/answer/reading');
        $this->assertProblem($measure(['reading' => '25 psi']), 422, 'this field takes a length', '/answer/reading');
        $measure(['reading' => '24 thou'])->assertOk();
        $this->assertSame('24 thou', $this->onCard('assembly.places.0.readings.0.typed'));
        $best = $this->write('/units/C-9001/assembly/places/C1/propose', ['reading' => '.982'])->json('result.best');
        $this->prove('C-9001', 'assembly', 'pack-C1', 'fit-pack-c1', ['reading' => '.982', 'picks' => $best['picks']]);
        $this->assertProblem(
            $measure(['reading' => (string) ($best['clearance'] + 0.005)]),
            422,
            'away from the predicted',
            '/note',
        );
        $measure(['reading' => (string) ($best['clearance'] + 0.004)])->assertOk();
    }

    public function test_sign_off_is_refused_with_every_reason(): void
    {
        $this->bringTo('assembly');
        $refusal = $this->as('builder')->write('/units/C-9001/assembly/sign-off');
        $this->assertProblem($refusal, 409, 'cannot be signed off');
        $this->assertGreaterThan(20, count($refusal->json('blockers')));
        $this->assembleEverything('C-9001');
        $this->measure('C-9001', [
            'kind' => 'air-check',
            'code' => 'B2',
            'reading' => '9 psi',
            'gauge' => 'P-01',
        ])->assertOk();
        $this->assertSame(
            ['"Air check band servo": the pressure loss of 9 psi lies outside 0 to 5.'],
            array_column($this->write('/units/C-9001/assembly/sign-off')->json('blockers'), 'sentence'),
        );
        $this->measure('C-9001', [
            'kind' => 'air-check',
            'code' => 'B2',
            'reading' => '2 psi',
            'gauge' => 'P-01',
        ])->assertOk();
        $clearance = $this->onCard('assembly.places.0.fit.predicted');
        $this->measure('C-9001', [
            'kind' => 'pack',
            'code' => 'C1',
            'reading' => "$clearance in",
            'gauge' => 'F-02',
        ])->assertOk();
        $this->assertProblem($this->write('/units/C-9001/assembly/sign-off'), 409, 'past its calibration date');
        $this->measure('C-9001', [
            'kind' => 'pack',
            'code' => 'C1',
            'reading' => "$clearance in",
            'gauge' => 'F-01',
        ])->assertOk();
        $this->write('/units/C-9001/assembly/sign-off')->assertCreated()->assertJsonPath('station', 'dyno');
    }

    public function test_a_job_without_dyno_skips_the_cell_and_says_so_on_the_papers(): void
    {
        $this->receive('C-9001', ['jobType' => 'reseal'])->assertCreated();
        $this->write('/units/C-9001/identification', ['variant' => 'RD4-M', 'note' => 'by the papers'])->assertOk();
        $this->as('manager')
            ->write('/units/C-9001/ordering', ['package' => 'daily'])
            ->assertCreated();
        $this->write('/units/C-9001/ordering/release', ['version' => 1])->assertOk();
        $this->as('teardown');
        $this->workThrough('C-9001', 'teardown');
        $this->write('/units/C-9001/teardown/findings', [
            'part' => 'planet',
            'condition' => 'sound',
            'disposition' => 'reuse',
            'role' => 'none',
        ])->assertCreated();
        $this->write('/units/C-9001/teardown/complete', ['noCauseFound' => true])->assertOk();
        $this->assembleEverything('C-9001');
        $card = $this->write('/units/C-9001/assembly/sign-off')->assertCreated();
        $this->assertSame('dispatch', $card->json('station'));
        $this->assertTrue($this->onCard('dispatch.sheet.notDynoTested'));
        $this->workThrough('C-9001', 'dispatch');
        $this->as('manager')
            ->write('/units/C-9001/dispatch/shipment', ['customer' => 'WS-LOW'])
            ->assertCreated();
        $this->assertSame('shipped', Build::query()->firstOrFail()->state);
    }
}
