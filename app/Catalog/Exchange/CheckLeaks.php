<?php

namespace App\Catalog\Exchange;

use App\Catalog\Read\EvidenceTable;
use Yard\Core\BadInput;

/** The leak table of a family: a table that can be weighed, and seals that are drawn. */
final class CheckLeaks
{
    /** @return list<array{pointer: string, detail: string}> */
    public static function errors(\stdClass $family, string $at): array
    {
        $leaks = $family->body->leaks ?? null;
        if ($leaks === null) {
            return [];
        }
        $drawn = array_column($family->body->section->parts ?? [], 'code');
        $errors = [];
        foreach ($leaks->hypotheses as $n => $seal) {
            if (isset($seal->part) && ! in_array($seal->part, $drawn, true)) {
                $errors[] = [
                    'pointer' => "$at/body/leaks/hypotheses/$n/part",
                    'detail' => "The part \"$seal->part\" is not drawn.",
                ];
            }
        }
        try {
            EvidenceTable::read(json_decode((string) json_encode($leaks), true))->model();
        } catch (BadInput $e) {
            $errors[] = ['pointer' => "$at/body/leaks$e->path", 'detail' => $e->getMessage()];
        }

        return $errors;
    }
}
