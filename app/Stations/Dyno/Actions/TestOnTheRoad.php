<?php

namespace App\Stations\Dyno\Actions;

use App\Catalog\Models\Vocabulary;
use App\Kernel\Ledger\Ledger;
use App\Kernel\Refusal;
use App\Kernel\TypedQuantity;
use App\Shop\Models\Person;
use App\Stations\Dyno\Models\RoadTest;
use App\Stations\Dyno\Models\Run;
use App\Stations\Dyno\Queries\WithoutCell;
use App\Yard\Gatekeeper;
use App\Yard\Models\Build;
use App\Yard\Models\Unit;
use App\Yard\StationName;

/** A unit for which there is no cell goes on by its pressures and a drive, approved by name, or back to the bench. */
final class TestOnTheRoad
{
    public function __construct(private readonly Ledger $ledger)
    {
    }

    /**
     * @param  array<string, string>  $pressures  gear => as typed
     * @param  array<string, array{right?: bool, note?: string}>  $road  by code of what is driven
     * @param  string  $suspect  element to be opened; empty: it goes on
     */
    public function record(
        Unit $unit,
        string $why,
        array $pressures,
        array $road,
        string $suspect,
        Person $by,
    ): void {
        $build = self::waiting($unit);
        trim($why) !== '' || throw Refusal::at('/why', 'Say why it is not run in the cell.');
        $sheet = Vocabulary::body('road-test');
        $read = self::gauged($build, (float) $sheet->pressureShare, $pressures);
        $driven = self::driven($sheet->items, $road);
        if ($suspect === '') {
            self::mustBeRight($read, $driven);
        }
        $test = RoadTest::query()->create([
            'build_id' => $build->id,
            'why' => trim($why),
            'pressures' => $read,
            'road' => $driven,
            'verdict' => $suspect === '' ? 'pass' : 'fail',
            'suspect' => $suspect,
            'approved_by' => $by->id,
            'approved_at' => now(),
        ]);
        $this->ledger->onUnit($unit, 'unit.road-tested', [
            'serial' => $build->serial,
            'verdict' => $test->verdict,
            'suspect' => $suspect,
            'why' => $test->why,
        ]);
        $suspect === '' && $build->update(['state' => 'passed']);
        $unit->moveTo($suspect === '' ? Gatekeeper::next($unit, StationName::Dyno) : StationName::Assembly);
    }

    /** The build of a unit that stands before the cell and is in no run. */
    private static function waiting(Unit $unit): Build
    {
        Gatekeeper::at($unit, StationName::Dyno);
        Gatekeeper::noHold($unit);
        $build = $unit->currentBuild ?? throw new Refusal('This unit has no released build yet.', 409);
        if (Run::query()->where('build_id', $build->id)->whereIn('state', StartRun::OPEN)->exists()) {
            throw new Refusal('A run of this unit is under way in the cell.', 409);
        }

        return $build;
    }

    /**
     * @param  array<string, string>  $typed
     * @return list<array{gear: string, typed: string, kpa: float, min: float, max: float, inside: bool}>
     */
    private static function gauged(Build $build, float $share, array $typed): array
    {
        $read = [];
        foreach (WithoutCell::windows($build, $share) as ['gear' => $gear, 'min' => $min, 'max' => $max]) {
            $text = trim($typed[$gear] ?? '');
            if ($text === '') {
                throw Refusal::at("/pressures/$gear", "Say what the gauge shows in $gear at full command.");
            }
            $kpa = TypedQuantity::parse($text, 'pressure', 'psi', "/pressures/$gear")->in('kPa');
            $inside = $kpa >= $min && $kpa <= $max;
            $read[] = ['typed' => $text] + compact('gear', 'kpa', 'min', 'max', 'inside');
        }

        return $read;
    }

    /**
     * @param  list<\stdClass>  $items
     * @param  array<string, array{right?: bool, note?: string}>  $said
     * @return list<array{code: string, name: string, right: bool, note: string}>
     */
    private static function driven(array $items, array $said): array
    {
        $driven = [];
        foreach ($items as $item) {
            $right = $said[$item->code]['right'] ?? null;
            if (! is_bool($right)) {
                throw Refusal::at("/road/$item->code", "Say how it was: $item->name.");
            }
            $note = trim($said[$item->code]['note'] ?? '');
            $driven[] = ['code' => $item->code, 'name' => $item->name] + compact('right', 'note');
        }

        return $driven;
    }

    /**
     * @param  list<array{gear: string, typed: string, kpa: float, min: float, max: float, inside: bool}>  $read
     * @param  list<array{code: string, name: string, right: bool, note: string}>  $driven
     */
    private static function mustBeRight(array $read, array $driven): void
    {
        foreach ($read as $gauge) {
            $gauge['inside'] || throw Refusal::at("/pressures/{$gauge['gear']}", sprintf(
                'The pressure in %s must lie from %.0f to %.0f kPa; %s is %.0f. It does not leave like this: name the '.
                    'suspect and send it back to the bench.',
                $gauge['gear'],
                $gauge['min'],
                $gauge['max'],
                $gauge['typed'],
                $gauge['kpa'],
            ));
        }
        foreach ($driven as $item) {
            $item['right'] || throw Refusal::at(
                "/road/{$item['code']}",
                "\"{$item['name']}\" was not right. It does not leave like this: name the suspect and send it back to ".
                    'the bench.',
            );
        }
    }
}
