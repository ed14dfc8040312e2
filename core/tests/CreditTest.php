<?php

declare(strict_types=1);

namespace Yard\Core\Tests;

use Yard\Core\BadInput;

final class CreditTest extends CoreTestCase
{
    private const CORE = [
        'coreCharge' => 450,
        'grade' => 'B',
        'missingParts' => [
            ['part' => 'dust shield', 'price' => 28.5],
            ['part' => 'vent', 'price' => 12.4, 'count' => 2],
        ],
        'failedHardParts' => [['part' => 'drum', 'price' => 95]],
        'repairHours' => 1.5,
        'rate' => 100,
        'scrapValue' => 40,
    ];

    public function test_credit_is_charge_less_parts_less_hours(): void
    {
        $out = $this->calc('receive.credit', self::CORE);
        $this->assertEquals(450 - 28.5 - 24.8 - 95 - 150, $out['credit']);
        $this->assertEquals(
            $out['credit'],
            array_sum(array_column($out['lines'], 'amount')),
            'the lines add up to the credit',
        );
        $this->assertSame(
            ['core-charge', 'missing-part', 'missing-part', 'failed-part', 'repair'],
            array_column($out['lines'], 'kind'),
        );
    }

    public function test_never_less_than_scrap(): void
    {
        $out = $this->calc('receive.credit', ['repairHours' => 9] + self::CORE);
        $this->assertTrue($out['floorApplied']);
        $this->assertEquals(40, $out['credit']);
        $this->assertEqualsWithDelta(40, array_sum(array_column($out['lines'], 'amount')), 1e-9);
    }

    public function test_grade_x_earns_nothing_and_grade_d_at_least_scrap(): void
    {
        $this->assertEquals(0, $this->calc('receive.credit', ['grade' => 'X'] + self::CORE)['credit']);
        $this->assertEquals(
            0,
            $this->calc('receive.credit', ['grade' => 'X', 'repairHours' => 9] + self::CORE)['credit'],
        );
        $this->assertEquals(
            40,
            $this->calc('receive.credit', ['grade' => 'D', 'repairHours' => 9] + self::CORE)['credit'],
        );
    }

    public function test_cents_are_added_exactly(): void
    {
        $out = $this->calc(
            'receive.credit',
            [
                'coreCharge' => 0.3,
                'missingParts' => [['part' => 'a', 'price' => 0.1], ['part' => 'b', 'price' => 0.2]],
                'failedHardParts' => [],
                'scrapValue' => 0,
                'repairHours' => 0,
            ] + self::CORE,
        );
        $this->assertSame(0, $out['credit']);
    }

    public function test_bad_credit_input(): void
    {
        $this->assertRefused('receive.credit', ['grade' => 'E'] + self::CORE, 'choice', '/grade');
        $this->assertRefused('receive.credit', ['coreCharge' => -1] + self::CORE, 'range', '/coreCharge');
        $this->assertRefused(
            'receive.credit',
            ['missingParts' => [['part' => ' ', 'price' => 1]]] + self::CORE,
            'blank',
            '/missingParts/0/part',
        );
        $this->assertRefused('receive.credit', array_diff_key(self::CORE, ['rate' => 0]), 'missing', '/rate');
    }

    /** @param  array<string, mixed>  $when */
    private function grade(array $when, array $facts): array
    {
        return $this->calc('receive.grade', [
            'facts' => $facts,
            'rules' => [
                ['grade' => 'B', 'when' => $when, 'reason' => '{missing} missing'],
                ['grade' => 'D', 'when' => (object) [], 'reason' => 'else'],
            ],
        ]);
    }

    public function test_a_condition_that_names_a_number_holds_when_the_fact_is_that_number(): void
    {
        $this->assertSame('B', $this->grade(['missing' => 2], ['missing' => 2])['grade']);
        $this->assertSame('B', $this->grade(['missing' => 2], ['missing' => 2.0])['grade']);
        $this->assertSame('2 missing', $this->grade(['missing' => 2.0], ['missing' => 2])['reason']);
        $this->assertSame('D', $this->grade(['missing' => 2], ['missing' => 3])['grade']);
        $this->assertSame('B', $this->grade(['broken' => false], ['broken' => false, 'missing' => 0])['grade']);
    }

    public function test_a_condition_that_could_never_hold_is_refused(): void
    {
        foreach (['yes', null, [], true] as $wanted) {
            try {
                $this->grade(['missing' => $wanted], ['missing' => 2]);
                $this->fail(json_encode($wanted).' was taken for a number');
            } catch (BadInput $e) {
                $this->assertSame(['type', '/rules/0/when/missing'], [$e->errorCode, $e->path]);
            }
        }
        foreach ([['broken', 1], ['brokenAtLeast', true]] as [$condition, $wanted]) {
            try {
                $this->grade([$condition => $wanted], ['broken' => true, 'missing' => 2]);
                $this->fail("$condition was accepted");
            } catch (BadInput $e) {
                $this->assertSame(['type', "/rules/0/when/$condition"], [$e->errorCode, $e->path]);
            }
        }
    }
}
