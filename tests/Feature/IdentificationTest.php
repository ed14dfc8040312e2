<?php

namespace Tests\Feature;

use Tests\TestCase;

final class IdentificationTest extends TestCase
{
    public function test_answers_move_the_posterior_and_the_next_question(): void
    {
        $this->receive()->assertCreated();
        $before = $this->onCard('identification');
        // Priors 30/50/40 of the pack.
        $this->assertEqualsWithDelta(
            50 / 120,
            array_column($before['ranking'], 'posterior', 'variant')['RD4-M'],
            1e-9,
        );
        $this->assertSame(1, (int) $before['questions'][0]['effort'], 'free clues come first');
        $after = $this->write('/units/C-9001/identification/clues', [
            'feature' => 'connector-colour',
            'value' => 'blue',
        ])->json('identification');
        $this->assertSame('RD4-L', $after['ranking'][0]['variant']);
        $this->assertLessThan($before['entropyBits'], $after['entropyBits']);
        $this->write('/units/C-9001/identification/clues', [
            'feature' => 'connector-cavities',
            'value' => 'cannot see',
        ])->assertOk();
        $this->assertEqualsWithDelta(
            $after['entropyBits'],
            $this->onCard('identification.entropyBits'),
            1e-12,
            '"cannot see" says nothing about the unit',
        );
        $back = $this->write('/units/C-9001/identification/clues', [
            'feature' => 'connector-colour',
            'value' => null,
        ])->json('identification');
        $this->assertEqualsWithDelta($before['entropyBits'], $back['entropyBits'], 1e-12);
    }

    public function test_readings_are_checked(): void
    {
        $this->receive()->assertCreated();
        $this->write('/units/C-9001/identification/clues', [
            'feature' => 'front-seal-mm',
            'value' => '2.6 in',
        ])->assertOk();
        $this->assertSame(
            '66.04',
            collect($this->onCard('identification.questions'))->firstWhere(
                'feature',
                'front-seal-mm',
            )['answer'],
        );
        $this->assertProblem(
            $this->write('/units/C-9001/identification/clues', ['feature' => 'front-seal-mm', 'value' => '620 mm']),
            422,
            'cannot be right',
            '/value',
        );
        $this->assertProblem(
            $this->write('/units/C-9001/identification/clues', ['feature' => 'front-seal-mm', 'value' => '62 psi']),
            422,
            'pressure',
            '/value',
        );
        $this->assertProblem(
            $this->write('/units/C-9001/identification/clues', ['feature' => 'connector-colour', 'value' => 'pink']),
            422,
            'choose one of',
            '/value',
        );
        $this->assertProblem(
            $this->write('/units/C-9001/identification/clues', ['feature' => 'nope', 'value' => 'x']),
            422,
            'no clue',
            '/feature',
        );
    }

    public function test_confirming_keeps_who_when_and_the_posterior_and_revises_the_credit(): void
    {
        $this->receive()->assertCreated();
        foreach (
            ['connector-colour' => 'black', 'connector-cavities' => '16', 'tag-letter' => 'C'] as $feature => $value
        ) {
            $card = $this->write('/units/C-9001/identification/clues', ['feature' => $feature, 'value' => $value]);
        }
        $this->assertTrue($card->json('identification.mixed'), 'the tag of another variant contradicts the leader');
        $this->assertProblem(
            $this->write('/units/C-9001/identification', ['variant' => 'RD4-E']),
            422,
            'speak against',
            '/note',
        );
        $card = $this->write('/units/C-9001/identification', [
            'variant' => 'RD4-M',
            'foreignParts' => ['tag of RD4-L'],
        ])->assertOk();
        $this->assertSame('ordering', $card->json('station'));
        $this->assertSame('tag of RD4-L', $card->json('identification.decisions.0.foreignParts.0.part'));
        $this->assertSame('Joss Tarn', $card->json('identification.decisions.0.by'));
        $this->assertGreaterThan(0.9, $card->json('identification.decisions.0.posterior'));
        $this->assertEquals(450 - 28.5 - 150, $card->json('credit'), 'core charge of the confirmed variant');
        $this->assertProblem($this->write('/units/C-9001/identification', ['variant' => 'RD4-M']), 409, 'ordering');
    }

