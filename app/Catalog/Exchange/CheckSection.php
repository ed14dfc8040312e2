<?php

namespace App\Catalog\Exchange;

use App\Catalog\Read\FamilySection;
use Yard\Core\BadInput;
use Yard\Core\Input;
use Yard\Core\Section\DrawnPart;
use Yard\Core\Section\Section;
use Yard\Core\Section\SectionCheck;

/** The section drawing of a family, held against its train, its packs, its operations and itself. */
final class CheckSection
{
    /** @return list<array{pointer: string, detail: string}> */
    public static function errors(\stdClass $family, string $at): array
    {
        $drawing = $family->body->section ?? null;
        if ($drawing === null) {
            return [];
        }
        try {
            $section = Section::of(
                Input::of($drawing),
                Input::of($family->train),
                FamilySection::frictions(self::plain($family->body), array_values(array_map(
                    fn (\stdClass $pack) => self::plain($pack->body),
                    $family->packs,
                ))),
            );
        } catch (BadInput $e) {
            return [['pointer' => "$at/body/section$e->path", 'detail' => $e->getMessage()]];
        }
        $places = array_flip(array_map(fn (\stdClass $p) => $p->code, $drawing->parts));
        $errors = array_map(
            fn (array $f) => [
                'pointer' => "$at/body/section".(isset($places[$f['part']]) ? "/parts/{$places[$f['part']]}" : ''),
                'detail' => $f['detail'],
            ],
            SectionCheck::faults($section, Input::of($family->train)),
        );

        return [
            ...$errors,
            ...self::plates($family, $at),
            ...self::operations($family, $section, $at),
            ...self::left($family, $section, $at),
        ];
    }

    /** @return list<array{pointer: string, detail: string}> every part but the case and its tag comes off, and back in */
    private static function left(\stdClass $family, Section $section, string $at): array
    {
        $named = fn (string $bench, string $field): array => array_merge(
            ...array_map(fn (\stdClass $o) => $o->body->{$field} ?? [], $family->{$bench}),
        );
        $off = $named('teardown', 'removes');
        $in = $named('assembly', 'installs');
        $out = $in === [] ? [] : array_diff(array_unique($off), $in);

        return [
            ...self::stays($section, $off, $at),
            ...array_values(array_map(fn (string $part) => [
                'pointer' => "$at/assembly",
                'detail' => "The part \"$part\" comes off and is put in by no operation.",
            ], $out)),
        ];
    }

    /**
     * @param  array<string>  $off
     * @return list<array{pointer: string, detail: string}>
     */
    private static function stays(Section $section, array $off, string $at): array
    {
        $stay = array_filter(
            array_diff_key($section->parts, array_flip($off)),
            fn (DrawnPart $p) => $p->kind !== 'housing' && ! in_array($p->code, ['case', 'tag'], true),
        );

        return $off === [] ? [] : array_values(array_map(
            fn (DrawnPart $p) => [
                'pointer' => "$at/teardown",
                'detail' => "The part \"$p->code\" comes off by no operation.",
            ],
            $stay,
        ));
    }

    /** @return list<array{pointer: string, detail: string}> as many plates in the pack as the margins reckon with */
    private static function plates(\stdClass $family, string $at): array
    {
        $errors = [];
        $reckoned = FamilySection::frictions(self::plain($family->body), []);
        foreach ($family->packs as $i => $pack) {
            $body = self::plain($pack->body);
            $stacked = FamilySection::frictions([], [$body])[$body['element']] ?? null;
            $faces = $reckoned[$body['element']] ?? null;
            if ($stacked !== null && $faces !== null && $stacked !== $faces) {
                $errors[] = [
                    'pointer' => "$at/packs/$i/body/fixed",
                    'detail' => "The pack has $stacked friction plates, the margins reckon with $faces.",
                ];
            }
        }

        return $errors;
    }

    /** @return list<array{pointer: string, detail: string}> what operations name is drawn, and goes once */
    private static function operations(\stdClass $family, Section $section, string $at): array
    {
        $errors = [];
        foreach (['teardown', 'assembly'] as $bench) {
            $required = [];
            foreach ($family->{$bench} as $i => $operation) {
                foreach (['parts', 'removes', 'installs'] as $field) {
                    foreach ($operation->body->{$field} ?? [] as $k => $part) {
                        $pointer = "$at/$bench/$i/body/$field/$k";
                        if (! isset($section->parts[$part])) {
                            $errors[] = ['pointer' => $pointer, 'detail' => "The part \"$part\" is not drawn."];
                        } elseif ($field !== 'parts' && ! ($operation->body->alternative ?? false)) {
                            $word = $field === 'removes' ? 'off' : 'in';
                            isset($required[$part]) && $errors[] = [
                                'pointer' => $pointer,
                                'detail' => "The part \"$part\" is $word already after \"{$required[$part]}\".",
                            ];
                            $required[$part] = $operation->code;
                        }
                    }
                }
            }
        }

        return $errors;
    }

    /** @return array<string, mixed> */
    private static function plain(\stdClass $node): array
    {
        return json_decode((string) json_encode($node), true);
    }
}
