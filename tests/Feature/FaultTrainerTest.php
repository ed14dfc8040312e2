<?php

namespace Tests\Feature;

use Tests\TestCase;

/** A round of finding a hidden fault: sealed, played look by look, judged. */
final class FaultTrainerTest extends TestCase
{
    public function test_a_round_is_dealt_looked_at_and_named(): void
    {
        $this->as('viewer');
        $dealt = $this->write('/fault-trainer', ['family' => 'RD4'])->assertOk();
        $this->assertSame([[], 0], [$dealt->json('seen'), $dealt->json('effort')]);
        $this->assertNull($dealt->json('fault'), 'nobody is told before');
        $this->assertStringNotContainsString('seed', (string) $dealt->json('round'));
        $look = fn (string $round, string $kind, string $what) => $this->write(
            '/fault-trainer/looks',
            compact('round', 'kind', 'what'),
        );
        $one = $look($dealt->json('round'), 'gear', '3')->assertOk();
        $two = $look($one->json('round'), 'pressure', 'C1')->assertOk();
        $this->assertSame(5, $two->json('effort'), 'a gauge costs four looks on the road');
        $this->assertProblem($look($two->json('round'), 'gear', '3'), 409, 'looked at already');
        $this->assertProblem($look($two->json('round'), 'gear', '9'), 422, 'no such look', '/what');
        $this->assertProblem($look('made up', 'gear', '3'), 422, 'none of ours', '/round');
        $name = fn (string $element, string $fault) => $this->write(
            '/fault-trainer/verdict',
            ['round' => $two->json('round'), 'element' => $element, 'fault' => $fault],
        );
        $this->assertProblem($name('C9', 'weak'), 422, 'Nothing can fail like that', '/fault');
        $this->assertContains(['element' => 'C1', 'fault' => 'stuck-on'], $dealt->json('causes'));
        $truth = $name('pump', 'worn')->assertOk()->json('fault');
        $this->assertContains($truth, $dealt->json('causes'));
        $this->assertTrue($name($truth['element'], $truth['fault'])->assertOk()->json('right'));
        $two = $this->write('/fault-trainer', ['family' => 'RD4', 'two' => true])->assertOk();
        $this->assertContains(['element' => 'C1+C3', 'fault' => 'weak'], $two->json('causes'));
        $this->assertProblem($this->write('/fault-trainer', ['family' => 'NONE']), 422, 'no family', '/family');
    }

    public function test_a_pack_is_laid_out_and_said_what_is_wrong_with_it(): void
    {
        $this->as('viewer');
        $name = fn (string $round, string $choice) => $this->write('/pack-trainer/verdict', compact('round', 'choice'));
        for ($n = 0; $n < 6; $n++) {
            $dealt = $this->write('/pack-trainer', ['family' => ['RD4', 'GV5'][$n % 2]])->assertOk();
            $this->assertContains('friction plates', array_column($dealt->json('parts'), 'name'));
            $this->assertContains('friction', $dealt->json('stack'));
            $said = $name($dealt->json('round'), 'right')->assertOk();
            $this->assertContains($said->json('was'), $dealt->json('choices'));
            $this->assertSame($said->json('was') === 'right', $said->json('right'));
            $this->assertTrue($name($dealt->json('round'), $said->json('was'))->json('right'));
        }
        $this->assertProblem($name($dealt->json('round'), 'rusty'), 422, 'cannot be wrong', '/choice');
        $this->assertProblem($name('made up', 'right'), 422, 'none of ours', '/round');
        $this->assertProblem($this->write('/pack-trainer', ['family' => 'NONE']), 422, 'no family', '/family');
    }
}
