<?php

declare(strict_types=1);

namespace Yard\Core\Tests;

/** Conversions as shortest paths, supersession chains, tag codes and grades. */
final class InterchangeTest extends CoreTestCase
{
    /** @return array<string, mixed> */
    private static function step(string $id, string $from, string $to, float $cost, array $more = []): array
    {
        return ['id' => $id, 'from' => $from, 'to' => $to, 'cost' => $cost] + $more;
    }

    /** @param  list<string>  $ids */
    private static function nodes(array $ids): array
    {
        return array_map(fn (string $id): array => ['id' => $id], $ids);
    }

    public function test_published_example_of_a_shortest_path(): void
    {
        // Cormen, Leiserson, Rivest & Stein, Introduction to Algorithms, section "Dijkstra's algorithm" (24.3 in the
        // 2nd and 3rd editions), figure with source s: distances s 0, t 8, x 9, y 5, z 7. Graph and distances from
        // memory.
        $edges = [
            ['s', 't', 10],
            ['s', 'y', 5],
            ['t', 'x', 1],
            ['t', 'y', 2],
            ['y', 't', 3],
            ['y', 'x', 9],
            ['y', 'z', 2],
            ['z', 'x', 6],
            ['z', 's', 7],
            ['x', 'z', 4],
        ];
        $steps = array_map(fn (array $e): array => self::step("$e[0]$e[1]", $e[0], $e[1], $e[2]), $edges);
        foreach (['s' => 0.0, 't' => 8.0, 'x' => 9.0, 'y' => 5.0, 'z' => 7.0] as $goal => $distance) {
            $out = $this->calc('interchange.path', [
                'nodes' => self::nodes(['s', 't', 'x', 'y', 'z']),
                'steps' => $steps,
                'from' => ['s'],
                'to' => [$goal],
            ]);
            $this->assertSame($distance, (float) $out['best']['total'], $goal);
        }
        $this->assertSame(
            ['sy', 'yt', 'tx'],
            $this->calc('interchange.path', [
                'nodes' => self::nodes(['s', 't', 'x', 'y', 'z']),
                'steps' => $steps,
                'from' => ['s'],
                'to' => ['x'],
            ])['best']['steps'],
        );
    }

    public function test_random_graphs_agree_with_glpk(): void
    {
        if (trim((string) shell_exec('command -v glpsol')) === '') {
            $this->markTestSkipped('GLPK is not installed.');
        }
        mt_srand(7);
        for ($case = 0; $case < 25; $case++) {
            [$n, $steps] = self::randomGraph();
            $out = $this->calc('interchange.path', [
                'nodes' => self::nodes(array_map(fn (int $i): string => "n$i", range(0, $n - 1))),
                'steps' => $steps,
                'from' => ['n0'],
                'to' => ['n1'],
            ]);
            $this->assertEqualsWithDelta(
                self::glpk($n, $steps),
                $out['found'] ? $out['best']['total'] : null,
                1e-6,
                json_encode($steps),
            );
        }
    }

    /** @return array{int, list<array<string, mixed>>} */
    private static function randomGraph(): array
    {
        $n = mt_rand(4, 9);
        $steps = [];
        for ($i = 0; $i < 3 * $n; $i++) {
            [$a, $b] = [mt_rand(0, $n - 1), mt_rand(0, $n - 1)];
            $a !== $b && ($steps[] = self::step("e$i", "n$a", "n$b", mt_rand(0, 500) / 4));
        }

        return [$n, $steps];
    }

    /** Minimum-cost unit flow from n0 to n1 as a linear program. */
    private static function glpk(int $n, array $steps): ?float
    {
        $terms = fn (callable $sign): string => implode(
            ' ',
            array_filter(
                array_map(
                    fn (int $i): string => ($s = $sign($steps[$i])) === 0 ? '' : ($s > 0 ? '+ ' : '- ')."x$i",
                    array_keys($steps),
                ),
            ),
        );
        $lp =
            "Minimize\n cost: ".
            implode(' + ', array_map(fn (int $i): string => $steps[$i]['cost']." x$i", array_keys($steps))).
            "\nSubject To\n";
        for ($k = 0; $k < $n; $k++) {
            $row = $terms(fn (array $s): int => ($s['from'] === "n$k" ? 1 : 0) - ($s['to'] === "n$k" ? 1 : 0));
            $lp .=
                $row === ''
                    ? ($k < 2
                        ? " c$k: 0 x0 = 1\n"
                        : '')
                    : " c$k: $row = ".($k === 0 ? 1 : ($k === 1 ? -1 : 0))."\n";
        }
        $file = (string) tempnam(sys_get_temp_dir(), 'lp');
        file_put_contents($file, $lp."End\n");
        shell_exec("glpsol --lp $file -o $file.out 2>/dev/null");
        $report = (string) file_get_contents("$file.out");
        array_map(unlink(...), [$file, "$file.out"]);

        return preg_match('/Status:\s+OPTIMAL/', $report) === 1 &&
            preg_match('/Objective:\s+cost = (\S+)/', $report, $m) === 1
            ? (float) $m[1]
            : null;
    }

