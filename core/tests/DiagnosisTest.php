<?php

declare(strict_types=1);

namespace Yard\Core\Tests;

use Yard\Core\Faults\LearnedWeights;

final class DiagnosisTest extends CoreTestCase
{
    /** @return array<string, mixed> */
    private static function example(): array
    {
        $schema = json_decode((string) file_get_contents(dirname(__DIR__).'/schema/diagnose.gears.json'), true);

        return $schema['example']['input'];
    }

    /** @return array<string, mixed> two simple sets with one sun, after H. W. Simpson's arrangement */
    private static function simpson(): array
    {
        $set = fn (string $id, string $ring, string $carrier): array => [
            'id' => $id,
            'kind' => 'simple',
            'sun' => 's',
            'ring' => $ring,
            'carrier' => $carrier,
            'sunTeeth' => 32,
            'ringTeeth' => 68,
            'planetTeeth' => 18,
            'planets' => 4,
        ];

        return [
            'input' => 'in',
            'output' => 'out',
            'sets' => [$set('P1', 'r1', 'out'), $set('P2', 'out', 'c2')],
            'elements' => [
                ['id' => 'C1', 'kind' => 'clutch', 'a' => 'in', 'b' => 'r1'],
                ['id' => 'C2', 'kind' => 'clutch', 'a' => 'in', 'b' => 's'],
                ['id' => 'B1', 'kind' => 'brake', 'a' => 's', 'b' => 'case'],
                ['id' => 'B2', 'kind' => 'brake', 'a' => 'c2', 'b' => 'case'],
                ['id' => 'F1', 'kind' => 'one-way', 'a' => 'c2', 'b' => 'case', 'locks' => 'negative'],
            ],
            'gears' => [
                ['name' => '1', 'applied' => ['C1', 'F1']],
                ['name' => '2', 'applied' => ['C1', 'B1']],
                ['name' => '3', 'applied' => ['C1', 'C2']],
                ['name' => 'R', 'applied' => ['C2', 'B2']],
                ['name' => 'N', 'applied' => []],
            ],
        ];
    }

    private function suspects(array $observed, array $more = []): array
    {
        return $this->calc('diagnose.gears', ['observed' => $observed] + $more + self::example())['suspects'];
    }

    /** @return array<string, array<string, mixed>> element => the suspicion that it is weak */
    private static function weak(array $suspects): array
    {
        return array_column(array_filter($suspects, fn (array $s): bool => $s['fault'] === 'weak'), null, 'element');
    }

    /** @return array{string, string} */
    private static function first(array $suspects): array
    {
        return [$suspects[0]['element'], $suspects[0]['fault']];
    }

    public function test_third_and_fourth_gone_points_at_the_clutch_only_they_use(): void
    {
        // Common practice, no source: the element common to the failed gears and absent from the good ones.
        $suspects = $this->suspects(['1' => 'ok', '2' => 'ok', '3' => 'slips', '4' => 'slips']);
        $this->assertSame('C3', $suspects[0]['element']);
        $this->assertGreaterThan(0.7, $suspects[0]['posterior']);
        $this->assertStringContainsString('every failed gear (3, 4)', $suspects[0]['because']);
    }

    public function test_a_good_gear_that_loads_the_element_less_does_not_clear_it(): void
    {
        // C3 carries the whole input in 4th but only 0.59 of it in 3rd: good 3rd leaves it suspect, good 2nd clears B2.
        $suspects = self::weak($this->suspects(['1' => 'ok', '2' => 'ok', '3' => 'ok', '4' => 'slips', 'R' => 'ok']));
        $this->assertArrayNotHasKey('clearedBy', $suspects['C3']);
        $this->assertSame(['2'], $suspects['B2']['clearedBy']);
        $this->assertGreaterThan($suspects['B2']['posterior'], $suspects['C3']['posterior']);
    }

