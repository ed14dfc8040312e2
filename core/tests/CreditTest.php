<?php

declare(strict_types=1);

namespace Yard\Core\Tests;

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
}
