<?php

namespace App\Catalog\Exchange;

use Yard\Core\Power\MemberTorque;

/** The strength register of a family: parts that are drawn, torque that goes through something the train has. */
final class CheckStrength
{
    /** @return list<array{pointer: string, detail: string}> */
    public static function errors(\stdClass $family, string $at): array
    {
        $drawn = array_column($family->body->section->parts ?? [], 'code');
        $known = [...array_column($family->train->elements ?? [], 'id'), MemberTorque::INPUT, MemberTorque::OUTPUT];
        $errors = [];
        foreach ($family->body->strength ?? [] as $n => $part) {
            $pointer = "$at/body/strength/$n";
            if (! in_array($part->part, $drawn, true)) {
                $errors[] = ['pointer' => "$pointer/part", 'detail' => "The part \"$part->part\" is not drawn."];
            }
            if (! in_array($part->carries, $known, true)) {
                $detail = "The train has no element \"$part->carries\".";
                $errors[] = ['pointer' => "$pointer/carries", 'detail' => $detail];
            }
            if (($part->inner_mm ?? 0) >= $part->outer_mm) {
                $detail = 'The bore must be smaller than the outside.';
                $errors[] = ['pointer' => "$pointer/inner_mm", 'detail' => $detail];
            }
        }

        return $errors;
    }
}