    public function test_all_gears_bad_points_away_from_single_elements(): void
    {
        $suspects = $this->suspects(['1' => 'slips', '2' => 'slips', '3' => 'slips', '4' => 'slips', 'R' => 'slips']);
        $this->assertSame('line-pressure', $suspects[0]['element']);
    }

    public function test_shift_flare_and_circuit_pressure_count(): void
    {
        $this->assertSame('C3', $this->suspects(['2-3' => 'flare', '1' => 'ok', '2' => 'ok'])[0]['element']);
        $with = self::weak($this->suspects(['4' => 'slips'], ['pressures' => ['B2' => 'low']]));
        $without = self::weak($this->suspects(['4' => 'slips']));
        $this->assertGreaterThan($without['B2']['posterior'], $with['B2']['posterior']);
    }

    public function test_bad_symptoms(): void
    {
        $example = self::example();
        $this->assertRefused(
            'diagnose.gears',
            ['observed' => ['9' => 'ok']] + $example,
            'unknown-gear',
            '/observed/9',
        );
        $this->assertRefused('diagnose.gears', ['observed' => ['1' => 'meh']] + $example, 'choice', '/observed/1');
        $this->assertRefused('diagnose.gears', ['weak' => ['Z' => 2]] + $example, 'unknown-element', '/weak/Z');
    }

    public function test_the_classic_faults_of_a_simpson_train(): void
    {
        // Common practice, no source: each of these is told by how the gears are lost, not by how many.
        $cases = [
            'second brake dead: second is first again' => [
                ['1' => 'ok', '2' => 'wrong-ratio', '3' => 'ok', 'R' => 'ok'],
                ['B1', 'stuck-off'],
            ],
            'second brake slips' => [['1' => 'ok', '2' => 'slips', '3' => 'ok', 'R' => 'ok'], ['B1', 'weak']],
            'no first, no more: the one-way lets go' => [
                ['1' => 'neutral', '2' => 'ok', '3' => 'ok', 'R' => 'ok'],
                ['F1', 'free'],
            ],
            'one-way turned round: no first, the rest ties up' => [
                ['1' => 'neutral', '2' => 'locks', '3' => 'locks', 'R' => 'ok'],
                ['F1', 'reversed'],
            ],
            'forward clutch fused: creeps in neutral, ties up in reverse' => [
                ['1' => 'ok', '2' => 'ok', '3' => 'ok', 'R' => 'locks', 'N' => 'wrong-ratio'],
                ['C1', 'stuck-on'],
            ],
            'third and reverse gone' => [['1' => 'ok', '2' => 'ok', '3' => 'slips', 'R' => 'slips'], ['C2', 'weak']],
            'one-way locked: second and third tie up, reverse is good' => [
                ['1' => 'ok', '2' => 'locks', '3' => 'locks', 'R' => 'ok'],
                ['F1', 'locked'],
            ],
            'nothing wrong' => [['1' => 'ok', '2' => 'ok', '3' => 'ok', 'R' => 'ok'], ['sound', 'none']],
        ];
        foreach ($cases as $what => [$observed, $first]) {
            $out = $this->calc('diagnose.gears', compact('observed') + self::simpson());
            $suspects = $out['suspects'];
            // The low brake stuck on does what the locked one-way does: they share their class, not their first place.
            $same = array_filter($suspects, fn (array $s): bool => $s['class'] === $suspects[0]['class']);
            $named = array_map(fn (array $s): array => [$s['element'], $s['fault']], $same);
            $this->assertContains($first, $named, $what.json_encode(array_slice($suspects, 0, 3)));
        }
    }

