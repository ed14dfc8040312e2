<?php

namespace Tests\Feature;

use App\Yard\StationName;
use Illuminate\Testing\TestResponse;
use Tests\TestCase;

/** No cell, or no adapter: pressures at the taps and a drive, approved by name, and every paper says so. */
final class WithoutCellTest extends TestCase
{
    private const AT = '/units/C-9001/dyno/road-tests';

    /** @return array{gears: list<array{gear: string, min: float, max: float}>, road: list<array{code: string}>} */
    private function sheet(): array
    {
        return $this->as('manager')->onCard('dyno.withoutCell');
    }

    /** @param  array<string, mixed>  $change */
    private function send(array $change = []): TestResponse
    {
        $sheet = $this->sheet();
        $psi = fn (array $g): string => round(($g['min'] + $g['max']) / 2 / 6.894757, 1).' psi';
        $right = array_fill_keys(array_column($sheet['road'], 'code'), ['right' => true, 'note' => '']);

        return $this->write(self::AT, array_replace_recursive([
            'why' => 'No adapter for this bell.',
            'pressures' => array_combine(array_column($sheet['gears'], 'gear'), array_map($psi, $sheet['gears'])),
            'road' => $right,
            'suspect' => '',
        ], $change));
    }

    public function test_it_goes_on_by_name_and_the_papers_say_that_it_was_not_dyno_tested(): void
    {
        $this->bringTo('dyno');
        $this->assertProblem($this->as('dyno')->write(self::AT, []), 403, '');
        $sheet = $this->sheet();
        $this->assertSame(['1', '2', '3', '4', 'R'], array_column($sheet['gears'], 'gear'));
        $this->assertProblem($this->send(['why' => ' ']), 422, 'Say why', '/why');
        $none = $this->send(['pressures' => ['2' => '']]);
        $this->assertProblem($none, 422, 'what the gauge shows in 2', '/pressures/2');
        $this->assertProblem($this->send(['pressures' => ['2' => '3 mm']]), 422, 'length', '/pressures/2');
        $low = $this->send(['pressures' => ['2' => '60 psi']]);
        $this->assertProblem($low, 422, 'It does not leave like this', '/pressures/2');
        $silent = $this->send(['road' => ['park' => ['right' => null]]]);
        $this->assertProblem($silent, 422, 'Say how it was', '/road/park');
        $slips = $this->send(['road' => ['heavy' => ['right' => false, 'note' => 'Runs up into third']]]);
        $this->assertProblem($slips, 422, 'was not right', '/road/heavy');
        $this->assertSame(StationName::Dyno, $this->unit()->station, 'nothing of it was kept');

        $this->send(['road' => ['hot' => ['note' => '35 minutes, 88 degrees']]])->assertCreated()
            ->assertJsonPath('station', 'dispatch')
            ->assertJsonPath('dyno.withoutCell.tests.0.verdict', 'pass');
        $this->assertDatabaseHas('ledger', ['kind' => 'unit.road-tested', 'unit_id' => $this->unit()->id]);
        $this->workThrough('C-9001', 'dispatch');
        $card = $this->as('manager')->write('/units/C-9001/dispatch/shipment', ['carrier' => 'Own lorry']);
        $sheet = $card->assertCreated()->json('dispatch.sheet');
        $this->assertTrue($sheet['notDynoTested']);
        $this->assertSame('No adapter for this bell.', $sheet['roadTest']['why']);
        $this->assertCount(5, $sheet['roadTest']['pressures']);
    }

    public function test_what_was_wrong_sends_it_back_to_be_measured_again(): void
    {
        $this->bringTo('dyno');
        $this->send(['road' => ['heavy' => ['right' => false]], 'suspect' => 'C3'])
            ->assertCreated()
            ->assertJsonPath('station', 'assembly');
        $this->travel(1)->minutes();
        $signed = $this->as('builder')->write('/units/C-9001/assembly/sign-off');
        $this->assertProblem($signed, 409, 'measured again after the test it failed');
        $this->assertProblem($this->as('manager')->write(self::AT, ['why' => 'x']), 409, '');
    }
}
