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