    public function test_what_the_whole_unit_does(): void
    {
        $all = fn (string $state): array => array_fill_keys(['1', '2', '3', '4', 'R'], $state);
        $normal = ['pressures' => ['line' => 'normal']];
        $this->assertSame(['converter', 'no-drive'], self::first($this->suspects($all('neutral'), $normal)));
        $low = ['pressures' => ['line' => 'low']];
        $this->assertSame(['pump', 'worn'], self::first($this->suspects($all('neutral'), $low)));
        $this->assertSame(['line-pressure', 'wrong'], self::first($this->suspects($all('slips'), $low)));
        foreach (['shudder', 'hunts', 'none'] as $state) {
            $suspects = $this->suspects($all('ok'), ['lockup' => $state]);
            $this->assertSame(['converter', 'lock-up'], self::first($suspects), $state);
        }
        $this->assertSame(
            $this->suspects($all('ok'), ['lockup' => 'hunts']),
            $this->suspects($all('ok') + ['lockup' => 'hunts']),
        );
        $this->assertSame(
            'control',
            $this->suspects(['1' => 'ok', '2' => 'ok', 'lockup' => 'stays-on'])[0]['element'],
        );
    }

    /**
     * Posteriors by Bayes' rule from the table told, the gears as fault.simulate solves them and the torque shares of
     * geartrain.solve; an unreliable observation mixes with an even one.
     */
    public function test_posteriors_follow_from_the_simulated_gears_and_the_torque_shares(): void
    {
        $states = ['ok', 'slips', 'missing', 'locks', 'neutral', 'harsh', 'delayed', 'wrong-ratio'];
        mt_srand(5);
        foreach ([self::example(), self::simpson()] as $train) {
            for ($case = 0; $case < 12; $case++) {
                $observed = [];
                foreach ($train['gears'] as $gear) {
                    mt_rand(0, 3) > 0 && ($observed[$gear['name']] = $states[mt_rand(0, 7)]);
                }
                $out = $this->calc('diagnose.gears', compact('observed') + $train);
                $weights = [];
                foreach ($out['suspects'] as $n => $suspect) {
                    $weights[$n] = $this->weight($suspect, $observed, $train, $out['table']);
                }
                foreach ($out['suspects'] as $n => $suspect) {
                    $this->assertEqualsWithDelta(
                        $weights[$n] / array_sum($weights),
                        $suspect['posterior'],
                        1e-9,
                        (string) json_encode([$suspect, $observed]),
                    );
                }
                $this->assertEqualsWithDelta(1.0, array_sum(array_column($out['suspects'], 'posterior')), 1e-9);
            }
        }
    }

    /** Prior times the likelihood of every gear seen. */
    private function weight(array $suspect, array $observed, array $train, array $table): float
    {
        [$element, $fault] = [$suspect['element'], $suspect['fault']];
        $kinds = array_column($train['elements'], 'kind', 'id');
        $ofConverter = ['no-drive' => 'converter', 'stays-locked' => 'lock-up-on', 'sheared-hub' => 'hub'];
        $ofUnit = $element === 'converter' ? $ofConverter[$fault] ?? $fault : $element;
        $prior = isset($kinds[$element])
            ? ($fault === 'weak' && $kinds[$element] === 'one-way' ? 'weak one-way' : $fault)
            : $ofUnit;
        $weight = $table['prior'][$prior];
        foreach ($observed as $gear => $state) {
            $row = isset($kinds[$element])
                ? ($fault === 'weak'
                    ? $this->weakRow($element, (string) $gear, $observed, $train)
                    : $this->faultRow($element, $fault, (string) $gear, $train))
                : $ofUnit;
            $r = $table['reliability']['gear'];
            $weight *= $r * ($table['gear'][$row] ?? $table['gear']['idle'])[$state] + (1 - $r) / 8;
        }

        return $weight;
    }

    private function faultRow(string $element, string $state, string $gear, array $train): string
    {
        $out = $this->calc('fault.simulate', ['faults' => [compact('element', 'state')]] + $train);
        $now = array_column($out['gears'], null, 'name')[$gear];

        return match (true) {
            ! $now['changed'] => 'idle',
            $now['state'] === 'driven' => 'wrong-ratio',
            default => $now['state'] === 'neutral' ? 'neutral' : 'locks',
        };
    }

