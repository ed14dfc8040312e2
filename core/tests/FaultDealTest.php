<?php

declare(strict_types=1);

namespace Yard\Core\Tests;

use PHPUnit\Framework\TestCase;
use Yard\Core\BadInput;
use Yard\Core\Drivetrain\ApplyChart;
use Yard\Core\Faults\FaultDeal;
use Yard\Core\Faults\LikelihoodTable;
use Yard\Core\Input;

/** A hidden fault: dealt as often as the table says, the same for the same seed, findable by what it shows. */
final class FaultDealTest extends TestCase
{
    private static function chart(): ApplyChart
    {
        $pack = json_decode((string) file_get_contents(dirname(__DIR__, 2).'/database/demo/catalog.json'), true);

        return ApplyChart::read(Input::of($pack['families'][0]['train']));
    }

    public function test_the_same_seed_is_the_same_unit(): void
    {
        $chart = self::chart();
        foreach ([7, 99, 12345] as $seed) {
            $shown = fn (): array => array_map(
                fn (array $l): array => (new FaultDeal($chart, $seed))->shows($l['kind'], $l['what']),
                (new FaultDeal($chart, $seed))->looks(),
            );
            $this->assertSame($shown(), $shown());
        }
        $this->expectException(BadInput::class);
        (new FaultDeal($chart, 1))->shows('gear', '9');
    }

    public function test_faults_come_as_often_as_the_table_says(): void
    {
        $chart = self::chart();
        $table = LikelihoodTable::house();
        $counts = [];
        $deals = 4000;
        for ($seed = 0; $seed < $deals; $seed++) {
            $name = implode(' ', (new FaultDeal($chart, $seed))->hidden());
            $counts[$name] = ($counts[$name] ?? 0) + 1;
        }
        // Two faults of known prior: their numbers stand to each other as the priors do, within four sigma.
        $share = $table->prior('pump') / ($table->prior('pump') + $table->prior('converter'));
        $both = $counts['pump worn'] + $counts['converter no-drive'];
        $sigma = sqrt($both * $share * (1.0 - $share));
        $this->assertEqualsWithDelta($share * $both, $counts['pump worn'], 4.0 * $sigma);
        $this->assertArrayNotHasKey('sound none', $counts, 'something is wrong with every unit dealt');
    }

    public function test_the_engine_is_right_as_often_as_it_says(): void
    {
        $chart = self::chart();
        $right = $expected = $spread = 0.0;
        for ($seed = 0; $seed < 120; $seed++) {
            $deal = new FaultDeal($chart, $seed);
            $seen = array_map(
                fn (array $l): array => $l + $deal->shows($l['kind'], $l['what']),
                $deal->looks(),
            );
            $leader = $deal->judged($seen, 'pump', 'worn')['leader'];
            $right += $deal->judged($seen, $leader['element'], $leader['fault'])['right'] ? 1.0 : 0.0;
            $expected += $leader['posterior'];
            $spread += $leader['posterior'] * (1.0 - $leader['posterior']);
        }
        $this->assertGreaterThan($expected - 4.0 * sqrt($spread), $right);
        $this->assertLessThan($expected + 4.0 * sqrt($spread), $right);
        $this->assertGreaterThan(60.0, $right, 'and that is far better than a guess among twenty');
    }

    public function test_two_elements_may_be_weak_together(): void
    {
        $deal = new FaultDeal(self::chart(), 11, true);
        $this->assertCount(21, $deal->causes(), 'every two of seven');
        $this->assertContains($deal->hidden(), $deal->causes());
        $this->assertMatchesRegularExpression('/^\w+\+\w+$/', $deal->hidden()['element']);
        $seen = array_map(fn (array $l): array => $l + $deal->shows($l['kind'], $l['what']), $deal->looks());
        $judged = $deal->judged($seen, ...array_values($deal->hidden()));
        $this->assertTrue($judged['right']);
        $this->assertGreaterThan(0.02, $judged['posterior']);
        $dealt = array_unique(array_map(
            fn (int $seed): string => (new FaultDeal(self::chart(), $seed, true))->hidden()['element'],
            range(0, 400),
        ));
        $this->assertCount(21, $dealt, 'each comes');
    }
}
