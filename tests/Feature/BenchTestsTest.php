<?php

namespace Tests\Feature;

use App\Shop\Models\Person;
use App\Stock\Models\InstalledPart;
use App\Stock\Models\Lot;
use App\Work\Bench;
use App\Work\Queries\BenchWork;
use App\Yard\Models\Unit;
use Illuminate\Support\Carbon;
use Illuminate\Testing\TestResponse;
use Tests\TestCase;
use Tools\Demo\BenchHands;

/** Parts tested before they go in, sub-assemblies signed for, parts got from outside, units that lay for long. */
final class BenchTestsTest extends TestCase
{
    private const AT = '/units/C-9001/assembly';

    private const COILS = ['solenoid-a' => '23', 'solenoid-b' => '22.5', 'solenoid-lock' => '14'];

    /** @param  array<string, string>  $answer */
    private function test(string $operation, string $group, array $answer): TestResponse
    {
        return $this->as('builder')->prove('C-9001', 'assembly', $operation, "values-$group", $answer);
    }

    /** @return array<string, array<string, mixed>> by code */
    private function places(): array
    {
        $card = $this->as('builder')->read('/units/C-9001?sections=assembly')->assertOk();

        return array_column($card->json('assembly.places'), null, 'code');
    }

    /** @return array<string, array<string, mixed>> by name */
    private function subs(): array
    {
        $card = $this->as('builder')->read('/units/C-9001?sections=assembly')->assertOk();

        return array_column($card->json('assembly.subs'), null, 'name');
    }

    public function test_coils_are_judged_at_twenty_degrees(): void
    {
        $this->bringTo('assembly');
        $this->workThrough('C-9001', 'assembly', 'solenoids');
        $gauge = ['gauge' => 'M-01'];
        $cold = $this->test('solenoids', 'solenoids', $gauge + self::COILS);
        $this->assertProblem($cold, 422, 'how warm the coils are', '/answer/temperature');
        $empty = ['solenoid-b' => '', 'temperature' => '20'] + $gauge;
        $none = $this->test('solenoids', 'solenoids', $empty + self::COILS);
        $this->assertProblem($none, 422, 'Say what \\"Shift solenoid B\\" shows', '/answer/solenoid-b');
        $bar = ['solenoid-a' => '3 bar', 'temperature' => '20'];
        $volts = $this->test('solenoids', 'solenoids', $bar + self::COILS);
        $this->assertProblem($volts, 422, 'pressure', '/answer/solenoid-a');
        $wrong = $this->test('solenoids', 'solenoids', ['gauge' => 'D-01', 'temperature' => '20'] + self::COILS);
        $this->assertProblem($wrong, 422, 'measures a length, not a resistance', '/answer/gauge');
        $this->assertSame([], $this->places()['solenoid-a']['readings'], 'a refusal keeps nothing');
        // 26 ohm look too much; at 80 degrees they are 21 at twenty.
        $hot = ['solenoid-a' => '26', 'solenoid-b' => '31', 'solenoid-lock' => '17', 'temperature' => '80'];
        $this->test('solenoids', 'solenoids', $gauge + $hot)->assertOk();
        $places = $this->places();
        $this->assertTrue($places['solenoid-a']['readings'][0]['inside']);
        $this->assertEqualsWithDelta(26.0 / 1.2358, $places['solenoid-a']['readings'][0]['value'], 1e-3);
        $this->assertSame('26 at 80 degC', $places['solenoid-a']['readings'][0]['typed']);
        $this->assertFalse($places['solenoid-b']['readings'][0]['inside']);
        $open = BenchWork::of($this->unit(), Bench::Assembly)->openOf('solenoids');
        $this->assertStringContainsString('"Shift solenoid B": the reading of', $open['values-solenoids']);
        $this->test('solenoids', 'solenoids', $gauge + self::COILS + ['temperature' => '68 degF'])->assertOk();
        $this->assertSame([], BenchWork::of($this->unit(), Bench::Assembly)->openOf('solenoids'));
    }

    public function test_each_valve_is_tried_in_its_bore_and_one_that_hangs_bars_the_body(): void
    {
        $this->bringTo('assembly');
        $this->workThrough('C-9001', 'assembly', 'valves');
        $this->as('builder');
        $try = fn (array $moves) => $this->prove('C-9001', 'assembly', 'valves', 'free-valves', ['moves' => $moves]);
        $work = fn (): BenchWork => BenchWork::of($this->unit(), Bench::Assembly);
        $open = fn (): string => $work()->openOf('valves')['free-valves'] ?? 'proven';
        $each = $work()->operations['valves']->proof('free-valves')->body['each'] ?? [];
        $this->assertContains('Shift valve 2-3', $each);
        $falls = array_fill_keys($each, 'falls');
        $one = array_diff_key($falls, ['Shift valve 2-3' => '']);
        $said = 'Say how the \\"Shift valve 2-3\\" moves';
        $this->assertProblem($try($one), 422, $said, '/answer/moves/Shift valve 2-3');
        $other = $try(['Boost valve' => 'somehow'] + $falls);
        $this->assertProblem($other, 422, 'Boost valve', '/answer/moves/Boost valve');
        $this->assertStringContainsString('Say how each of the valves moves', $open());
        $try(['Shift valve 2-3' => 'hangs'] + $falls)->assertOk();
        $this->assertStringContainsString('Shift valve 2-3 does not fall by its own weight', $open());
        $try(['Shift valve 2-3' => 'hangs', 'Manual valve' => 'tapped'] + $falls)->assertOk();
        $this->assertStringContainsString('Manual valve, Shift valve 2-3 do not fall', $open());
        $try($falls)->assertOk();
        $this->assertSame('proven', $open());
    }

