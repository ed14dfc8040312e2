<?php

declare(strict_types=1);

namespace Yard\Core\Tests;

use Eris\Generators;
use Eris\TestTrait;
use PHPUnit\Framework\Attributes\DataProvider;
use Yard\Core\Calculator\Calculators;

/** work.plan: held against brute force over every set of operations on small random AND-OR graphs. */
final class WorkPlanTest extends CoreTestCase
{
    use TestTrait;

    private const EXAMPLE = [
        ['id' => 'drain', 'hours' => 0.2, 'place' => 'vehicle', 'renews' => ['washer']],
        ['id' => 'tilt', 'after' => ['drain'], 'hours' => 0.1, 'alternative' => true],
        ['id' => 'hoist', 'after' => ['drain'], 'hours' => 0.4, 'alternative' => true, 'place' => 'vehicle'],
        [
            'id' => 'pan',
            'after' => ['drain'],
            'afterAny' => [['tilt', 'hoist']],
            'removes' => ['pan', 'magnet'],
            'renews' => ['pan gasket'],
            'hours' => 0.3,
            'place' => 'vehicle',
        ],
        [
            'id' => 'filter',
            'after' => ['pan'],
            'removes' => ['filter'],
            'renews' => ['filter', 'pan gasket'],
            'hours' => 0.1,
        ],
        ['id' => 'lever', 'after' => ['pan'], 'hours' => 0.2],
        ['id' => 'body', 'after' => ['filter', 'lever'], 'removes' => ['valve body'], 'hours' => 0.5],
    ];

    /** @param  array<string, mixed>  $more */
    private static function plan(array $operations, array $more = []): array
    {
        return Calculators::call('work.plan', ['operations' => $operations] + $more);
    }

    public function test_the_next_step_what_waits_and_why(): void
    {
        $out = self::plan(self::EXAMPLE, ['done' => ['drain'], 'jammed' => ['lever'], 'target' => 'filter']);
        $this->assertSame(['drain', 'tilt', 'hoist', 'pan', 'filter', 'lever', 'body'], $out['order']);
        $this->assertSame(['tilt', 'hoist'], $out['available']);
        $this->assertSame(
            [
                ['id' => 'pan', 'for' => ['tilt', 'hoist']],
                ['id' => 'filter', 'for' => ['pan']],
                ['id' => 'body', 'for' => ['filter', 'lever']],
            ],
            $out['waiting'],
        );
        $this->assertSame([['id' => 'body', 'because' => ['lever']]], $out['unreachable']);
        $this->assertEqualsWithDelta(1.2, $out['hoursLeft'], 1e-12, 'the hoist is not needed');
        $this->assertSame(['tilt', 'pan', 'lever', 'body'], $out['longestPath']['operations']);
        $this->assertEqualsWithDelta(1.1, $out['longestPath']['hours'], 1e-12);
        $this->assertSame(['tilt', 'pan', 'filter'], $out['reach']['operations']);
        $this->assertFalse($out['reach']['inVehicle'], 'tilting takes it out');
        $this->assertSame(['pan gasket', 'filter'], $out['reach']['renews']);
        $this->assertTrue($out['optimal']);
    }

    public function test_a_jam_takes_the_other_way(): void
    {
        $out = self::plan(self::EXAMPLE, ['done' => ['drain'], 'jammed' => ['tilt'], 'target' => 'magnet']);
        $this->assertSame(['hoist', 'pan'], $out['reach']['operations']);
        $this->assertTrue($out['reach']['inVehicle']);
        $barred = self::plan(self::EXAMPLE, ['jammed' => ['tilt', 'hoist'], 'target' => 'pan'])['reach'];
        $this->assertSame(['possible' => false, 'because' => ['tilt', 'hoist']], $barred);
        $done = self::plan(self::EXAMPLE, ['done' => ['pan'], 'jammed' => ['pan'], 'target' => 'magnet'])['reach'];
        $this->assertSame([[], 0.0, true], [$done['operations'], $done['hours'], $done['possible']]);
    }

    public function test_undoing_reopens_what_stood_on_it_and_nothing_else(): void
    {
        $all = array_column(self::EXAMPLE, 'id');
        $undo = fn (array $done, string $id) => self::plan(
            self::EXAMPLE,
            ['done' => $done, 'undo' => [$id]],
        )['reopened'];
        $this->assertSame(['pan', 'filter', 'lever', 'body'], $undo(array_values(array_diff($all, ['hoist'])), 'tilt'));
        $this->assertSame([], $undo($all, 'tilt'), 'the hoist carries it too');
        $this->assertSame(['body'], $undo($all, 'filter'));
        $this->assertSame([], $undo(['pan', 'body'], 'filter'), 'what never stood on it does not fall');
        $circle = [
            ['id' => 'd', 'hours' => 1],
            ['id' => 'c', 'hours' => 1],
            ['id' => 'a', 'hours' => 1, 'afterAny' => [['b', 'c']]],
            ['id' => 'b', 'hours' => 1, 'afterAny' => [['a', 'd']]],
        ];
        $out = self::plan($circle, ['done' => ['d', 'b', 'a'], 'undo' => ['d']]);
        $this->assertSame(['a', 'b'], $out['reopened'], 'two that lean on each other do not stand');
    }

