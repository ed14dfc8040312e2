<?php

namespace Tests\Feature;

use Tests\TestCase;

final class IdentificationTest extends TestCase
{
    public function test_answers_move_the_posterior_and_the_next_question(): void
    {
        $this->receive()->assertCreated();
        $before = $this->read('/units/C-9001')->json('identity');
        // Priors 30/50/40 of the pack.
        $this->assertEqualsWithDelta(50 / 120, array_column($before['ranking'], 'posterior', 'variant')['RD4-M'], 1e-9);
        $this->assertSame(1, (int) $before['questions'][0]['effort'], 'free clues come first');
        $after = $this->write('/units/C-9001/clues', ['feature' => 'connector-colour', 'value' => 'blue'])->json('identity');
        $this->assertSame('RD4-L', $after['ranking'][0]['variant']);
        $this->assertLessThan($before['entropyBits'], $after['entropyBits']);
        $this->write('/units/C-9001/clues', ['feature' => 'connector-cavities', 'value' => 'cannot see'])->assertOk();
        $this->assertEqualsWithDelta($after['entropyBits'], $this->read('/units/C-9001')->json('identity.entropyBits'), 1e-12, '"cannot see" says nothing about the unit');
        $back = $this->write('/units/C-9001/clues', ['feature' => 'connector-colour', 'value' => null])->json('identity');
        $this->assertEqualsWithDelta($before['entropyBits'], $back['entropyBits'], 1e-12);
    }

    public function test_readings_are_checked(): void
    {
        $this->receive()->assertCreated();
        $this->write('/units/C-9001/clues', ['feature' => 'front-seal-mm', 'value' => '2.6 in'])->assertOk();
        $this->assertSame('66.04', collect($this->read('/units/C-9001')->json('identity.questions'))->firstWhere('feature', 'front-seal-mm')['answer']);
        $this->assertProblem($this->write('/units/C-9001/clues', ['feature' => 'front-seal-mm', 'value' => '620 mm']), 422, 'cannot be right', '/value');
        $this->assertProblem($this->write('/units/C-9001/clues', ['feature' => 'front-seal-mm', 'value' => '62 psi']), 422, 'pressure', '/value');
        $this->assertProblem($this->write('/units/C-9001/clues', ['feature' => 'connector-colour', 'value' => 'pink']), 422, 'choose one of', '/value');
        $this->assertProblem($this->write('/units/C-9001/clues', ['feature' => 'nope', 'value' => 'x']), 422, 'no clue', '/feature');
    }

    public function test_confirming_keeps_who_when_and_the_posterior_and_revises_the_credit(): void
    {
        $this->receive()->assertCreated();
        foreach (['connector-colour' => 'black', 'connector-cavities' => '16', 'tag-letter' => 'C'] as $feature => $value) {
            $card = $this->write('/units/C-9001/clues', ['feature' => $feature, 'value' => $value]);
        }
        $this->assertTrue($card->json('identity.mixed'), 'the tag of another variant contradicts the leader');
        $this->assertProblem($this->write('/units/C-9001/identity', ['variant' => 'RD4-E']), 422, 'speak against', '/note');
        $card = $this->write('/units/C-9001/identity', ['variant' => 'RD4-M', 'foreignParts' => ['tag of RD4-L']])->assertOk();
        $this->assertSame('desk', $card->json('station'));
        $this->assertSame(['tag of RD4-L'], $card->json('identity.decisions.0.foreignParts'));
        $this->assertSame('Joss Tarn', $card->json('identity.decisions.0.by'));
        $this->assertGreaterThan(0.9, $card->json('identity.decisions.0.posterior'));
        $this->assertEquals(450 - 28.5 - 150, $card->json('credit'), 'core charge of the confirmed variant');
        $this->assertProblem($this->write('/units/C-9001/identity', ['variant' => 'RD4-M']), 409, 'order desk');
    }

    public function test_unknown_is_a_hold_not_a_guess(): void
    {
        $this->receive()->assertCreated();
        $card = $this->write('/units/C-9001/identity', ['note' => 'tag gone, case burnt'])->assertOk();
        $this->assertSame('identify', $card->json('station'));
        $this->assertSame('unknown-variant', $card->json('holds.0.kind'));
    }
}
