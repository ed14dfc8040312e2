<?php

namespace App\Catalog\Read;

use App\Catalog\Models\Family;
use App\Catalog\Models\FamilySpec;
use Yard\Core\Input;
use Yard\Core\Section\DrawnPart;
use Yard\Core\Section\Section;
use Yard\Core\Section\Shape;

/** The section drawing of a family, from its catalog data. */
final class FamilySection
{
    private const DIGITS = 2;

    /** @return array<string, mixed>|null null where the catalog has none */
    public static function of(Family $family): ?array
    {
        $drawing = $family->body['section'] ?? null;
        if ($drawing === null) {
            return null;
        }
        $packs = FamilySpec::query()->where('family_id', $family->id)->where('kind', 'pack')->get()->pluck('body');
        $section = Section::of(
            Input::of($drawing),
            Input::of($family->train),
            self::frictions($family->body, array_values($packs->all())),
        );

        return [
            'family' => $family->code,
            'axes' => array_map(
                fn (string $code, array $axis) => ['code' => $code] + $axis,
                array_keys($section->axes),
                array_values($section->axes),
            ),
            'parts' => array_values(array_map(self::part(...), $section->parts)),
            'ports' => $family->body['ports'] ?? null,
        ];
    }

    /**
     * Friction plates by element: as the pack is stacked, else as many as carry the faces the margins reckon with.
     *
     * @param  array<string, mixed>  $body  of the family
     * @param  list<array<string, mixed>>  $packs
     * @return array<string, int>
     */
    public static function frictions(array $body, array $packs): array
    {
        $plates = [];
        foreach ($body['power']['capacities'] ?? [] as $element => $capacity) {
            if ($capacity['kind'] === 'clutch') {
                $plates[$element] = intdiv((int) $capacity['frictionFaces'], 2);
            }
        }
        foreach ($packs as $pack) {
            $stacked = array_column($pack['fixed'] ?? [], 'count', 'name')['friction plates'] ?? null;
            if ($stacked !== null) {
                $plates[$pack['element']] = (int) $stacked;
            }
        }

        return $plates;
    }

    /** @return array<string, mixed> */
    private static function part(DrawnPart $part): array
    {
        return [
            'code' => $part->code,
            'name' => $part->name,
            'kind' => $part->kind,
            'turns' => $part->turns,
            'of' => $part->of,
            'shapes' => array_map(fn (Shape $s) => [
                'as' => $s->as,
                'form' => $s->form,
                'points' => array_map(
                    fn (array $p) => [round($p[0], self::DIGITS), round($p[1], self::DIGITS)],
                    $s->points,
                ),
            ], $part->shapes),
        ];
    }
}