    private function weakRow(string $element, string $gear, array $observed, array $train): string
    {
        $torque = [];
        foreach ($this->calc('geartrain.solve', $train)['gears'] as $solved) {
            foreach (array_column($train['gears'], 'applied', 'name')[$solved['name']] as $applied) {
                $torque[$solved['name']][$applied] = abs($solved['elementTorque'][$applied] ?? -1.0);
                isset($solved['elementTorque'][$applied]) || ($torque[$solved['name']][$applied] = null);
            }
        }
        if (! array_key_exists($element, $torque[$gear] ?? [])) {
            return 'idle';
        }
        $kind = array_column($train['elements'], 'kind', 'id')[$element];
        $alone = $this->faultRow($element, $kind === 'one-way' ? 'free' : 'stuck-off', $gear, $train) !== 'idle';
        if (! ($torque[$gear][$element] === null ? $alone : $torque[$gear][$element] > 1e-9)) {
            return 'idle';
        }
        $worst = -1.0;
        foreach ($observed as $other => $state) {
            $state === 'ok' || ($worst = max($worst, $torque[$other][$element] ?? -1.0));
        }
        $lighter = $worst > ($torque[$gear][$element] ?? -1.0) + 1e-9;

        return $observed[$gear] === 'ok' && $lighter ? 'carriesLess' : 'carries';
    }

    public function test_shifts_into_a_gear_that_ties_up_or_never_comes(): void
    {
        // The low brake stuck on: first is good, the shift to second ties up.
        $out = $this->calc('diagnose.gears', ['observed' => ['1' => 'ok', '1-2' => 'tie-up']] + self::simpson());
        $this->assertContains([$out['suspects'][0]['element'], $out['suspects'][0]['fault']], [
            ['B2', 'stuck-on'],
            ['C2', 'stuck-on'],
            ['F1', 'locked'],
        ]);
        // The shift that changes nothing.
        $late = ['1' => 'ok', '1-2' => 'delayed', '2' => 'wrong-ratio', '2-3' => 'ok', '3' => 'ok'];
        $out = $this->calc('diagnose.gears', ['observed' => $late] + self::simpson());
        $this->assertSame(['B1', 'stuck-off'], self::first($out['suspects']));
        $this->assertStringContainsString('gear 2 drives as 1 does', $out['suspects'][0]['because']);
    }

    public function test_pairs_are_weighed_when_asked_and_what_predicts_the_same_shares_a_class(): void
    {
        // Second is the brake's alone, reverse the low brake's: no single weak element explains both.
        $observed = ['1' => 'ok', '2' => 'slips', '3' => 'ok', 'R' => 'slips'];
        $single = $this->calc('diagnose.gears', compact('observed') + self::simpson())['suspects'];
        $this->assertArrayNotHasKey('elements', array_merge(...$single));
        $pairs = $this->calc('diagnose.gears', compact('observed') + ['pairs' => true] + self::simpson())['suspects'];
        $this->assertCount(count($single) + 10, $pairs);
        $best = array_values(array_filter($pairs, fn (array $s): bool => isset($s['elements'])))[0];
        $this->assertSame(['B1', 'B2'], $best['elements']);
        $this->assertSame('weak', $best['fault']);
        $this->assertStringContainsString('B1 works in', $best['because']);
        $this->assertStringContainsString('B2 works in', $best['because']);
        $this->assertSame($best, $pairs[0]);

        // Only third seen: both clutches are in it and nothing tells them apart; the brakes are not.
        $third = $this->calc('diagnose.gears', ['observed' => ['3' => 'slips']] + self::simpson());
        $weak = self::weak($third['suspects']);
        $this->assertSame($weak['C1']['class'], $weak['C2']['class']);
        $this->assertSame($weak['B1']['class'], $weak['B2']['class']);
        $this->assertNotSame($weak['C1']['class'], $weak['B1']['class']);
    }

