<?php

declare(strict_types=1);

namespace Yard\Core\Tests;

use PHPUnit\Framework\TestCase;
use Yard\Core\Faults\Timeline;

/** The life of a unit read as a rebuilder reads it (common practice, no source). */
final class TimelineTest extends TestCase
{
    /** @param  list<array{0: float|int, 1: string, 2: string}>  $told */
    private static function says(array $told, ?float $now = 190000.0, int $graded = 0, int $sound = 0): array
    {
        $entries = array_map(
            static fn (array $e): array => ['km' => (float) $e[0], 'kind' => $e[1], 'said' => $e[2]],
            $told,
        );

        return (new Timeline($entries, $now, $graded, $sound, 180000.0, 100000.0))->says();
    }

    public function test_the_first_failure_and_what_followed(): void
    {
        $says = self::says([
            [186000, 'complaint', 'no reverse'],
            [142000, 'complaint', 'flares into third'],
            [80000, 'service', 'fluid and filter'],
            [150000, 'service', 'fluid'],
        ]);
        $this->assertSame('It began at 142 000 km: flares into third.', $says[0]);
        $this->assertStringStartsWith('44 000 km later: no reverse;', $says[1]);
        $this->assertCount(2, $says, 'nothing is said of fluid that was changed in time');
    }

    public function test_fitted_and_cured_are_two_facts(): void
    {
        $complaint = [100000, 'complaint', 'shudder'];
        $service = [90000, 'service', 'fluid'];
        $fitted = fn (int $km, array ...$more): string => self::says(
            [$complaint, $service, [$km, 'upgrade', 'lock-up valve'], ...$more],
            120000.0,
        )[1];
        $this->assertStringContainsString('did not keep it away', $fitted(60000));
        $this->assertStringContainsString('nobody says that it cured anything', $fitted(105000));
        $cured = $fitted(105000, [106000, 'cured', 'shudder gone']);
        $this->assertStringContainsString('at 106 000 km it is said: shudder gone.', $cured);
        $this->assertStringContainsString('nobody says', $fitted(105000, [104000, 'cured', 'gone for a week']));
        $alone = self::says([[60000, 'upgrade', 'deep pan']], 70000.0);
        $this->assertSame(['Deep pan, fitted at 60 000 km; nothing is told of what was felt before.'], $alone);
    }

    public function test_plates_that_do_not_fit_the_distance(): void
    {
        $this->assertStringContainsString('Linings of 4 of 5 packs', self::says([], 210000.0, 5, 4)[0]);
        $this->assertSame([], self::says([], 170000.0, 5, 5), 'young enough');
        $this->assertSame([], self::says([], 210000.0, 5, 3), 'worn as they should be');
        $this->assertSame([], self::says([], 210000.0, 2, 2), 'two packs say nothing');
        $rebuilt = self::says([[150000, 'rebuild', 'a rebuild elsewhere']], 210000.0, 5, 5);
        $this->assertSame('Its linings carry 60 000 km since a rebuild elsewhere.', $rebuilt[0]);
        $this->assertSame('No fluid change is told of for 150 000 km.', $rebuilt[1]);
    }
}
