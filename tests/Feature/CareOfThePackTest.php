<?php

namespace Tests\Feature;

use App\Catalog\Exchange\BadPack;
use App\Catalog\Exchange\CheckPack;
use Closure;
use PHPUnit\Framework\Attributes\DataProvider;
use Tests\TestCase;

/** What a pack says of washing, tools, kinds of parts and bolts is held together before anything is written. */
final class CareOfThePackTest extends TestCase
{
    protected function furnish(): void
    {
        // a pack is checked without a shop
    }

    /** @param  list<\stdClass>  $of */
    private static function &named(array &$of, string $code): \stdClass
    {
        foreach ($of as $entry) {
            if ($entry->code === $code) {
                return $entry;
            }
        }
        throw new \LogicException("There is no $code.");
    }

    /** @return array<string, array{Closure(\stdClass): void, string, string}> */
    public static function faults(): array
    {
        $family = fn (\stdClass $pack, int $n): \stdClass => $pack->families[$n];

        return [
            'caustic on magnesium' => [
                function (\stdClass $pack) use ($family): void {
                    self::named($family($pack, 3)->teardown, 'wash-case')->stages[] = 'hot caustic tank';
                },
                '/families/3/teardown/',
                'magnesium: caustic salts stay in its pores',
            ],
            'a stage nobody knows' => [
                function (\stdClass $pack) use ($family): void {
                    self::named($family($pack, 0)->teardown, 'wash-hard')->stages = ['dishwasher'];
                },
                '/stages/0',
                'no stage of washing "dishwasher"',
            ],
            'rubber in the tank' => [
                function (\stdClass $pack) use ($family): void {
                    self::named($family($pack, 0)->teardown, 'wash-bonded')->stages = ['hot neutral tank'];
                },
                '/stages/0',
                'bonded rubber: it swells',
            ],
            'a wave plate nobody counts' => [
                function (\stdClass $pack) use ($family): void {
                    $proofs = &self::named($family($pack, 3)->teardown, 'high-pack')->proofs;
                    $proofs = array_values(array_filter($proofs, is_string(...)));
                },
                '/families/3/teardown/',
                'The High pack has 1 wave plates: this operation counts none.',
            ],
            'a flat in its place, and nobody is told' => [
                function (\stdClass $pack) use ($family): void {
                    unset(self::named($family($pack, 0)->assembly, 'pack-C3')->byOption);
                },
                '/families/0/assembly/',
                'has 1 flat plates with "wave-flat": this operation counts none.',
            ],
            'two gears commanded alike' => [
                function (\stdClass $pack) use ($family): void {
                    $family($pack, 3)->body->control->states[1]->on = ['S3', 'S2', 'S1'];
                },
                '/families/3/body/control/states/1/on',
                'Gears "1" and "2" are commanded alike.',
            ],
            'a solenoid that is none' => [
                function (\stdClass $pack) use ($family): void {
                    $family($pack, 0)->body->control->states[0]->on[] = 'Z';
                },
                '/families/0/body/control/states/0/on/',
                'no solenoid "Z"',
            ],
            'a gear the train has not' => [
                function (\stdClass $pack) use ($family): void {
                    $family($pack, 0)->body->control->states[0]->gear = '9';
                },
                '/families/0/body/control/states/0/gear',
                'The train has no gear "9".',
            ],
            'tests nobody asks for' => [
                function (\stdClass $pack) use ($family): void {
                    $family($pack, 0)->benchTests[0]->group = 'nobody';
                },
                '/families/0/benchTests',
                'No operation asks for the tests "nobody".',
            ],
            'a valve nobody tries' => [
                function (\stdClass $pack) use ($family): void {
                    $family($pack, 0)->body->control->solenoids[1]->moves[0] = 'Ghost valve';
                },
                '/families/0/body/control/solenoids/1/moves',
                'No operation tries whether the "Ghost valve" moves freely.',
            ],
            'one gauge for two quantities' => [
                function (\stdClass $pack) use ($family): void {
                    $family($pack, 0)->benchTests[1]->unit = 'mm';
                },
                '/families/0/benchTests/1/body/unit',
                'this is another quantity',
            ],
            'reckoned from what comes later' => [
                function (\stdClass $pack) use ($family): void {
                    self::named($family($pack, 0)->benchTests, 'case-bush-grip')->derived->from = 'pump-bush-od';
                },
                '/body/derived/from',
                'There is no test "pump-bush-od" before this one',
            ],
            'a shaft nobody drew' => [
                function (\stdClass $pack) use ($family): void {
                    $family($pack, 0)->body->strength[0]->part = 'ghost-shaft';
                },
                '/families/0/body/strength/0/part',
                'The part "ghost-shaft" is not drawn.',
            ],
            'torque from nowhere' => [
                function (\stdClass $pack) use ($family): void {
                    $family($pack, 0)->body->strength[0]->carries = 'C9';
                },
                '/families/0/body/strength/0/carries',
                'The train has no element "C9".',
            ],
            'a bore larger than its shaft' => [
                function (\stdClass $pack) use ($family): void {
                    $family($pack, 0)->body->strength[0]->inner_mm = 30;
                },
                '/families/0/body/strength/0/inner_mm',
                'smaller than the outside',
            ],
            'a tool nobody knows' => [
                function (\stdClass $pack) use ($family): void {
                    self::named($family($pack, 0)->teardown, 'servo')->proofs[] = 'tool bent-nail';
                },
                '/of',
                'no special tool "bent-nail"',
            ],
            'a circumstance nobody knows' => [
                function (\stdClass $pack) use ($family): void {
                    self::named($family($pack, 0)->teardown, 'wash-debris')->onlyIf = 'full-moon';
                },
                '/onlyIf',
                'no circumstance "full-moon"',
            ],
            'what an order froze does not wait' => [
                function (\stdClass $pack) use ($family): void {
                    self::named($family($pack, 0)->assembly, 'pan')->onlyIf = 'debris';
                },
                '/onlyIf',
                'froze does not wait',
            ],
            'a kind of part nobody knows' => [
                function (\stdClass $pack) use ($family): void {
                    self::named($family($pack, 0)->findings, 'band')->kind = 'ribbon';
                },
                '/kind',
                'no kind of part "ribbon"',
            ],
            'pieces of a condition it cannot be in' => [
                function (\stdClass $pack) use ($family): void {
                    self::named($family($pack, 0)->findings, 'rings')->pieces = ['melted'];
                },
                '/pieces/0',
                '"melted" is no condition',
            ],
        ];
    }

    /** @param  Closure(\stdClass): void  $spoil */
    #[DataProvider('faults')]
    public function test_it_does_not_import(Closure $spoil, string $at, string $why): void
    {
        $pack = json_decode((string) file_get_contents(database_path('demo/catalog.json')));
        $spoil($pack);
        try {
            CheckPack::decoded((string) json_encode($pack));
            $this->fail('It was taken.');
        } catch (BadPack $e) {
            $found = array_filter(
                $e->errors,
                fn (array $x): bool => str_contains($x['pointer'], $at) && str_contains($x['detail'], $why),
            );
            $this->assertNotSame([], $found, (string) json_encode($e->errors));
        }
    }
}
