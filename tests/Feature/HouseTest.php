<?php

namespace Tests\Feature;

use App\Catalog\Exchange\PackUpgrade;
use App\Shop\Abilities;
use App\Shop\Role;
use App\Yard\Gate;
use App\Yard\Gatekeeper;
use App\Yard\Models\Build;
use App\Yard\NumberSequence;
use App\Yard\Rooms;
use App\Yard\StationName;
use Illuminate\Database\QueryException;
use Illuminate\Support\Facades\DB;
use Symfony\Component\Yaml\Yaml;
use Tests\TestCase;

/** The rooms of the house: one word a station on every floor, one gate of blockers, a first page for each badge. */
final class HouseTest extends TestCase
{
    public function test_a_station_has_one_word_on_every_floor(): void
    {
        $paths = array_keys(Yaml::parseFile(base_path('docs/openapi.yaml'))['paths']);
        foreach (StationName::inHouse() as $name) {
            $this->assertSame(ucfirst($name->value), $name->name);
            $this->assertTrue(class_exists($name->station()));
            $this->assertDirectoryExists(app_path("Stations/$name->name"));
            $view = (string) file_get_contents(resource_path("ui/stations/$name->value/index.ts"));
            $this->assertStringContainsString("id: '$name->value'", $view);
            $this->assertStringContainsString("label: '$name->name'", $view);
            $own = array_filter($paths, fn (string $p) => preg_match("#(^|/)$name->value(/|$)#", $p) === 1);
            $this->assertNotSame([], $own, "$name->value has no address of its own");
            foreach (array_keys($name->station()::abilities()) as $ability) {
                $this->assertStringStartsWith("$name->value.", $ability);
            }
        }
        $sections = array_keys($this->receive()->json('sections'));
        $this->assertSame(array_column(StationName::inHouse(), 'value'), $sections);
    }

    public function test_every_room_stands_in_one_list_and_nothing_else_registers_routes(): void
    {
        $this->assertCount(count(glob(app_path('*/*Room.php'))) + count(StationName::inHouse()), Rooms::all());
        $given = array_merge(...array_map(fn (string $room) => array_keys($room::abilities()), Rooms::all()));
        $this->assertSame($given, array_unique($given), 'an ability belongs to one room');
        $this->assertSame([], Abilities::of(Role::Viewer));
    }

    public function test_what_bars_the_sign_off_is_the_same_on_screen_and_at_the_gate(): void
    {
        $unit = $this->bringTo('assembly');
        $shown = array_column($this->as('builder')->onCard('assembly.blockers'), 'code');
        $gate = array_map(fn ($b) => $b->code, app(Gatekeeper::class)->blockers($unit->refresh(), Gate::SignOff));
        $this->assertSame($gate, $shown);
        foreach (
            ['step:clean', 'fit:pack:C1', 'reading:pack:C3', 'reading:torque:pump', 'reading:air-check:B1'] as $code
        ) {
            $this->assertNotSame([], array_filter($gate, fn (string $c) => str_starts_with($c, $code)), $code);
        }
        $refused = $this->write('/units/C-9001/assembly/sign-off');
        $this->assertProblem($refused, 409, 'cannot be signed off');
        $this->assertSame($gate, array_column($refused->json('blockers'), 'code'));
        $this->assertSame('/units/C-9001/assembly', $refused->json('blockers.0.link'));
    }

    /** A bolt group whose torque nobody recorded bars the signature as a clearance does. */
    public function test_torque_bars_the_sign_off(): void
    {
        $this->tampered = true;
        $unit = $this->bringTo('assembly');
        $this->assembleEverything('C-9001');
        $against = fn () => array_column(
            app(Gatekeeper::class)->blockers($unit->refresh(), Gate::SignOff),
            'sentence',
        );
        $this->assertSame([], $against());
        DB::table('measurements')->where('kind', 'torque')->where('code', 'pan')->delete();
        $this->assertCount(1, $against());
        $this->assertStringContainsString('the torque is not measured', $against()[0]);
        $this->measure('C-9001', [
            'kind' => 'torque',
            'code' => 'pan',
            'reading' => '10 N.m',
            'gauge' => 'T-01',
        ])->assertOk();
        $this->assertStringContainsString('the torque of 10 N.m lies outside 7.2 to 8.8', $against()[0]);
        $this->house('torque-tolerance', '30');
        $this->measure('C-9001', [
            'kind' => 'torque',
            'code' => 'pan',
            'reading' => '10 N.m',
            'gauge' => 'T-01',
        ])->assertOk();
        $this->assertSame([], $against(), 'the house rule decides how far off still counts');
    }

