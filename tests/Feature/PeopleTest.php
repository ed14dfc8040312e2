<?php

namespace Tests\Feature;

use App\Shop\Models\OpenSession;
use App\Shop\Models\Person;
use Illuminate\Support\Facades\Auth;
use Illuminate\Support\Facades\DB;
use Illuminate\Testing\TestResponse;
use Tests\TestCase;

/** Who comes in, who is kept out, and that nobody can keep the shop out of its own house. */
final class PeopleTest extends TestCase
{
    private const RECEIVER = '193742';

    private string $address = '10.0.0.7';

    protected function setUp(): void
    {
        parent::setUp();
        config(['session.driver' => 'file']);
        $this->tablet('stranger');
    }

    /** @var array<string, array<string, string>> the cookies each tablet keeps */
    private array $jars = [];

    private string $tablet = '';

    /** From now on somebody else's tablet is in the hand. */
    private function tablet(string $name): self
    {
        $this->tablet = $name;
        $this->jars[$name] ??= [];

        return $this;
    }

    /** @param  array<string, mixed>  $body */
    private function send(string $method, string $path, array $body = []): TestResponse
    {
        Auth::forgetGuards();
        $this->app['session']->forgetDrivers();
        $this->app->forgetInstance('session.store');
        $this->app['cookie']->flushQueuedCookies();
        $this->defaultCookies = $this->unencryptedCookies = [];
        $answer = $this->withCredentials()
            ->withUnencryptedCookies($this->jars[$this->tablet])
            ->withServerVariables(['REMOTE_ADDR' => $this->address])
            ->json($method, "/api$path", $body, ['Idempotency-Key' => uniqid('', true)]);
        foreach ($answer->headers->getCookies() as $cookie) {
            $this->jars[$this->tablet][$cookie->getName()] = (string) $cookie->getValue();
        }

        return $answer;
    }

    private function signIn(string $badge, string $pin): TestResponse
    {
        return $this->send('POST', '/session', ['badge' => $badge, 'pin' => $pin]);
    }

    private function wrong(int $times, string $badge = '101'): TestResponse
    {
        for ($i = 1; $i < $times; $i++) {
            $this->signIn($badge, '000000');
        }

        return $this->signIn($badge, '000000');
    }

    public function test_a_badge_and_its_pin_come_in_and_go_out(): void
    {
        $this->send('GET', '/session')->assertJsonPath('person', null);
        $this->signIn('101', self::RECEIVER)->assertOk()->assertJsonPath('person.role', 'receiver');
        $this->send('GET', '/units')->assertOk();
        $this->send('DELETE', '/session')->assertJsonPath('person', null);
        $this->send('GET', '/units')->assertStatus(401);
        $this->assertProblem($this->signIn('999', self::RECEIVER), 422, 'do not go together', '/pin');
        $this->assertSame(
            ['in', 'out', 'wrong'],
            DB::table('sign_ins')->orderBy('id')->pluck('outcome')->all(),
        );
    }

    public function test_wrong_pins_wait_longer_each_time_but_not_on_tablets_the_shop_knows(): void
    {
        $this->tablet('bench')->signIn('101', self::RECEIVER)->assertOk();
        $this->tablet('stranger');
        $this->assertProblem($this->wrong(4), 422, 'do not go together', '/pin');
        $this->assertProblem($this->wrong(1), 422, 'try again in 1 min', '/pin');
        $this->assertProblem($this->signIn('101', self::RECEIVER), 422, 'Too many', '/pin');
        $this->tablet('bench')->signIn('101', self::RECEIVER)->assertOk();

        $this->tablet('stranger');
        foreach ([2, 4, 8, 16, 32, 60, 60] as $minutes) {
            $this->travel(61)->minutes();
            $this->assertProblem($this->wrong(1), 422, "try again in $minutes min", '/pin');
        }
        $this->travel(61)->minutes();
        $this->signIn('101', self::RECEIVER)->assertOk();
        $this->assertGreaterThan(1, DB::table('ledger')->where('kind', 'badge.locked')->count());
    }

