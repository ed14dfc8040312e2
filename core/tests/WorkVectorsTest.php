<?php

declare(strict_types=1);

namespace Yard\Core\Tests;

use PHPUnit\Framework\TestCase;
use Yard\Core\Work\Graph;
use Yard\Core\Work\Operation;
use Yard\Core\Work\Plan;

/**
 * Graphs and what the core makes of them, for the evaluator that tablets carry without a network. Written anew with
 * WRITE_VECTORS=1; otherwise the file must be what the core says today.
 */
final class WorkVectorsTest extends TestCase
{
    private const FILE = __DIR__.'/../../tests/fixtures/work-vectors.json';

    private const GRAPHS = 200;

    public function test_the_vectors_of_the_tablets_are_what_the_core_says(): void
    {
        mt_srand(20261127);
        $vectors = array_map(fn (): array => self::vector(mt_rand(1, 14)), range(1, self::GRAPHS));
        $json = json_encode($vectors, JSON_THROW_ON_ERROR)."\n";
        if (getenv('WRITE_VECTORS') === '1') {
            file_put_contents(self::FILE, $json);
        }
        $this->assertSame($json, file_get_contents(self::FILE));
        $this->assertGreaterThan(20, count(array_filter($vectors, fn (array $v): bool => $v['unreachable'] !== [])));
        $this->assertGreaterThan(20, count(array_filter($vectors, fn (array $v): bool => $v['reopened'] !== [])));
    }

    /** @return array<string, mixed> */
    private static function vector(int $size): array
    {
        $operations = array_map(fn (int $n): array => self::operation($n), range(0, $size - 1));
        $graph = new Graph(array_map(
            fn (array $o): Operation => new Operation(
                $o['code'],
                $o['after'],
                $o['afterAny'],
                [],
                [],
                1.0,
                false,
                false,
            ),
            $operations,
        ));
        $done = self::some($graph->workable([]), 0.5);
        // What is done was done in a workable order, as on a bench; now and then something was undone under it.
        $done = array_values(array_intersect($graph->workable([]), $graph->workable([], array_flip($done))));
        $jammed = array_values(array_diff(self::some(range(0, $size - 1), 0.2), $done));
        $undo = self::some($done, 0.3);
        $plan = Plan::of($graph, $done, $jammed);

        return [
            'operations' => $operations,
            'done' => $graph->ids($done),
            'jammed' => $graph->ids($jammed),
            'undo' => $graph->ids($undo),
            'available' => $graph->ids($plan->available()),
            'unreachable' => $graph->ids(array_keys($plan->unreachable())),
            'reopened' => $graph->ids($plan->reopened($undo)),
        ];
    }

    /** @return array{code: string, after: list<string>, afterAny: list<list<string>>} after earlier ones only */
    private static function operation(int $n): array
    {
        $before = array_map(fn (int $b): string => "o$b", $n === 0 ? [] : range(0, $n - 1));
        $after = array_slice(self::some($before, 0.25), 0, 3);
        $groups = [];
        while ($before !== [] && mt_rand(0, 99) < 30 && count($groups) < 2) {
            $group = array_slice(self::some($before, 0.5), 0, 3);
            $group === [] || $groups[] = $group;
        }

        return ['code' => "o$n", 'after' => $after, 'afterAny' => $groups];
    }

    /**
     * @template T
     *
     * @param  list<T>  $of
     * @return list<T>
     */
    private static function some(array $of, float $share): array
    {
        return array_values(array_filter($of, fn (): bool => mt_rand(0, 9999) < 10_000 * $share));
    }
}