    public function test_unknown_is_a_hold_not_a_guess(): void
    {
        $this->receive()->assertCreated();
        $card = $this->write('/units/C-9001/identification', ['note' => 'tag gone, case burnt'])->assertOk();
        $this->assertSame('identification', $card->json('station'));
        $this->assertSame('unknown-variant', $card->json('holds.0.kind'));
    }

    public function test_looks_that_cost_nothing_come_before_what_must_be_measured_or_opened(): void
    {
        $this->bringTo('identification');
        $questions = $this->onCard('identification.questions');
        $free = array_map(
            fn (array $q) => $q['effort'] <= 1,
            array_filter($questions, fn (array $q) => $q['gainBits'] > 0.01),
        );
        $this->assertSame(
            $free,
            array_values(array_merge(array_filter($free), array_filter($free, fn (bool $f) => ! $f))),
        );
        $measured = array_values(array_filter($questions, fn (array $q) => $q['effort'] > 1));
        $per = array_column($measured, 'gainPerEffort');
        $sorted = $per;
        rsort($sorted);
        $this->assertSame($sorted, $per, 'then by information for effort');
    }

    public function test_a_lying_core_is_called_mixed_and_the_foreign_part_is_named_with_where_it_comes_from(): void
    {
        $this->receive('C-9001', ['family' => 'TX6', 'missing' => [], 'grade' => null])->assertCreated();
        // an early unit (roller clutch type) that carries the digital lever sensor of a later one
        foreach (
            [
                'cover' => '11 bolts',
                'tag-letter' => 'W',
                'dipstick' => 'tube',
                'final-drive' => '17.2',
                'sensor' => 'digital',
            ] as $feature => $value
        ) {
            $card = $this->write('/units/C-9001/identification/clues', [
                'feature' => $feature,
                'value' => $value,
            ])->assertOk();
        }
        $this->assertTrue($card->json('identification.mixed'));
        $this->assertSame('TX6-F1', $card->json('identification.ranking.0.variant'));
        $alien = $card->json('identification.aliens.0');
        $this->assertSame(
            ['sensor', 'lever sensor', 'digital', ['TX6-F2', 'TX6-H', 'TX6-HX']],
            [$alien['feature'], $alien['part'], $alien['seen'], $alien['from']],
        );
        $this->assertStringContainsString('ordered as a pair', $alien['ordering']);
        $card = $this->write('/units/C-9001/identification', [
            'variant' => 'TX6-F1',
            'foreignParts' => ['sensor', 'repainted pan'],
        ])->assertOk();
        $this->assertSame(
            ['lever sensor', 'repainted pan'],
            array_column($card->json('identification.decisions.0.foreignParts'), 'part'),
        );
        $this->assertSame(
            'lever sensor',
            $this->as('manager')->onCard('ordering.foreignParts.0.part'),
            'the order desk sees it',
        );
    }

    public function test_confirmed_cores_move_the_priors_and_the_reliabilities_and_can_be_switched_off(): void
    {
        foreach (['C-9001', 'C-9002', 'C-9003'] as $tag) {
            $this->bringTo('ordering', $tag);
        }
        $this->receive('C-9009')->assertCreated();
        $learning = $this->read('/units/C-9009?sections=identification')->json('identification.learning');
        $rows = array_column($learning['priors'], null, 'variant');
        $this->assertSame([3, 0], [$rows['RD4-M']['confirmed'], $rows['RD4-E']['confirmed']]);
        // weight x share + count, normalised: by hand from the numbers beside it
        $this->assertEqualsWithDelta(
            ($learning['weight'] * $rows['RD4-M']['catalog'] + 3) / ($learning['weight'] + 3),
            $rows['RD4-M']['used'],
            1e-9,
        );
        $colour = array_column($learning['reliabilities'], null, 'feature')['connector-colour'];
        $this->assertSame(3, $colour['cases']);
        $rule = collect($this->as('manager')->read('/house-rules')->json('rules'))->firstWhere(
            'code',
            'field-learning',
        );
        $this->write(
            '/house-rules/field-learning',
            ['choice' => 'off', 'reason' => 'Trial month.', 'version' => $rule['version']],
            null,
            'PUT',
        )->assertOk();
        $off = array_column(
            $this->read('/units/C-9009?sections=identification')->json('identification.learning.priors'),
            null,
            'variant',
        );
        $this->assertEqualsWithDelta($off['RD4-M']['catalog'], $off['RD4-M']['used'], 1e-12);
    }