    public function test_tries_spread_over_badges_stop_at_the_address(): void
    {
        $this->tablet('bench')->signIn('101', self::RECEIVER)->assertOk();
        $this->tablet('stranger');
        foreach (range(200, 229) as $n => $badge) {
            $last = $this->signIn((string) $badge, '111222');
        }
        $this->assertProblem($last, 422, 'Too many wrong PINs', '/pin');
        $this->assertProblem($this->signIn('101', self::RECEIVER), 422, 'Too many', '/pin');
        $this->address = '10.0.0.8';
        $this->tablet('another')->signIn('101', self::RECEIVER)->assertOk();
        $this->address = '10.0.0.7';
        $this->tablet('bench')->signIn('101', self::RECEIVER)->assertOk();

        $this->tablet('office')->address = '10.0.0.9';
        $this->signIn('100', '482163')->assertOk();
        $places = $this->send('GET', '/people')->assertOk()->json('lockedPlaces');
        $this->assertSame(['address:10.0.0.7'], array_column($places, 'place'));
        $this->send('POST', '/people/locked-places/lift', ['place' => $places[0]['place']])
            ->assertOk()
            ->assertJsonPath('lockedPlaces', []);
        $this->tablet('stranger')->address = '10.0.0.7';
        $this->signIn('101', self::RECEIVER)->assertOk();
    }

    public function test_a_manager_lifts_the_lock_of_a_badge(): void
    {
        $this->wrong(5);
        $this->tablet('office')->signIn('100', '482163')->assertOk();
        $person = fn () => collect($this->send('GET', '/people')->json('people'))->firstWhere('badge', '101');
        $this->assertNotNull($person()['lockedUntil']);
        $this->send('DELETE', '/people/101/lock')->assertOk();
        $this->assertNull($person()['lockedUntil']);
        $this->tablet('stranger')->signIn('101', self::RECEIVER)->assertOk();
    }

    public function test_a_session_ends_with_the_person_the_role_and_the_pin(): void
    {
        $change = fn (array $new) => $this->tablet('office')->send(
            'PUT',
            '/people/101',
            $new + [
                'name' => 'Joss Tarn',
                'role' => 'receiver',
                'skills' => ['reads tags'],
                'active' => true,
                'version' => Person::query()->where('badge', '101')->value('version'),
            ],
        );
        $this->tablet('office')->signIn('100', '482163')->assertOk();
        $in = function (string $pin): void {
            $this->tablet('bench')->signIn('101', $pin)->assertOk();
            $this->send('GET', '/units')->assertOk();
        };
        $out = fn () => $this->tablet('bench')->send('GET', '/units')->assertStatus(401);

        $in(self::RECEIVER);
        $change(['name' => 'Joss A. Tarn'])->assertOk();
        $this->tablet('bench')->send('GET', '/units')->assertOk();
        $change(['role' => 'teardown'])->assertOk();
        $out();
        $in(self::RECEIVER);
        $this->tablet('office')->send('PUT', '/people/101/pin', ['pin' => '730915'])->assertOk();
        $out();
        $in('730915');
        $this->tablet('office')->send('DELETE', '/people/101/sessions')->assertOk();
        $out();
        $in('730915');
        $change(['active' => false])->assertOk();
        $out();
        $this->assertProblem($this->signIn('101', '730915'), 422, 'do not go together', '/pin');
        $this->tablet('office')->send('GET', '/units')->assertOk();
        $row = collect($this->send('GET', '/people')->json('people'))->firstWhere('badge', '101');
        $this->assertSame([false, ['reads tags'], []], [$row['active'], $row['skills'], $row['sessions']]);
        $payloads = DB::table('ledger')->whereIn('kind', ['person.changed', 'pin.changed'])->pluck('payload')->join('');
        $this->assertStringNotContainsString('730915', $payloads);
    }