    /** @return array<string, array{array<mixed>, array<mixed>, string, string}> */
    public static function refusals(): array
    {
        $a = ['id' => 'a', 'hours' => 1];

        return [
            'a circle' => [
                [$a + ['after' => ['b']], ['id' => 'b', 'hours' => 1, 'after' => ['a']], ['id' => 'c', 'hours' => 1]],
                [],
                'cycle',
                '/operations',
            ],
            'nobody of that name' => [[$a + ['after' => ['x']]], [], 'unknown-operation', '/operations/0/after/0'],
            'nor done' => [[$a], ['done' => ['a', 'x']], 'unknown-operation', '/done/1'],
            'nor a part' => [[$a + ['removes' => ['p']]], ['target' => 'q'], 'unknown-operation', '/target'],
            'one twice' => [[$a, $a], [], 'duplicate-operation', '/operations/1/id'],
            'an empty group' => [[$a + ['afterAny' => [[]]]], [], 'empty-group', '/operations/0/afterAny/0'],
            'no hours' => [[['id' => 'a']], [], 'missing', '/operations/0/hours'],
        ];
    }

    #[DataProvider('refusals')]
    public function test_a_graph_nobody_could_work_is_refused(
        array $operations,
        array $more,
        string $code,
        string $at,
    ): void {
        $error = $this->assertRefused('work.plan', ['operations' => $operations] + $more, $code, $at);
        if ($code === 'cycle') {
            $this->assertStringContainsString('a, b.', $error->getMessage(), 'only what can never be done');
        }
    }

    /** A circle of alternatives that can be entered from outside is no circle. */
    public function test_alternatives_may_stand_for_each_other(): void
    {
        $out = self::plan(
            [
                ['id' => 'a', 'hours' => 1, 'afterAny' => [['b', 'x']], 'alternative' => true],
                ['id' => 'b', 'hours' => 1, 'afterAny' => [['a', 'y']], 'alternative' => true],
                ['id' => 'x', 'hours' => 5, 'alternative' => true],
                ['id' => 'y', 'hours' => 3, 'alternative' => true],
                ['id' => 'end', 'hours' => 0, 'after' => ['a']],
            ],
            ['target' => 'end'],
        );
        $this->assertSame(
            ['y', 'b', 'a', 'end'],
            $out['reach']['operations'],
            'a and b alone would hold each other up',
        );
        $this->assertEqualsWithDelta(5.0, $out['hoursLeft'], 1e-12);
    }

    /** 500 random graphs of up to seven operations, a third of them with circles of alternatives. */
    public function test_the_answers_are_those_of_brute_force(): void
    {
        mt_srand(20261127);
        $seen = ['barred' => 0, 'choices' => 0, 'ties' => 0];
        for ($case = 0; $case < 500;) {
            [$operations, $more] = self::random($case % 3 === 0);
            $reference = new WorkReference($operations, $more['done'], $more['jammed']);
            if (! $reference->canAllBeDone()) {
                continue;
            }
            $case++;
            $out = self::plan($operations, $more);
            $told = json_encode([$operations, $more]);
            $this->assertSame($reference->available(), $out['available'], $told);
            $this->assertSame($reference->unreachable(), array_column($out['unreachable'], 'id'), $told);
            $left = $reference->cheapest($reference->required(), jammedToo: true);
            $this->assertEqualsWithDelta($left['hours'], $out['hoursLeft'], 1e-9, $told);
            $way = $reference->reach($more['target']);
            $this->assertSame($way !== null, $out['reach']['possible'], $told);
            if ($way === null) {
                $seen['barred']++;

                continue;
            }
            $this->assertEqualsWithDelta($way['hours'], $out['reach']['hours'], 1e-9, $told);
            $this->assertEqualsCanonicalizing($way['ids'], $out['reach']['operations'], $told);
            $this->assertTrue($reference->works($out['reach']['operations']), $told);
            $seen['choices'] += $way['ways'] > 1 ? 1 : 0;
            $seen['ties'] += $way['ties'] > 1 ? 1 : 0;
        }
        $this->assertGreaterThan(30, min($seen), json_encode($seen));
    }

