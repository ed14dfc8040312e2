<?php

namespace App\Catalog\Read;

use App\Catalog\Models\Family;
use Yard\Core\Input;
use Yard\Core\Section\DrawnPart;
use Yard\Core\Section\Outside;
use Yard\Core\Section\Section;

/**
 * The unit from its side with the places one walks round. Places that name a part of the section drawing are drawn from
 * it, so that receiving, bench and return show one and the same unit.
 */
final class FamilyOutline
{
    private const MARGIN = 12.0;

    /** @return array<string, mixed>|null null where the catalog has none */
    public static function of(Family $family): ?array
    {
        $outline = $family->body['outline'] ?? null;
        if ($outline === null || isset($outline['width'])) {
            return $outline;
        }
        $parts = self::parts($family, $outline['places']);
        $drawn = array_map(fn (array $place): array => self::corners($place['shape'], $parts), $outline['places']);
        $all = array_merge(...$drawn);
        if ($all === []) {
            return null;
        }
        [$left, $top] = [min(array_column($all, 0)) - self::MARGIN, max(array_column($all, 1)) + self::MARGIN];
        $places = [];
        foreach ($outline['places'] as $n => $place) {
            $points = array_map(
                fn (array $p): array => [round($p[0] - $left, 1), round($top - $p[1], 1)],
                $drawn[$n],
            );
            $places[] = ['shape' => ['kind' => 'polygon', 'points' => $points]] + $place;
        }

        return [
            'width' => round(max(array_column($all, 0)) + self::MARGIN - $left, 1),
            'height' => round($top - min(array_column($all, 1)) + self::MARGIN, 1),
            'places' => $places,
        ];
    }

    /**
     * @param  list<array<string, mixed>>  $places
     * @return array<string, DrawnPart>
     */
    private static function parts(Family $family, array $places): array
    {
        $drawing = $family->body['section'] ?? ['axes' => [], 'parts' => []];
        $named = array_column(array_column($places, 'shape'), 'part');
        $drawing['parts'] = array_values(array_filter(
            $drawing['parts'],
            fn (array $p): bool => in_array($p['code'], $named, true),
        ));

        return $drawing['parts'] === []
            ? []
            : Section::of(Input::of($drawing), Input::of($family->train), [])->parts;
    }

    /**
     * @param  array<string, mixed>  $shape
     * @param  array<string, DrawnPart>  $parts
     * @return list<array{float, float}>
     */
    private static function corners(array $shape, array $parts): array
    {
        if (isset($shape['points'])) {
            return $shape['points'];
        }
        $part = $parts[$shape['part']] ?? null;

        return $part === null ? [] : Outside::of($part, $shape['from'] ?? -INF, $shape['to'] ?? INF);
    }
}