    public function test_a_hold_is_lifted_by_the_role_it_names_or_the_manager(): void
    {
        $this->receive();
        $place = fn () => $this->as('receiver')
            ->write('/units/C-9001/holds', ['reason' => 'Ask the bench', 'liftRole' => 'builder'])
            ->assertCreated();
        $lift = fn (string $role) => $this->as($role)->write('/holds/'.$this->openHold().'/lift', [
            'reason' => 'asked',
        ]);
        $place();
        $this->assertProblem($lift('dyno'), 403, 'Only the builder or the manager');
        $lift('builder')->assertOk();
        $place();
        $lift('manager')->assertOk();
    }

    private function openHold(): int
    {
        return (int) DB::table('holds')->whereNull('lifted_at')->where('kind', 'manual')->value('id');
    }

    public function test_a_hold_bars_every_gate(): void
    {
        $unit = $this->bringTo('ordering');
        $this->write('/units/C-9001/holds', ['reason' => 'Wrong customer'])->assertCreated();
        foreach (Gate::cases() as $gate) {
            $codes = array_map(fn ($b) => $b->code, app(Gatekeeper::class)->blockers($unit->refresh(), $gate));
            $this->assertNotSame(
                [],
                array_filter($codes, fn (string $c) => str_starts_with($c, 'hold:')),
                $gate->value,
            );
        }
    }

    public function test_numbers_go_on_after_ten_thousand(): void
    {
        $year = now()->format('y');
        NumberSequence::query()->updateOrCreate(['name' => "serial-$year"], ['last' => 9999]);
        $this->bringTo('teardown', 'C-9001');
        $this->bringTo('teardown', 'C-9002');
        $serials = Build::query()->whereNotNull('serial')->orderBy('id')->pluck('serial')->all();
        $this->assertSame(["VY-$year-10000", "VY-$year-10001"], $serials);
        NumberSequence::query()->updateOrCreate(['name' => 'return'], ['last' => 9999]);
        $this->assertSame([10000, 10001], [NumberSequence::next('return'), NumberSequence::next('return')]);
    }

    public function test_the_queue_of_a_station_says_what_is_mine_next_and_held(): void
    {
        $this->bringTo('assembly', 'C-9001');
        $this->bringTo('assembly', 'C-9002');
        $this->bringTo('assembly', 'C-9003');
        $this->unit('C-9003')->update(['promised_on' => now()->subDay()]);
        $this->travel(1)->minutes();
        $this->as('manager')->write('/units/C-9001/holds', ['reason' => 'Parts late', 'liftRole' => 'builder']);
        $this->as('builder')->prove('C-9002', 'assembly', 'clean', 'done')->assertOk();
        $queue = $this->read('/yard/queue/assembly')->assertOk();
        $this->assertSame(3, $queue->json('total'));
        $units = array_column($queue->json('units'), null, 'coreTag');
        $this->assertSame('C-9003', $queue->json('units.0.coreTag'), 'what was promised comes first');
        $this->assertTrue($units['C-9003']['late']);
        $this->assertSame(
            ['Parts late.', 'builder'],
            [$units['C-9001']['hold']['reason'], $units['C-9001']['hold']['liftRole']],
        );
        $this->assertTrue($units['C-9002']['mine']);
        $this->assertNull($units['C-9003']['begunBy'], 'who brought it here has not begun here');
        $this->assertProblem($this->read('/yard/queue/field'), 404, 'no station');
    }

    public function test_the_managers_day_gathers_decisions_late_back_and_money(): void
    {
        $this->bringTo('ordering', 'C-9001');
        $this->as('manager')
            ->write('/units/C-9001/ordering', ['package' => 'daily', 'vehicle' => 'HW-TR5'])
            ->assertCreated();
        $this->receive('C-9002', ['complaint' => '']);
        $this->bringTo('teardown', 'C-9003');
        $this->unit('C-9003')->update(['promised_on' => now()->subDays(2)]);
        $day = $this->as('manager')->read('/yard/day')->assertOk();
        $kinds = array_column($day->json('decisions'), 'kind', 'coreTag');
        $this->assertEqualsCanonicalizing(
            ['C-9001' => 'release', 'C-9002' => 'hold'],
            array_intersect_key($kinds, ['C-9001' => 0, 'C-9002' => 0]),
        );
        $this->assertSame(1, $day->json('late.total'));
        $money = array_column($day->json('money'), null, 'name');
        $price = (float) Build::query()->where('state', 'released')->sole()->price;
        $this->assertEqualsWithDelta($price, $money['Builds in work']['amount'], 0.005);
        $this->assertEqualsWithDelta($price, $money['Promised and late']['amount'], 0.005);
        $this->assertSame([], $day->json('back'));
    }