    public function test_conditions_agree_with_trying_every_simple_path(): void
    {
        mt_srand(11);
        $facts = ['f', 'g', 'h'];
        for ($case = 0; $case < 150; $case++) {
            [$n, $steps] = self::randomGraph();
            foreach ($steps as &$step) {
                foreach (['requires', 'forbids'] as $rule) {
                    mt_rand(0, 3) === 0 && ($step[$rule] = [['fact' => $facts[mt_rand(0, 2)], 'why' => 'x']]);
                }
            }
            unset($step);
            $given = array_values(array_filter($facts, fn (): bool => mt_rand(0, 1) === 1));
            $out = $this->calc('interchange.path', [
                'nodes' => self::nodes(array_map(fn (int $i): string => "n$i", range(0, $n - 1))),
                'steps' => $steps,
                'facts' => $given,
                'from' => ['n0'],
                'to' => ['n1'],
            ]);
            $this->assertSame(
                self::bruteForce('n0', ['n0'], $steps, $given),
                $out['found'] ? (float) $out['best']['total'] : null,
            );
        }
    }

    private static function bruteForce(string $at, array $been, array $steps, array $facts): ?float
    {
        if ($at === 'n1') {
            return 0.0;
        }
        $best = null;
        foreach ($steps as $s) {
            if (
                $s['from'] !== $at ||
                in_array($s['to'], $been, true) ||
                array_diff(array_column($s['requires'] ?? [], 'fact'), $facts) !== [] ||
                array_intersect(array_column($s['forbids'] ?? [], 'fact'), $facts) !== []
            ) {
                continue;
            }
            $rest = self::bruteForce($s['to'], [...$been, $s['to']], $steps, $facts);
            $best = $rest === null ? $best : ($best === null ? $s['cost'] + $rest : min($best, $s['cost'] + $rest));
        }

        return $best;
    }

    public function test_a_step_can_give_the_fact_another_one_needs_by_a_detour(): void
    {
        $steps = [
            self::step('direct', 'a', 'b', 1.0, [
                'requires' => [['fact' => 'harness', 'why' => 'The late plug needs its harness.']],
            ]),
            self::step('fit', 'a', 'a2', 2.0, ['gives' => ['harness']]),
            self::step('back', 'a2', 'a', 0.0),
            self::step('strip', 'a2', 'b', 9.0, ['takes' => ['harness']]),
        ];
        $out = $this->calc('interchange.path', [
            'nodes' => self::nodes(['a', 'a2', 'b']),
            'steps' => $steps,
            'from' => ['a'],
            'to' => ['b'],
        ]);
        $this->assertSame(['fit', 'back', 'direct'], $out['best']['steps']);
        $this->assertSame(3.0, (float) $out['best']['total']);
    }

    public function test_hours_weigh_at_the_rate_and_a_blocked_way_says_why(): void
    {
        $input = [
            'nodes' => self::nodes(['e', 'm', 'x']),
            'rate' => 100,
            'from' => ['e', 'x', 'm'],
            'to' => ['m'],
            'steps' => [
                self::step('valve body', 'e', 'm', 40, [
                    'hours' => 3.5,
                    'requires' => [['fact' => 'controller', 'why' => 'No controller, no shift.']],
                ]),
            ],
        ];
        $out = $this->calc('interchange.path', ['facts' => ['controller']] + $input);
        $this->assertSame([390.0, 3.5], [(float) $out['paths'][0]['total'], (float) $out['paths'][0]['hours']]);
        $this->assertSame([false, []], [$out['paths'][1]['found'], $out['paths'][1]['blockedBy']], 'no way at all');
        $this->assertSame([], $out['paths'][2]['steps'], 'fits as it is');
        $out = $this->calc('interchange.path', $input);
        $this->assertSame(
            [
                [
                    'step' => 'valve body',
                    'rule' => 'requires',
                    'fact' => 'controller',
                    'why' => 'No controller, no shift.',
                ],
            ],
            $out['paths'][0]['blockedBy'],
        );
    }

