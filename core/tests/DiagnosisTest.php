<?php

declare(strict_types=1);

namespace Yard\Core\Tests;

final class DiagnosisTest extends CoreTestCase
{
    private function suspects(array $observed, array $more = []): array
    {
        $example = json_decode((string) file_get_contents(dirname(__DIR__).'/schema/diagnose.gears.json'), true)[
            'example'
        ]['input'];

        return $this->calc('diagnose.gears', ['observed' => $observed] + $more + $example)['suspects'];
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
        $suspects = array_column(
            $this->suspects(['1' => 'ok', '2' => 'ok', '3' => 'ok', '4' => 'slips', 'R' => 'ok']),
            null,
            'element',
        );
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
        $with = array_column(
            $this->suspects(['4' => 'slips'], ['pressures' => ['B2' => 'low']]),
            'posterior',
            'element',
        );
        $without = array_column($this->suspects(['4' => 'slips']), 'posterior', 'element');
        $this->assertGreaterThan($without['B2'], $with['B2']);
    }

    public function test_bad_symptoms(): void
    {
        $example = json_decode((string) file_get_contents(dirname(__DIR__).'/schema/diagnose.gears.json'), true)[
            'example'
        ]['input'];
        $this->assertRefused(
            'diagnose.gears',
            ['observed' => ['9' => 'ok']] + $example,
            'unknown-gear',
            '/observed/9',
        );
        $this->assertRefused('diagnose.gears', ['observed' => ['1' => 'meh']] + $example, 'choice', '/observed/1');
        $this->assertRefused('diagnose.gears', ['weak' => ['Z' => 2]] + $example, 'unknown-element', '/weak/Z');
    }
}