    public function test_a_known_weak_point_weighs_more_and_the_table_is_whole(): void
    {
        $observed = ['3' => 'slips'];
        $weak = self::weak($this->suspects($observed, ['weak' => ['C3' => 3.0]]));
        $plain = self::weak($this->suspects($observed));
        $this->assertEqualsWithDelta(
            3.0 * $plain['C3']['posterior'] / $plain['C1']['posterior'],
            $weak['C3']['posterior'] / $weak['C1']['posterior'],
            1e-9,
        );
        $table = $this->calc('diagnose.gears', self::example())['table'];
        $this->assertStringContainsString('common practice', $table['source']);
        $states = ['gear' => 8, 'shift' => 5, 'pressure' => 3, 'lockup' => 5, 'launch' => 2, 'idle' => 2, 'road' => 3];
        foreach ($states + ['pan' => 4, 'air' => 2, 'finding' => 5] as $kind => $states) {
            foreach ($table[$kind] as $row => $shares) {
                $this->assertCount($states, $shares, "$kind $row");
                $this->assertEqualsWithDelta(1.0, array_sum($shares), 1e-9, "$kind $row");
                $this->assertGreaterThan(0.0, min($shares), 'nothing is impossible');
            }
        }
    }

    /** Each fault that changes a gear, told by exactly what it does, in all five families of the demo. */
    public function test_every_fault_of_every_family_is_found_by_what_it_does(): void
    {
        $pack = json_decode((string) file_get_contents(dirname(__DIR__, 2).'/database/demo/catalog.json'), true);
        $tried = 0;
        foreach ($pack['families'] as $family) {
            $train = array_intersect_key($family['train'], self::example());
            foreach ($train['elements'] as $element) {
                $faults = $element['kind'] === 'one-way'
                    ? ['free', 'locked', ...(isset($element['locks']) ? ['reversed'] : [])]
                    : ['stuck-on', 'stuck-off'];
                foreach ($faults as $fault) {
                    $observed = $this->symptomsOf($train, $element['id'], $fault);
                    if (! in_array(true, array_map(fn (string $o): bool => $o !== 'ok', $observed), true)) {
                        continue;
                    }
                    $tried++;
                    $suspects = $this->calc('diagnose.gears', compact('observed') + $train)['suspects'];
                    $first = array_filter($suspects, fn (array $s): bool => $s['class'] === $suspects[0]['class']);
                    $this->assertContains(
                        [$element['id'], $fault],
                        array_map(fn (array $s): array => [$s['element'], $s['fault']], $first),
                        "{$family['code']}: ".json_encode([$observed, array_slice($suspects, 0, 3)]),
                    );
                }
            }
        }
        $this->assertGreaterThan(60, $tried);
    }

    /** @return array<string, string> gear => what is felt of the fault there */
    private function symptomsOf(array $train, string $element, string $state): array
    {
        $out = $this->calc('fault.simulate', ['faults' => [compact('element', 'state')]] + $train);
        $felt = ['driven' => 'wrong-ratio', 'neutral' => 'neutral', 'locked' => 'locks', 'held' => 'locks'];

        return array_combine(
            array_column($out['gears'], 'name'),
            array_map(fn (array $g): string => $g['changed'] ? $felt[$g['state']] : 'ok', $out['gears']),
        );
    }

    public function test_symptoms_that_are_no_symptoms(): void
    {
        $train = self::simpson();
        $this->assertRefused('diagnose.gears', ['observed' => [], 'lockup' => 'meh'] + $train, 'choice', '/lockup');
        $this->assertRefused(
            'diagnose.gears',
            ['observed' => ['1-2' => 'slips']] + $train,
            'choice',
            '/observed/1-2',
        );
        $this->assertRefused(
            'diagnose.gears',
            ['observed' => [], 'pressures' => ['C1' => 'odd']] + $train,
            'choice',
            '/pressures/C1',
        );
        $twice = $train;
        $twice['gears'][1]['name'] = '1';
        $this->assertRefused('diagnose.gears', ['observed' => []] + $twice, 'duplicate', '/gears/1/name');
    }