    public function test_bad_graphs_are_refused_at_their_place(): void
    {
        $good = [
            'nodes' => self::nodes(['a', 'b']),
            'steps' => [self::step('s', 'a', 'b', 1)],
            'from' => ['a'],
            'to' => ['b'],
        ];
        $this->assertRefused(
            'interchange.path',
            ['steps' => [self::step('s', 'a', 'z', 1)]] + $good,
            'unknown-node',
            '/steps/0/to',
        );
        $this->assertRefused(
            'interchange.path',
            ['steps' => [self::step('s', 'a', 'b', -1)]] + $good,
            'range',
            '/steps/0/cost',
        );
        $this->assertRefused(
            'interchange.path',
            ['steps' => [self::step('s', 'a', 'b', 1), self::step('s', 'b', 'a', 1)]] + $good,
            'duplicate',
            '/steps/1/id',
        );
        $this->assertRefused('interchange.path', ['from' => ['q']] + $good, 'unknown-node', '/from/0');
        $this->assertRefused('interchange.path', ['to' => []] + $good, 'too-few', '/to');
        $this->assertRefused(
            'interchange.path',
            ['nodes' => self::nodes(['a', 'b', 'a'])] + $good,
            'duplicate',
            '/nodes/2/id',
        );
    }

    public function test_supersession_chains_run_both_ways_and_cycles_are_named(): void
    {
        $link = fn (string $old, string $new, bool $both = false): array => [
            'old' => $old,
            'new' => $new,
            'bothWays' => $both,
        ];
        $out = $this->calc('interchange.supersession', [
            'part' => 'B',
            'links' => [$link('A', 'B'), $link('B', 'C'), $link('C', 'D', true), $link('X', 'Y')],
        ]);
        $this->assertSame(
            [['part' => 'C', 'way' => ['B', 'C']], ['part' => 'D', 'way' => ['B', 'C', 'D']]],
            $out['replacedBy'],
        );
        $this->assertSame([['part' => 'A', 'way' => ['A', 'B']]], $out['replaces']);
        $this->assertSame(['C', 'D'], $out['current']);
        $this->assertSame([], $out['cycles']);
        $this->assertSame(
            ['D'],
            $this->calc('interchange.supersession', [
                'part' => 'C',
                'links' => [$link('A', 'C'), $link('C', 'D', true)],
            ])['interchangeable'],
        );
        $loop = $this->calc('interchange.supersession', [
            'part' => 'A',
            'links' => [$link('A', 'B'), $link('B', 'C'), $link('C', 'A')],
        ]);
        $this->assertSame([['A', 'B', 'C', 'A']], $loop['cycles']);
        $this->assertSame([], $loop['current'], 'inside a cycle nothing is current');
        $this->assertRefused(
            'interchange.supersession',
            ['part' => 'A', 'links' => [$link('A', 'A')]],
            'self',
            '/links/0/new',
        );
    }

    public function test_a_long_chain_and_the_cycles_beside_it(): void
    {
        $links = [];
        for ($i = 0; $i < 2000; $i++) {
            $links[] = ['old' => "P$i", 'new' => 'P'.($i + 1), 'bothWays' => false];
        }
        $out = $this->calc('interchange.supersession', ['part' => 'P1000', 'links' => $links]);
        $this->assertCount(1000, $out['replacedBy']);
        $this->assertCount(1000, $out['replaces']);
        $this->assertSame(['P2000'], $out['current']);
        $this->assertSame([], $out['cycles']);

        // Two rings that share a part, one ring alone, and a chain from one into the other.
        foreach (['AB', 'BC', 'CA', 'AD', 'DA', 'CX', 'XY', 'YX'] as $pair) {
            $links[] = ['old' => $pair[0], 'new' => $pair[1], 'bothWays' => false];
        }
        $cycles = $this->calc('interchange.supersession', ['part' => 'P1000', 'links' => $links])['cycles'];
        $rings = [];
        foreach ($cycles as $cycle) {
            $this->assertSame($cycle[0], $cycle[count($cycle) - 1]);
            $ring = array_unique($cycle);
            sort($ring);
            $rings[] = implode('', $ring);
        }
        sort($rings);
        $this->assertSame(['ABC', 'AD', 'XY'], $rings);
    }