    public function test_a_tablet_nobody_touches_locks_and_goes_on_with_the_pin(): void
    {
        $this->tablet('bench')->signIn('101', self::RECEIVER)->assertOk()->assertJsonPath('idleMinutes', 10);
        $this->send('POST', '/session/lock')->assertJsonPath('locked.badge', '101')->assertJsonPath('person', null);
        $this->send('GET', '/units')->assertStatus(401);
        $this->send('GET', '/session')->assertJsonPath('locked.name', 'Joss Tarn');
        $this->signIn('101', self::RECEIVER)->assertOk()->assertJsonPath('locked', null);
        $this->send('GET', '/units')->assertOk();
        $this->assertSame(1, OpenSession::query()->count(), 'the locked one is gone');
    }

    public function test_a_person_is_added_without_a_pin_and_comes_in_with_one(): void
    {
        $this->tablet('office')->signIn('100', '482163')->assertOk();
        $new = ['badge' => '210', 'name' => 'Ada Venn', 'role' => 'builder', 'skills' => ['pumps', 'end play']];
        $this->send('POST', '/people', $new)->assertCreated();
        $this->assertProblem($this->send('POST', '/people', $new), 422, 'somebody\'s already', '/badge');
        $this->assertProblem($this->tablet('bench')->signIn('210', ''), 422, 'pin', '/pin');
        foreach (
            [
                '12345' => '6 to 12 digits',
                'abcdef' => '6 to 12 digits',
                '111111' => 'first tried',
                '456789' => 'first tried',
                '987654' => 'first tried',
                '210731' => 'first tried',
            ] as $pin => $why
        ) {
            $this->assertProblem(
                $this->tablet('office')->send('PUT', '/people/210/pin', ['pin' => (string) $pin]),
                422,
                $why,
                '/pin',
            );
        }
        $this->send('PUT', '/people/210/pin', ['pin' => '905716'])->assertOk();
        $this->tablet('bench')->signIn('210', '905716')->assertJsonPath('person.name', 'Ada Venn');
        $this->assertProblem($this->send('GET', '/people'), 403, '');
    }

    public function test_the_last_manager_stays(): void
    {
        $this->tablet('office')->signIn('100', '482163')->assertOk();
        $me = ['name' => 'Mara Quill', 'role' => 'manager', 'skills' => [], 'active' => true, 'version' => 1];
        $this->assertProblem(
            $this->send('PUT', '/people/100', ['active' => false] + $me),
            422,
            'only manager',
            '/active',
        );
        $this->assertProblem(
            $this->send('PUT', '/people/100', ['role' => 'viewer'] + $me),
            422,
            'only manager',
            '/role',
        );
        $this->assertProblem($this->send('PUT', '/people/100', ['version' => 0] + $me), 409, 'Somebody else');
    }

    public function test_a_pin_from_before_the_rule_signs_nothing_until_it_is_changed(): void
    {
        Person::query()->where('badge', '101')->update(['pin_hash' => bcrypt('1937'), 'pin_digits' => null]);
        $this->signIn('101', '1937')
            ->assertOk()
            ->assertJsonPath('person.abilities', [])
            ->assertJsonPath('person.shortestPin', 6);
        $this->send('GET', '/units')->assertOk();
        $this->send('POST', '/receiving', [])->assertStatus(403);
        $this->assertProblem(
            $this->send('PUT', '/session/pin', ['old' => '1938', 'pin' => '730915']),
            422,
            'do not go together',
            '/pin',
        );
        $this->send('PUT', '/session/pin', ['old' => '1937', 'pin' => '730915'])
            ->assertOk()
            ->assertJsonPath('person.shortestPin', null);
        $this->send('POST', '/receiving', [])->assertStatus(422);
    }

    public function test_the_sign_in_log_says_who_tried_and_is_paged(): void
    {
        $this->wrong(3);
        $this->tablet('office')->signIn('100', '482163')->assertOk();
        config(['yard.page_size' => 2]);
        $first = $this->send('GET', '/people/sign-ins')->assertOk()->json();
        $this->assertSame(['in', 'wrong'], array_column($first['entries'], 'outcome'));
        $this->assertSame('10.0.0.7', $first['entries'][1]['address']);
        $second = $this->send('GET', "/people/sign-ins?before={$first['before']}&badge=101")->json();
        $this->assertSame(['wrong', 'wrong'], array_column($second['entries'], 'outcome'));
        $this->assertNull($second['before']);
    }
}