    public function test_the_next_look_is_the_one_that_tells_most_for_what_it_costs(): void
    {
        $ask = fn (array $observed, array $more = []): array => $this->calc(
            'diagnose.gears',
            ['observed' => $observed, 'looks' => 50] + $more + self::simpson(),
        );
        // No second: the brake only second uses, or the clutch all forward gears use. Third tells them apart.
        $out = $ask(['2' => 'missing']);
        $gains = [];
        foreach ($out['next'] as $look) {
            $gains["{$look['kind']} {$look['what']}"] = $look['gainPerEffort'];
        }
        $this->assertArrayNotHasKey('gear 2', $gains, 'what was driven is not driven again');
        $this->assertArrayHasKey('pressure B1', $gains);
        $this->assertArrayNotHasKey('pressure F1', $gains, 'a one-way has no circuit');
        $sorted = $gains;
        arsort($sorted);
        $this->assertSame(array_values($sorted), array_values($gains));
        $states = ['ok', 'slips', 'missing', 'locks', 'neutral', 'harsh', 'delayed', 'wrong-ratio'];
        $this->assertGreaterThan(0.0, $gains['gear 3']);
        $this->assertLessThan($out['entropyBits'], $gains['gear 3']);
        $after = array_map(fn (string $s): float => $ask(['2' => 'missing', '3' => $s])['entropyBits'], $states);
        $this->assertGreaterThan(min($after), $out['entropyBits'], 'some answer leaves less doubt');
        $unasked = $this->calc('diagnose.gears', ['observed' => ['2' => 'ok']] + self::simpson());
        $this->assertArrayNotHasKey('next', $unasked);
    }

    public function test_the_snow_rocking_pattern_is_two_packs(): void
    {
        // Rocked out of snow between reverse and first: no reverse, no first, second slips (state edition: trade
        // pattern, common practice, no source). In the Simpson train C1 and C2 carry what those have in common.
        $out = $this->calc('diagnose.gears', [
            'observed' => ['R' => 'missing', '1' => 'missing', '2' => 'slips'],
            'pairs' => true,
        ] + self::simpson());
        $pairs = array_values(array_filter($out['suspects'], fn (array $s): bool => isset($s['elements'])));
        $this->assertContains('C1', $pairs[0]['elements'], 'first and second share the forward clutch');
        $this->assertNotContains('F1', $pairs[0]['elements'], 'second does not use the one-way');
    }

    /** What one would see where nobody looked: nothing that was seen, nothing that is well, the surest first. */
    public function test_suspects_foretell_what_was_not_looked_at(): void
    {
        $bad = ['1' => 'ok', '2' => 'ok', '3' => 'slips', '4' => 'slips', 'R' => 'ok'];
        $asked = ['observed' => $bad, 'pan' => 'lining'] + self::example();
        $out = $this->calc('diagnose.gears', ['looks' => 1] + $asked);
        $c3 = $out['suspects'][0];
        $this->assertSame(['C3', 'weak'], [$c3['element'], $c3['fault']]);
        $told = array_map(fn (array $f): string => "$f[kind] $f[what] $f[state]", $c3['foretells']);
        $this->assertContains('finding C3 burnt', $told);
        $this->assertContains('shift 2-3 flare', $told);
        $this->assertNotContains('pan pan lining', $told, 'it was looked at');
        $likely = array_column($c3['foretells'], 'likely');
        $sorted = $likely;
        rsort($sorted);
        $this->assertSame($sorted, $likely);
        $plain = $this->calc('diagnose.gears', $asked);
        $this->assertArrayNotHasKey('foretells', $plain['suspects'][0]);
    }