    public function test_what_is_offered_is_due_and_everything_can_be_finished(): void
    {
        $this->limitTo(200)
            ->forAll(Generators::choose(1, 1_000_000))
            ->then(function (int $seed): void {
                mt_srand($seed);
                [$operations] = self::random(circles: false);
                $done = [];
                while (($open = self::plan($operations, ['done' => $done])['available']) !== []) {
                    $next = $open[array_rand($open)];
                    $due = new WorkReference($operations, $done, []);
                    $this->assertContains($next, $due->available());
                    $done[] = $next;
                }
                $this->assertCount(count($operations), $done);
                $undone = $done[array_rand($done)];
                $reopened = self::plan($operations, ['done' => $done, 'undo' => [$undone]])['reopened'];
                $kept = array_values(array_diff($done, [$undone], $reopened));
                $after = new WorkReference($operations, [], []);
                $this->assertTrue($after->stands($kept), 'what stays stands');
                foreach ($reopened as $id) {
                    $this->assertFalse($after->stands([...$kept, $id]), 'and nothing falls that could stay');
                }
            });
    }

    public function test_two_thousand_operations_and_many_groups(): void
    {
        $operations = [];
        for ($n = 0; $n < 2000; $n++) {
            $operations[] = [
                'id' => "o$n",
                'hours' => ($n * 7) % 11 / 10,
                'after' => $n >= 10 && $n % 5 !== 0 ? ['o'.($n - 10), 'o'.($n - 7)] : [],
                'afterAny' => $n % 40 === 39 ? [['o'.($n - 3), 'o'.($n - 4), 'o'.($n - 5)]] : [],
                'alternative' => $n % 40 > 33 && $n % 40 < 37,
            ];
        }
        $out = self::plan($operations, ['done' => ['o0', 'o1'], 'target' => 'o1999']);
        $this->assertTrue($out['optimal']);
        $this->assertTrue($out['reach']['possible']);
    }

    /** 36 groups over 40 shared alternatives, as a hitting set: nothing hangs, and the bound is true. */
    public function test_a_search_that_is_cut_short_says_so(): void
    {
        mt_srand(5);
        $operations = [];
        for ($n = 0; $n < 40; $n++) {
            $operations[] = ['id' => "a$n", 'hours' => mt_rand(90, 110) / 100, 'alternative' => true];
        }
        $groups = [];
        for ($g = 0; $g < 36; $g++) {
            $groups[] = array_map(fn (int $k): string => "a$k", (array) array_rand(range(0, 39), 5));
        }
        $operations[] = ['id' => 'end', 'hours' => 0, 'afterAny' => $groups];
        $short = self::plan($operations, ['effort' => 0.001]);
        $this->assertFalse($short['optimal']);
        $longer = self::plan($operations, ['effort' => 0.5]);
        $this->assertLessThanOrEqual($short['hoursLeft'] + 1e-9, $longer['hoursLeft']);
        $this->assertLessThanOrEqual($longer['hoursLeft'] + 1e-9, $short['bound']['hoursLeft']);
        $this->assertGreaterThan(2.0, $short['bound']['hoursLeft']);
    }

    /** @return array{list<array<string, mixed>>, array<string, mixed>} */
    private static function random(bool $circles): array
    {
        $count = mt_rand(3, 9);
        $operations = [];
        for ($n = 0; $n < $count; $n++) {
            $others = array_values(array_diff(range(0, $circles ? $count - 1 : max(0, $n - 1)), [$n]));
            $some = fn (int $most): array => array_map(
                fn (int $k): string => "o{$others[$k]}",
                $others === [] ? [] : (array) array_rand($others, min(count($others), mt_rand(1, $most))),
            );
            $operations[] = [
                'id' => "o$n",
                'hours' => mt_rand(0, 4) / 2,
                'after' => mt_rand(0, 2) === 0 ? $some(2) : [],
                'afterAny' => array_slice([$some(3), $some(3)], 0, $others === [] ? 0 : max(0, mt_rand(-1, 2))),
                'removes' => ["p$n", 'p'.mt_rand(0, $count - 1)],
                'alternative' => mt_rand(0, 1) === 0,
            ];
        }
        $ids = array_column($operations, 'id');
        $pick = fn (int $of): array => array_values(array_filter($ids, fn () => mt_rand(1, $of) === 1));
        $target = mt_rand(0, 2) === 0 ? 'p'.mt_rand(0, $count - 1) : $ids[array_rand($ids)];

        return [$operations, ['done' => $pick(5), 'jammed' => $pick(5), 'target' => $target]];
    }
}