    public function test_a_bush_is_reckoned_from_its_bore_and_a_hole_from_its_book(): void
    {
        $this->bringTo('assembly');
        $this->workThrough('C-9001', 'assembly', 'case-bush', 'separator');
        $gauge = ['gauge' => 'MB-01'];
        $at = fn (string $bore, string $od) => ['case-bush-bore' => $bore, 'case-bush-od' => $od] + $gauge;
        $hands = fn () => $this->prove('C-9001', 'assembly', 'case-bush', 'tool-seal-driver', ['code' => 'ST-06']);
        $this->as('builder');
        $hands()->assertOk();
        $this->test('case-bush', 'case-bush', $at('44.015 mm', '44.060 mm'))->assertOk();
        $grip = $this->places()['case-bush-grip'];
        $this->assertFalse($grip['readings'][0]['inside'], 'forty-five hundredths of a tenth are too little');
        $this->assertEqualsWithDelta(0.045, $grip['readings'][0]['value'], 1e-9);
        $this->test('case-bush', 'case-bush', $at('44.000 mm', '44.075 mm'))->assertOk();
        $press = $this->places()['case-bush-grip']['press'];
        // Lame, two materials: steel bush 44/38.2 in aluminium 44/58, interference 0.075, length 22, friction 0.12.
        $ring = fn (float $d, float $o): float => ($d ** 2 + $o ** 2) / abs($d ** 2 - $o ** 2);
        $soft = ($ring(44, 58) + 0.333) / 71.7e3 + ($ring(44, 38.2) - 0.292) / 207e3;
        $pressure = 0.075 / (44 * $soft);
        $this->assertEqualsWithDelta(0.12 * $pressure * M_PI * 44 * 22, $press['forceN'], 1.0);
        $closes = 2 * $pressure * 44 ** 2 * 38.2 / (207e3 * (44 ** 2 - 38.2 ** 2));
        $this->assertEqualsWithDelta($closes, $press['closesMm'], 1e-6);
        $holes = ['hole-12' => '2.05', 'hole-23' => '2.60', 'hole-lock' => '1.2', 'gauge' => 'MB-01'];
        $this->workThrough('C-9001', 'assembly', 'separator');
        $this->test('separator', 'plate-holes', $holes)->assertOk();
        $drilled = $this->places()['hole-23'];
        $this->assertEqualsWithDelta((2.6 / 2.3) ** 2, $drilled['passes'], 1e-9);
        $this->assertFalse($drilled['readings'][0]['inside']);
        $this->assertEqualsWithDelta(1.0, $this->places()['hole-12']['passes'], 1e-9);
    }

    public function test_a_sub_assembly_is_signed_for_and_again_where_it_was_undone(): void
    {
        $this->bringTo('assembly');
        $this->workThrough('C-9001', 'assembly', 'solenoids');
        $sign = fn (string $sub) => $this->as('builder')->write(self::AT.'/subs/'.rawurlencode($sub).'/sign-off');
        $this->assertProblem($sign('Valve body'), 409, 'is not done: Solenoids in');
        $this->assertProblem($sign('Gearbox'), 404, 'no sub-assembly');
        $this->assertSame(403, $this->as('viewer')->write(self::AT.'/subs/Pump/sign-off')->status());
        $sign('Pump')->assertCreated();
        $this->assertProblem($sign('Pump'), 409, 'signed for already: Imre Soll');
        $this->workThrough('C-9001', 'assembly');
        $this->assertProblem($this->as('builder')->write(self::AT.'/sign-off'), 409, 'Valve body');
        $this->travel(1)->minutes();
        $sign('Valve body')->assertCreated();
        $sign('Converter')->assertCreated();
        $undo = ['move' => 'undo', 'note' => 'A clip was bent.'];
        $this->write(self::AT.'/operations/solenoids/moves', $undo)->assertOk();
        $this->assertNull($this->subs()['Valve body']['by'], 'undone work takes the signature away');
        $this->assertSame('Imre Soll', $this->subs()['Pump']['by']);
        $this->travel(1)->minutes();
        $this->workThrough('C-9001', 'assembly');
        $sign('Valve body')->assertCreated();
        $this->write(self::AT.'/sign-off')->assertCreated();
        $record = (string) $this->get('/api'.self::AT.'/record')->getContent();
        $this->assertStringContainsString('Valve body: Imre Soll', $record);
    }

