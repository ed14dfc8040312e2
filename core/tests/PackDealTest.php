<?php

declare(strict_types=1);

namespace Yard\Core\Tests;

use PHPUnit\Framework\TestCase;
use Yard\Core\Inspection\PackDeal;

/** Every pack dealt is recognised by eyes of the test's own: counts first, then neighbours, then the ends. */
final class PackDealTest extends TestCase
{
    /** @param  list<string>  $stack */
    private static function seen(array $stack, int $pairs, bool $wave, bool $end): string
    {
        $count = array_count_values($stack) + ['wave' => 0, 'steel' => 0, 'friction' => 0, 'end' => 0];
        $alike = 0;
        foreach (array_slice($stack, 1) as $n => $kind) {
            $alike += $kind === $stack[$n] ? 1 : 0;
        }

        return match (true) {
            $count['friction'] < $pairs => 'friction-missing',
            $count['steel'] < $pairs => 'steel-missing',
            $wave && $count['wave'] === 0 => 'wave-missing',
            $alike > 0 => 'swapped',
            $end && $stack[0] === 'end' => 'end-inside',
            $wave && $stack[0] !== 'wave' => 'wave-wrong-end',
            default => 'right',
        };
    }

    public function test_what_is_wrong_can_be_seen_and_nothing_else_is(): void
    {
        $dealt = [];
        foreach ([[5, false, true], [4, true, false], [8, true, true], [3, false, false]] as [$pairs, $wave, $end]) {
            for ($seed = 0; $seed < 300; $seed++) {
                $deal = new PackDeal($pairs, $wave, $end, $seed);
                $seen = self::seen($deal->stack, $pairs, $wave, $end);
                $this->assertSame($deal->wrong, $seen, implode(' ', $deal->stack));
                $this->assertContains($deal->wrong, $deal->choices());
                $this->assertSame('ring', $deal->stack[count($deal->stack) - 1]);
                $dealt[$deal->wrong] = true;
            }
        }
        $this->assertEqualsCanonicalizing(array_keys(PackDeal::WRONG), array_keys($dealt), 'each comes');
    }

    public function test_the_same_seed_is_the_same_pack_and_a_pack_without_a_wave_asks_for_none(): void
    {
        $this->assertEquals(new PackDeal(5, true, true, 7), new PackDeal(5, true, true, 7));
        $this->assertNotContains('wave-missing', (new PackDeal(5, false, true, 7))->choices());
        $this->assertNotContains('end-inside', (new PackDeal(5, true, false, 7))->choices());
    }
}
