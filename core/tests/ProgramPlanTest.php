<?php

declare(strict_types=1);

namespace Yard\Core\Tests;

use PHPUnit\Framework\Attributes\DataProvider;
use Yard\Core\BadInput;
use Yard\Core\Drivetrain\ApplyChart;
use Yard\Core\Dyno\CellReadings;
use Yard\Core\Dyno\ProgramPlan;
use Yard\Core\Input;

/** Programs of the cell gone through without a unit. */
final class ProgramPlanTest extends CoreTestCase
{
    /** @param  array<string, mixed>  $change */
    private static function plan(string $family, array $change = [], ?float $stall = null): array
    {
        $ratios = ApplyChart::read(Input::of(TestCell::family($family)['train']))->ratios();

        return ProgramPlan::read(Input::of($change + TestCell::program($family)), $ratios, $stall)->report();
    }

    /** @return list<array{string}> */
    public static function families(): array
    {
        return array_map(fn (string $f): array => [$f], ['RD4', 'OV3', 'LP6', 'TX6', 'GV5']);
    }

    #[DataProvider('families')]
    public function test_the_programs_that_ship_lack_nothing_and_every_window_has_its_reading(string $family): void
    {
        $plan = self::plan($family);
        $this->assertSame([], $plan['missing']);
        $this->assertSame([], $plan['windowsWithout']);
        $this->assertEqualsWithDelta(TestCell::program($family)['end'], $plan['seconds'], 1e-9);
        $this->assertEqualsWithDelta($plan['seconds'], array_sum(array_column($plan['steps'], 'seconds')), 1e-9);
    }

    public function test_the_plan_says_what_the_run_will_read(): void
    {
        $plan = self::plan('RD4');
        $read = array_column(TestCell::run('RD4', [], 1)['readings'], 'key');
        $lines = array_filter(array_keys($plan['steps']), fn (int $n): bool => $plan['steps'][$n]['read']);
        $this->assertSame(
            array_map(fn (int $n): string => "line:$n", array_values($lines)),
            array_values(preg_grep('/^line:/', $read)),
        );
        foreach ($plan['shifts'] as ['from' => $from, 'to' => $to, 'loads' => $loads]) {
            $this->assertCount(count($loads), preg_grep("/^shift:$from-$to#\\d+:duration/", $read), "$from-$to");
        }
        $this->assertGreaterThan(CellReadings::SETTLES_S, $plan['steps'][0]['seconds']);
    }

    public function test_what_is_cut_out_is_missed(): void
    {
        $steps = TestCell::program('RD4')['steps'];
        $without = fn (string $field): array => array_values(array_filter(
            array_map(fn (array $s): array => array_diff_key($s, [$field => 0]), $steps),
            fn (array $s): bool => count($s) > 1,
        ));
        $this->assertContains(
            'The lock-up is never on for long enough to be read.',
            self::plan('RD4', ['steps' => $without('lockup')])['missing'],
        );
        $survey = self::plan('RD4', ['steps' => $without('line')])['missing'];
        $this->assertSame(['park', 'reverse', 'neutral', 'drive'], array_map(
            fn (string $s): string => str_replace(['The line is never read in ', ' at full command.'], '', $s),
            $survey,
        ));
        $this->assertSame(
            ['No step waits until the oil is warm.'],
            self::plan('RD4', ['steps' => $without('until')])['missing'],
        );
        $short = self::plan('RD4', ['steps' => array_slice($steps, 0, 13), 'end' => 43.0]);
        $this->assertContains('The shift 4-3 never comes.', $short['missing']);
        $this->assertContains('The shift 1-2 comes at one load only.', $short['missing']);
        $once = self::plan('RD4', ['steps' => array_slice($steps, 0, 32), 'end' => 92.5]);
        $this->assertContains('The shift 3-2 comes at one load only.', $once['missing']);
        $this->assertNotContains('The shift 2-3 comes at one load only.', $once['missing']);
        $this->assertContains('shift:4-3#1:duration', $short['windowsWithout']);
    }

    public function test_a_stall_is_held_against_its_heat_or_against_what_is_usual(): void
    {
        $stall = ['steps' => [['t' => 0, 'gear' => '1', 'hold' => 'on', 'throttle' => 1.0]], 'end' => 9.0];
        $this->assertSame(
            ['Step 1 stalls the converter for 9.0 s, and it takes harm; 5.0 s are allowed, as is usual.'],
            self::plan('RD4', $stall)['cautions'],
        );
        $this->assertSame(
            ['Step 1 stalls the converter for 9.0 s; 12.5 s are allowed, by its heat, behind the hardest engine.'],
            self::plan('RD4', $stall, 12.5)['cautions'],
        );
    }

    /** @return array<string, array{list<array<string, mixed>>, string}> */
    public static function wrong(): array
    {
        return [
            'no steps' => [[], '/steps'],
            'time that stands still' => [[['t' => 0, 'gear' => 'P'], ['t' => 0, 'gear' => 'N']], '/steps/1/t'],
            'a step after the end' => [[['t' => 199, 'gear' => 'P']], '/steps/0/t'],
            'a gear the unit has not' => [[['t' => 0, 'gear' => '9']], '/steps/0/gear'],
            'more than full throttle' => [[['t' => 0, 'gear' => 'P', 'throttle' => 1.2]], '/steps/0/throttle'],
            'a lock-up half on' => [[['t' => 0, 'gear' => 'P', 'lockup' => 'half']], '/steps/0/lockup'],
            'a line asked for half' => [[['t' => 0, 'gear' => 'P', 'line' => 'half']], '/steps/0/line'],
            'a wait for two things' => [
                [['t' => 0, 'until' => ['channel' => 'temp_degc', 'atLeast' => 1, 'atMost' => 2, 'within_s' => 9]]],
                '/steps/0/until',
            ],
            'a wait for what is not read' => [
                [['t' => 0, 'until' => ['channel' => 'colour', 'atLeast' => 1, 'within_s' => 9]]],
                '/steps/0/until/channel',
            ],
            'a wait without an end' => [
                [['t' => 0, 'until' => ['channel' => 'temp_degc', 'atLeast' => 1]]],
                '/steps/0/until/within_s',
            ],
            'no time' => [[['gear' => 'P']], '/steps/0/t'],
        ];
    }

    /** @param  list<array<string, mixed>>  $steps */
    #[DataProvider('wrong')]
    public function test_what_no_rig_can_run_is_refused_at_its_place(array $steps, string $path): void
    {
        try {
            self::plan('RD4', ['steps' => $steps]);
            $this->fail('It was accepted.');
        } catch (BadInput $e) {
            $this->assertSame($path, $e->path);
        }
    }
}