    public function test_a_tag_code_gives_all_candidates(): void
    {
        $out = $this->as('receiver')->read('/identification/tag?text=k0b1234')->assertOk()->json();
        $this->assertSame(
            [['RD4-M', [2010], true]],
            array_map(fn (array $c) => [$c['variant'], $c['years'], $c['yearFits']], $out['candidates']),
        );
        $this->assertSame([], $this->read('/identification/tag?text=nonsense')->json('candidates'));
    }

    public function test_the_trainer_deals_a_confirmed_core_and_scores_questions_and_answer(): void
    {
        $this->assertProblem($this->as('receiver')->write('/identification/trainer', []), 409, 'no confirmed core');
        $this->receive('C-9001')->assertCreated();
        foreach (
            [
                'connector-colour' => 'black',
                'connector-cavities' => '16',
                'pan-bolts' => '14',
                'tag-letter' => 'B',
                'speed-sensors' => 'two',
            ] as $feature => $value
        ) {
            $this->write('/units/C-9001/identification/clues', [
                'feature' => $feature,
                'value' => $value,
            ])->assertOk();
        }
        $this->write('/units/C-9001/identification', ['variant' => 'RD4-M'])->assertOk();
        $round = $this->write('/identification/trainer', ['family' => 'RD4'])
            ->assertCreated()
            ->json();
        $this->assertNull($round['result']);
        $this->assertSame(
            $round['id'],
            $this->write('/identification/trainer', [])->json('id'),
            'a round begun is finished first',
        );
        $dear = $this->write("/identification/trainer/{$round['id']}/questions", ['feature' => 'pump-joint'])
            ->assertOk()
            ->json('asked.0');
        $this->assertSame('cannot see', $dear['value'], 'nobody opened that core');
        $cheap = $this->write("/identification/trainer/{$round['id']}/questions", [
            'feature' => 'connector-colour',
        ])->json('asked.1');
        $this->assertSame('black', $cheap['value']);
        $this->assertTrue($dear['score'] < 0.2 && $cheap['score'] > 0.5, 'opening the unit first is a poor question');
        $this->assertProblem(
            $this->write("/identification/trainer/{$round['id']}/questions", ['feature' => 'connector-colour']),
            422,
            'already',
            '/feature',
        );
        $this->assertProblem(
            $this->write("/identification/trainer/{$round['id']}/answer", ['variant' => 'XX']),
            422,
            'no variant',
            '/variant',
        );
        $over = $this->write("/identification/trainer/{$round['id']}/answer", ['variant' => 'RD4-M'])
            ->assertOk()
            ->json();
        $this->assertSame(
            [true, 'RD4-M', 41.0],
            [$over['result']['right'], $over['result']['truth'], (float) $over['effort']],
        );
        $this->assertLessThan(41.0, $over['result']['engineEffort']);
        $this->assertProblem(
            $this->write("/identification/trainer/{$round['id']}/answer", ['variant' => 'RD4-M']),
            409,
            'over',
        );
        $this->as('manager')
            ->write("/identification/trainer/{$round['id']}/answer", ['variant' => 'RD4-M'])
            ->assertNotFound();
        $this->assertSame(1, $this->read('/identification/trainer')->json('results.0.right'));
    }

    public function test_a_core_that_hid_the_best_clues_is_played_to_its_end(): void
    {
        $this->as('receiver')->receive('C-9001')->assertCreated();
        foreach (
            [
                'connector-colour' => 'cannot see',
                'connector-cavities' => 'broken off',
                'tag-letter' => 'not sure',
                'pan-bolts' => '14',
                'speed-sensors' => 'two',
            ] as $feature => $value
        ) {
            $open = $this->write('/units/C-9001/identification/clues', ['feature' => $feature, 'value' => $value])
                ->assertOk()
                ->json('identification.questions');
            $shown = array_column($open, null, 'feature')[$feature];
            $this->assertNull($shown['gainBits'], 'what was looked at is not offered again');
        }
        $this->write('/units/C-9001/identification', ['variant' => 'RD4-M'])->assertOk();
        $round = $this->write('/identification/trainer', ['family' => 'RD4'])->assertCreated()->json('id');
        $this->write("/identification/trainer/$round/questions", ['feature' => 'connector-colour'])->assertOk();
        $over = $this->write("/identification/trainer/$round/answer", ['variant' => 'RD4-M'])->json('result');
        $this->assertGreaterThan(5.0, $over['engineEffort'], 'the engine looks at every clue once and gives up');
    }
}