    public function test_a_house_rule_says_what_a_change_would_meet_today(): void
    {
        $reach = fn (string $rule) => $this->as('viewer')->read("/house-rules/$rule/reach")->assertOk()->json();
        $this->receive('C-9001');
        $this->bringTo('ordering', 'C-9002');
        $this->as('manager')
            ->write('/units/C-9002/ordering', ['package' => 'daily', 'vehicle' => 'HW-TR5'])
            ->assertCreated();
        $this->assertSame([1, 1, 0], [
            $reach('identification-sure')['unitsAhead'],
            $reach('identification-sure')['ordersOpen'],
            $reach('identification-sure')['buildsFrozen'],
        ]);
        $this->assertSame(2, $reach('soak-time')['unitsAhead']);
        $this->assertSame(2, $reach('labour-rate')['unitsAhead'], 'money looks at every unit');
        $this->assertNull($reach('soak-time')['thin']);

        $this->bringTo('teardown', 'C-9003');
        $build = Build::query()->where('state', 'released')->sole();
        $thinnest = $build->frozen()['margins']['weakest']['margin'];
        $thin = $reach('margin-limit')['thin'];
        $this->assertSame([0, $build->serial], [$thin['builds'], $thin['serial']]);
        $this->assertEqualsWithDelta($thinnest, $thin['margin'], 1e-9);
        $limit = (string) round($thinnest + 0.1, 2);
        $change = ['choice' => $limit, 'reason' => 'Hot summers', 'version' => 0];
        $this->as('manager')->write('/house-rules/margin-limit', $change, null, 'PUT')->assertOk();
        $this->assertSame(1, $reach('margin-limit')['thin']['builds'], 'a stricter limit meets what is on the bench');
        $this->assertProblem($this->read('/house-rules/no-such/reach'), 404, 'no house rule');
    }

    public function test_the_database_holds_json_to_its_shape(): void
    {
        $this->bringTo('teardown', 'C-9001');
        $columns = [
            ['units', 'flags', 'caseBroken'],
            ['builds', 'spec', '[]'],
            ['builds', 'asked_duty', '7'],
        ];
        foreach ($columns as [$table, $column, $wrong]) {
            try {
                DB::table($table)->update([$column => $wrong]);
                $this->fail("$table.$column took $wrong.");
            } catch (QueryException $e) {
                $this->assertMatchesRegularExpression('/CONSTRAINT|Syntax error in JSON/', $e->getMessage());
            }
        }
    }

    public function test_the_plan_of_the_yard_stands_units_in_their_bays(): void
    {
        $this->receive('C-9001', ['rack' => 'R2-3']);
        $this->receive('C-9002', ['rack' => 'R2-3']);
        $this->receive('C-9003', ['rack' => '']);
        $plan = $this->as('viewer')->read('/yard/plan')->assertOk();
        $racks = array_column($plan->json('racks'), null, 'rack');
        $this->assertSame(3, $plan->json('total'));
        $this->assertSame(['C-9001', 'C-9002'], array_column($racks['R2']['bays'][0]['units'], 'coreTag'));
        $this->assertSame(
            ['3', 'C-9003'],
            [$racks['R2']['bays'][0]['bay'], $racks['floor']['bays'][0]['units'][0]['coreTag']],
        );
    }

    public function test_a_pack_of_the_version_before_is_brought_to_todays(): void
    {
        $pack = (object) [
            'version' => 2,
            'jobTypes' => [(object) ['route' => ['identify', 'desk', 'bench', 'cell', 'field']]],
        ];
        PackUpgrade::upgrade($pack);
        $this->assertSame(PackUpgrade::VERSION, $pack->version);
        $this->assertSame(['identification', 'ordering', 'assembly', 'dyno', 'field'], $pack->jobTypes[0]->route);
        $old = (object) ['version' => 2, 'vocabularies' => [(object) ['code' => 'core-grading']]];
        PackUpgrade::upgrade($old);
        $this->assertSame(['core-grading', 'installation'], array_column($old->vocabularies, 'code'));
        $this->assertContains('Road test', (array) $old->vocabularies[1]->body->items);
        $odd = (object) ['version' => 2, 'jobTypes' => 'none'];
        PackUpgrade::upgrade($odd);
        $this->assertSame('none', $odd->jobTypes, 'what is not as it should be is left to the schema');
    }
}