    public function test_a_shop_may_sign_for_the_unit_only_and_ask_for_every_lot(): void
    {
        $this->house('sub-sign-offs', 'unit');
        $this->house('unpicked-lines', 'bar');
        $this->bringTo('assembly');
        $this->workThrough('C-9001', 'assembly');
        $this->assertSame([], $this->subs());
        $refused = $this->as('builder')->write(self::AT.'/sign-off');
        $this->assertProblem($refused, 409, 'are not picked from a lot');
        $this->house('unpicked-lines', 'say');
        $this->write(self::AT.'/sign-off')->assertCreated();
        $record = (string) $this->get('/api'.self::AT.'/record')->getContent();
        $this->assertStringContainsString('come from no scanned lot', $record);
    }

    public function test_what_the_shelf_lacks_is_got_for_one_unit_and_stays_traceable(): void
    {
        $this->bringTo('assembly');
        $lines = $this->as('builder')->read(self::AT.'/picks')->assertOk()->json('lines');
        $line = array_values(array_filter($lines, fn (array $l) => $l['left'] > 0))[0];
        $buy = fn (array $body) => $this->write(self::AT."/picks/{$line['part']}/bought", $body);
        $whole = ['how' => 'bought', 'from' => 'Corner Supply', 'lot' => 'x-77', 'paid' => '12.50'];
        $this->assertProblem($buy(['how' => ''] + $whole), 422, 'bought or borrowed', '/how');
        $this->assertProblem($buy(['lot' => ''] + $whole), 422, 'must be traceable', '/lot');
        $this->assertProblem($buy(['paid' => 'a lot'] + $whole), 422, 'A price is a number', '/paid');
        $now = array_column($buy($whole)->assertCreated()->json('lines'), null, 'part')[$line['part']];
        $this->assertSame(0, $now['left']);
        $this->assertSame('X-77', $now['picked'][0]['lot']);
        $this->assertProblem($buy($whole), 409, 'picked already');
        $lot = Lot::query()->where('lot', 'X-77')->firstOrFail();
        $this->assertSame(0, $lot->quantity);
        $this->assertSame(1, InstalledPart::query()->where('lot_id', $lot->id)->count(), 'and it is traced');
        $stops = array_merge(...array_column($lines, 'neededAt'));
        $this->assertNotSame([], preg_grep('/^Forward pack/', $stops), 'what a missing plate stops');
    }

    public function test_the_converter_that_was_checked_goes_in(): void
    {
        $this->bringTo('assembly');
        $this->workThrough('C-9001', 'assembly', 'converter');
        $scan = fn (string $code) => $this->as('builder')
            ->prove('C-9001', 'assembly', 'converter', 'scan-converter-tag', ['code' => $code]);
        $this->assertProblem($scan('CV-1111'), 422, 'that was \\"CV-9001\\"', '/answer/code');
        $scan('CV-9001')->assertOk();
    }

    public function test_a_unit_that_lay_for_long_is_turned_before_it_ships(): void
    {
        $unit = $this->bringTo('dyno');
        $this->passDyno('C-9001');
        $work = fn () => BenchWork::of(Unit::query()->findOrFail($unit->id), Bench::Dispatch);
        $due = fn (): bool => isset($work()->operations['turned']);
        $this->assertFalse($due());
        Carbon::setTestNow(now()->addDays(181));
        $this->assertTrue($due());
        $hands = new BenchHands(
            Bench::Dispatch,
            fn () => Person::query()->where('badge', '103')->firstOrFail(),
            [],
            1,
        );
        $hands->work($this->unit(), PHP_INT_MAX);
        $this->assertSame([], BenchWork::of($this->unit(), Bench::Dispatch)->left());
    }

    /** The gear train stays closed in the vehicle: the valve-body bench alone, to its own signature. */
    public function test_a_valve_body_job_uses_the_valve_body_bench_alone(): void
    {
        $this->receive('C-9001', ['ownership' => 'customer', 'jobType' => 'valve-body'])->assertCreated();
        $this->write('/units/C-9001/identification', ['variant' => 'RD4-M', 'note' => 'by the papers'])->assertOk();
        $this->as('manager')
            ->write('/units/C-9001/ordering', ['package' => 'daily', 'vehicle' => 'HW-TR5'])
            ->assertCreated();
        $release = ['version' => 1, 'acknowledged' => ['pressure-raised', 'lockup-firm']];
        $card = $this->write('/units/C-9001/ordering/release', $release)->assertOk();
        $this->assertSame('assembly', $card->json('station'));
        $work = $this->onCard('assembly.work.operations');
        $codes = array_column($work, 'code');
        $this->assertContains('valves', $codes);
        $this->assertSame([], array_intersect(['pack-C1', 'end-play', 'sprag', 'rear-brake', 'pump'], $codes));
        $this->assembleEverything('C-9001');
        $this->write('/units/C-9001/assembly/sign-off')->assertCreated();
        $this->assertSame('dispatch', $this->read('/units/C-9001')->json('station'));
    }
}