    /** What is felt at the converter, in the pan, by air and on the parts: each names what it is known for. */
    public function test_looks_beside_the_gears(): void
    {
        $ok = array_fill_keys(['1', '2', '3', '4', 'R'], 'ok');
        $first = fn (array $observed, array $looked): array => self::first($this->suspects($observed, $looked));
        $this->assertSame(['converter', 'stator-free'], $first($ok, ['launch' => 'weak', 'road' => 'ok']));
        $slow = array_column($this->suspects($ok, ['launch' => 'ok', 'road' => 'slow']), 'posterior', 'fault');
        $before = array_column($this->suspects($ok, []), 'posterior', 'fault');
        $this->assertGreaterThan(3.0 * $before['stator-locked'], $slow['stator-locked']);
        $this->assertGreaterThan($slow['stator-locked'], $slow['outside'], 'the engine comes first');
        $stays = ['idle' => 'stalls', 'lockup' => 'stays-on'];
        $this->assertSame(['converter', 'stays-locked'], $first($ok, $stays));
        $gone = array_fill_keys(['1', '2', '3', '4', 'R'], 'neutral');
        $none = $this->suspects($gone, ['pressures' => ['line' => 'low', 'C1' => 'low'], 'pan' => 'clean']);
        $this->assertContains('sheared-hub', array_column(array_slice($none, 0, 3), 'fault'));

        $pump = fn (string $noise): float => array_column(
            $this->suspects($gone, ['noise' => $noise]),
            'posterior',
            'element',
        )['pump'];
        $this->assertGreaterThan(2.0 * $pump('quiet'), $pump('whine'), 'it whines with the engine in every range');
        $this->assertGreaterThan($pump('growl'), $pump('whine'));

        // Third and fourth gone: C3 by the chart. Its parts sound take it away from there, burnt make it sure.
        $bad = ['1' => 'ok', '2' => 'ok', '3' => 'slips', '4' => 'slips', 'R' => 'ok'];
        $share = fn (array $looked): float => self::weak($this->suspects($bad, $looked))['C3']['posterior'];
        $this->assertGreaterThan($share([]), $share(['findings' => ['C3' => 'burnt']]));
        $this->assertLessThan($share([]), $share(['findings' => ['C3' => 'sound']]));
        $this->assertGreaterThan($share([]), $share(['air' => ['C3' => 'leaks']]));
        $this->assertGreaterThan($share(['pan' => 'metal']), $share(['pan' => 'lining']));
        $said = $this->suspects($bad, ['air' => ['C3' => 'leaks'], 'findings' => ['C3' => 'burnt']])[0]['because'];
        $this->assertStringEndsWith('C3 leaks air. Its parts were found burnt.', $said);

        $out = $this->calc('diagnose.gears', ['observed' => $bad, 'looks' => 50] + self::example());
        $kinds = array_column($out['next'], 'kind');
        foreach (['launch', 'idle', 'road', 'pan', 'air', 'finding'] as $kind) {
            $this->assertContains($kind, $kinds);
        }
        $this->assertRefused(
            'diagnose.gears',
            ['observed' => $bad, 'findings' => ['C9' => 'burnt']] + self::example(),
            'unknown-element',
            '/findings/C9',
        );
    }

    /** Ten of ten confirmed, worth as much as ten shipped cases: half the shares go to it. */
    public function test_counts_move_the_weights_and_nothing_else(): void
    {
        $shipped = ['C1' => 1.0, 'C2' => 1.0, 'C3' => 2.0];
        $this->assertSame($shipped, LearnedWeights::of($shipped, [], 10.0));
        $learned = LearnedWeights::of($shipped, ['C1' => 10], 10.0);
        $this->assertRelative(4.0 * (2.5 + 10.0) / 20.0, $learned['C1']);
        $this->assertRelative(4.0 * 5.0 / 20.0, $learned['C3']);
        $this->assertRelative(array_sum($shipped), array_sum($learned));
        $many = LearnedWeights::of($shipped, ['C1' => 0, 'C2' => 30000, 'C3' => 10000, 'X' => 5], 10.0);
        $this->assertEqualsWithDelta(3.0, $many['C2'], 0.01, 'in the long run the counts alone');
    }
}
