<?php

declare(strict_types=1);

namespace Yard\Core\Tests;

use Yard\Core\Dyno\ProgramCourse;

/** A program while it runs: orders ahead of time, waits, and how it was done. */
final class ProgramCourseTest extends CoreTestCase
{
    private const STEPS = [
        ['t' => 0.0, 'gear' => 'P'],
        ['t' => 3.0, 'gear' => 'N', 'throttle' => 0.2],
        ['t' => 6.0, 'gear' => '1', 'until' => ['channel' => 'temp_degc', 'atLeast' => 40.0, 'within_s' => 20.0]],
        ['t' => 9.0, 'gear' => '2'],
    ];

    /** @return list<array<string, mixed>> orders, asked for every half second with the oil so warm */
    private static function orders(ProgramCourse $course, float $until, callable $warm): array
    {
        $orders = [];
        for ($t = 0.0; $t <= $until; $t += 0.5) {
            array_push($orders, ...$course->due($t, ['t_s' => $t, 'temp_degc' => $warm($t)]));
        }

        return $orders;
    }

    public function test_orders_go_out_ahead_and_wait_for_what_they_wait_for(): void
    {
        $course = new ProgramCourse(self::STEPS, 12.0);
        $this->assertSame([32.0, 12.0, true], [$course->longest(), $course->end(), $course->waits()]);
        $this->assertSame([['n' => 0, 'at' => 0.0, 'gear' => 'P']], $course->due(0.5, []));
        $this->assertSame([], $course->due(0.9, []), 'two seconds ahead and no more');
        $this->assertSame([['n' => 1, 'at' => 3.0, 'gear' => 'N', 'throttle' => 0.2]], $course->due(1.0, []));
        $this->assertSame([], $course->due(5.5, ['temp_degc' => 60.0]), 'a step that waits is not ordered ahead');
        $this->assertNull($course->waitingAt(5.5));
        $this->assertSame([], $course->due(10.0, ['temp_degc' => 39.9]));
        $this->assertSame([0.0, 2], [$course->late(), $course->waitingAt(10.0)]);
        $this->assertSame(
            [['n' => 2, 'at' => 11.5, 'gear' => '1']],
            $course->due(11.5, ['temp_degc' => 40.0]),
        );
        $this->assertSame([17.5, false], [$course->end(), $course->waits()], 'all that follows is as late');
        $this->assertSame([5.5, null], [$course->late(), $course->waitingAt(11.5)]);
        $this->assertSame([['n' => 3, 'at' => 14.5, 'gear' => '2']], $course->due(12.5, ['temp_degc' => 20.0]));
        $course->did(2, 11.51);
        $this->assertSame([0.0, 3.0, 11.51, 9.0], array_column($course->asDone(), 't'));
        $this->assertNull($course->stopped());
    }

    public function test_what_is_so_already_delays_nothing(): void
    {
        $course = new ProgramCourse(self::STEPS, 12.0);
        $orders = self::orders($course, 12.0, fn (float $t): float => 80.0);
        $this->assertSame([0.0, 3.0, 6.0, 9.0], array_column($orders, 'at'));
        $this->assertSame(12.0, $course->end());
    }

    public function test_what_does_not_come_in_time_stops_the_run_with_a_sentence(): void
    {
        $course = new ProgramCourse(self::STEPS, 12.0);
        $orders = self::orders($course, 40.0, fn (float $t): float => 31.25);
        $this->assertCount(2, $orders);
        $this->assertSame(
            'Step 3 waited 20 s for temp_degc to be at least 40; it was 31.25.',
            $course->stopped(),
        );
        $lube = ['channel' => 'lube_kpa', 'atMost' => 5.0, 'within_s' => 1.0];
        $blind = new ProgramCourse([['t' => 0.0, 'until' => $lube]], 5.0);
        $this->assertSame([], $blind->due(2.0, []));
        $this->assertStringContainsString('to be at most 5; nothing was read', (string) $blind->stopped());
    }
}