    public function test_a_tag_gives_every_candidate_and_a_year_digit_its_decades(): void
    {
        $example = json_decode(\Yard\Core\Calculator\Calculators::schema('tag.parse'), true)['example']['input'];
        $out = $this->calc('tag.parse', $example);
        $this->assertSame(
            ['K9B1234', [['RD4-M', [2009], true]]],
            [
                $out['text'],
                array_map(fn (array $c): array => [$c['variant'], $c['years'], $c['yearFits']], $out['candidates']),
            ],
        );
        // a swapped tag: the year digit falls outside the time of the variant, so every decade stays open
        $odd = $this->calc('tag.parse', ['text' => 'K9A1234'] + $example)['candidates'][0];
        $this->assertSame([false, [1959, 1969, 1979, 1989, 1999, 2009, 2019]], [$odd['yearFits'], $odd['years']]);
        $two = [
            'patterns' => [
                ['family' => 'P', 'pattern' => '^(?<letter>D)(?<year>[0-9])', 'letters' => ['D' => ['V1', 'V2']]],
                ['family' => 'Q', 'pattern' => '^D(?<year>[0-9]{2})(?<letter>7)', 'letters' => ['7' => ['V3']]],
            ],
            'variants' => [
                'V1' => ['fromYear' => 1998, 'toYear' => 2012],
                'V2' => ['fromYear' => 2001, 'toYear' => 2003],
                'V3' => ['fromYear' => 2010, 'toYear' => 2014],
            ],
        ];
        $out = $this->calc('tag.parse', ['text' => 'd127', 'thisYear' => 2026] + $two);
        $this->assertSame(
            [['V1', [2001, 2011]], ['V2', [2001]], ['V3', [2012]]],
            array_map(fn (array $c): array => [$c['variant'], $c['years']], $out['candidates']),
        );
        $this->assertSame([], $this->calc('tag.parse', ['text' => '???', 'thisYear' => 2026] + $two)['candidates']);
        $this->assertRefused('tag.parse', ['text' => '', 'thisYear' => 2026] + $two, 'length', '/text');
        $two['patterns'][0]['pattern'] = '(';
        $this->assertRefused(
            'tag.parse',
            ['text' => 'D1', 'thisYear' => 2026] + $two,
            'pattern',
            '/patterns/0/pattern',
        );
    }

    public function test_grades_follow_the_rules_of_the_house_in_their_order(): void
    {
        $pack = json_decode((string) file_get_contents(dirname(__DIR__, 2).'/database/demo/catalog.json'));
        $rules = array_column($pack->vocabularies, 'body', 'code')['core-grading']->rules;
        $facts = [
            'caseBroken' => false,
            'wrongUnit' => false,
            'failedHard' => 0,
            'missing' => 0,
            'missingValue' => 0.0,
            'repairHours' => 0.0,
            'creditAtMostScrap' => false,
        ];
        // handbook section 2: A complete; B one major hard part lost; C incomplete or several lost; D donor; X refused
        foreach (
            [
                ['A', []],
                ['B', ['failedHard' => 1]],
                ['C', ['failedHard' => 2]],
                ['D', ['failedHard' => 4]],
                ['X', ['caseBroken' => true, 'failedHard' => 9]],
                ['X', ['wrongUnit' => true]],
                ['C', ['missing' => 5, 'missingValue' => 90.0]],
                ['C', ['missing' => 1, 'missingValue' => 150.0]],
                ['B', ['missing' => 1, 'missingValue' => 20.0]],
            ] as [$grade, $change]
        ) {
            $this->assertSame(
                $grade,
                $this->calc('receive.grade', ['rules' => $rules, 'facts' => $change + $facts])['grade'],
                json_encode($change),
            );
        }
        $this->assertSame(
            'Missing small parts come to 170.50.',
            $this->calc('receive.grade', [
                'rules' => $rules,
                'facts' => ['missing' => 2, 'missingValue' => 170.5] + $facts,
            ])['reason'],
        );
        $this->assertRefused(
            'receive.grade',
            ['rules' => [['grade' => 'A', 'when' => ['colour' => true], 'reason' => '']], 'facts' => $facts],
            'unknown-fact',
            '/rules/0/when/colour',
        );
        $this->assertRefused(
            'receive.grade',
            ['rules' => [['grade' => 'D', 'when' => ['failedHardAtLeast' => 3], 'reason' => '']], 'facts' => $facts],
            'no-rule',
            '/rules',
        );
    }

    public function test_reliability_is_learned_from_confirmed_cases(): void
    {
        $case = fn (float $p): array => ['expected' => $p, 'values' => 4];
        // closed form: with certain expectations a reading right counts q = r/(r + (1-r)/4), a wrong one 0
        $cases = [...array_fill(0, 18, $case(1.0)), ...array_fill(0, 2, $case(0.0))];
        $r = $this->calc('evidence.reliability', [
            'prior' => ['reliability' => 0.9, 'weight' => 0],
            'cases' => $cases,
        ])['reliability'];
        // fixed point of n r = 18 r/(r + (1-r)/4): r = (18/20 - 1/4)/(3/4)
        $this->assertEqualsWithDelta((0.9 - 0.25) / 0.75, $r, 1e-9);
        $this->assertRelative(
            0.98,
            $this->calc('evidence.reliability', ['prior' => ['reliability' => 0.98, 'weight' => 20], 'cases' => []])[
                'reliability'
            ],
            1e-12,
        );
        $few = $this->calc('evidence.reliability', [
            'prior' => ['reliability' => 0.98, 'weight' => 200],
            'cases' => $cases,
        ])['reliability'];
        $this->assertTrue($few > $r && $few < 0.98, 'a heavy prior moves little');
        $this->assertRefused(
            'evidence.reliability',
            ['prior' => ['reliability' => 0.98, 'weight' => 0], 'cases' => []],
            'too-few',
            '/cases',
        );
    }
}
