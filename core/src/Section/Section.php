<?php

declare(strict_types=1);

namespace Yard\Core\Section;

use Yard\Core\BadInput;
use Yard\Core\Input;

/**
 * The section drawing of a unit: above its axis what is inside, cut; below it what hangs on the outside. Made from the
 * sizes of its parts, its train (radii of the gear sets, what turns with what) and its packs (plates).
 */
final readonly class Section
{
    /** Kinds whose shapes follow from their own sizes. */
    private const DRAWN_BY = [
        'housing' => [Solids::class, 'housing'],
        'shaft' => [Solids::class, 'shaft'],
        'drum' => [Solids::class, 'drum'],
        'hub' => [Solids::class, 'drum'],
        'block' => [Solids::class, 'block'],
        'bearing' => [Solids::class, 'bearing'],
        'wheel' => [Solids::class, 'wheel'],
        'rings' => [Solids::class, 'rings'],
        'seal' => [Solids::class, 'seal'],
        'piston' => [Works::class, 'piston'],
        'band' => [Works::class, 'band'],
        'one-way' => [Works::class, 'oneWay'],
        'pump' => [Works::class, 'pump'],
        'converter' => [Works::class, 'converter'],
        'below' => [Works::class, 'below'],
    ];

    /**
     * @param  array<string, DrawnPart>  $parts  by code
     * @param  array<string, array{name: string, y: float}>  $axes  by code
     */
    private function __construct(public array $parts, public array $axes)
    {
    }

    /**
     * @param  Input  $in  axes and parts, in millimetres
     * @param  Input  $train  gear train, as `geartrain.solve` reads it
     * @param  array<string, int>  $frictions  friction plates by element
     *
     * @throws BadInput
     */
    public static function of(Input $in, Input $train, array $frictions): self
    {
        $axes = [];
        foreach ($in->list('axes', 1) as $axis) {
            $axes[$axis->name('code')] = ['name' => $axis->name('name'), 'y' => $axis->number('y')];
        }
        $sets = self::sets($train);
        $elements = self::elements($train);
        $parts = [];
        foreach ($in->list('parts', 1) as $part) {
            $code = $part->name('code');
            if (isset($parts[$code])) {
                throw new BadInput('duplicate-part', "The part \"$code\" is drawn twice.", "$part->path/code");
            }
            $axis = $part->has('axis') ? $part->choice('axis', array_keys($axes)) : array_key_first($axes);
            $of = $part->has('of') ? $part->name('of') : '';
            $kind = $part->choice('kind', [...array_keys(self::DRAWN_BY), 'pack', 'set']);
            $name = $part->has('name') ? $part->name('name') : ($elements[$of] ?? $code);
            $shapes = array_map(
                static fn (Shape $s): Shape => $s->moved(0.0, $axes[$axis]['y']),
                self::shapes($part, $kind, $of, $sets, $frictions),
            );
            $turns = self::turns($part, $train);
            $parts[$code] = new DrawnPart($code, $name, $kind, $turns, $of, $shapes);
        }

        return new self($parts, $axes);
    }

    /**
     * @param  array<string, array{sun: int, ring: int, planets: list<int>}>  $sets
     * @param  array<string, int>  $frictions
     * @return list<Shape>
     */
    private static function shapes(Input $part, string $kind, string $of, array $sets, array $frictions): array
    {
        $plain = self::DRAWN_BY[$kind] ?? null;
        if ($plain !== null) {
            return $plain($part);
        }

        return $kind === 'pack'
            ? Plates::draw($part, $frictions[$of] ?? throw self::unknown($part, $of, 'pack'))
            : Works::gearSet($part, $sets[$of] ?? throw self::unknown($part, $of, 'gear set'));
    }

    private static function unknown(Input $part, string $of, string $what): BadInput
    {
        return new BadInput('unknown', "There is no $what \"$of\" in this family.", "$part->path/of");
    }

    /** What a part turns with: the input, the case, or something else of the train. */
    private static function turns(Input $part, Input $train): string
    {
        $node = $part->has('node') ? $part->name('node') : 'case';

        return match ($node) {
            $train->name('input') => 'input',
            'case' => 'stands',
            default => 'other',
        };
    }

    /** @return array<string, array{sun: int, ring: int, planets: list<int>}> */
    private static function sets(Input $train): array
    {
        $sets = [];
        foreach ($train->list('sets') as $set) {
            $planets = $set->at('planetTeeth');
            $sets[$set->name('id')] = [
                'sun' => $set->integer('sunTeeth', 1),
                'ring' => $set->integer('ringTeeth', 1),
                'planets' => $set->choice('kind', ['simple', 'double']) === 'simple'
                    ? [$planets->asInteger(1)]
                    : array_map(static fn (Input $z): int => $z->asInteger(1), $planets->asList()),
            ];
        }

        return $sets;
    }

    /** @return array<string, string> names by id */
    private static function elements(Input $train): array
    {
        $names = [];
        foreach ($train->list('elements') as $element) {
            $names[$element->name('id')] = $element->has('name') ? $element->name('name') : $element->name('id');
        }

        return $names;
    }
}
