<?php

namespace App\Catalog\Exchange;

use Yard\Core\Quantity\Unit;

/** Tests at the bench: taken together with one gauge, reckoned from what stands before them, asked for by somebody. */
final class CheckTests
{
    /** @return list<array{pointer: string, detail: string}> */
    public static function errors(\stdClass $family, string $at): array
    {
        $errors = $kinds = $before = [];
        foreach ($family->benchTests as $i => $test) {
            $body = $test->body;
            $kind = Unit::of($body->unit)->kind;
            $kinds[$body->group] ??= $kind;
            if ($kinds[$body->group] !== $kind) {
                $errors[] = [
                    'pointer' => "$at/benchTests/$i/body/unit",
                    'detail' => "All tests of \"$body->group\" are read off one gauge; this is another quantity.",
                ];
            }
            foreach ((array) ($body->derived ?? []) as $field => $code) {
                if (! isset($before[$body->group][$code])) {
                    $errors[] = [
                        'pointer' => "$at/benchTests/$i/body/derived/$field",
                        'detail' => "There is no test \"$code\" before this one in its group.",
                    ];
                }
            }
            $before[$body->group][$test->code] = true;
        }

        return [...$errors, ...self::unasked($family, array_keys($kinds), $at), ...self::untried($family, $at)];
    }

    /**
     * @param  list<string>  $groups
     * @return list<array{pointer: string, detail: string}> groups no operation asks for, and those it asks for in vain
     */
    private static function unasked(\stdClass $family, array $groups, string $at): array
    {
        $errors = [];
        $asked = [];
        foreach ($family->assembly as $i => $operation) {
            foreach (self::proofs($operation->body) as $proof) {
                if ($proof->kind === 'values') {
                    $asked[] = $proof->of;
                    in_array($proof->of, $groups, true) || $errors[] = [
                        'pointer' => "$at/assembly/$i/body/proofs",
                        'detail' => "There are no tests \"$proof->of\" in this family.",
                    ];
                }
            }
        }
        foreach (array_diff($groups, $asked) as $group) {
            $errors[] = ['pointer' => "$at/benchTests", 'detail' => "No operation asks for the tests \"$group\"."];
        }

        return $errors;
    }

    /** @return list<array{pointer: string, detail: string}> valves the control moves that nobody tries in their bore */
    private static function untried(\stdClass $family, string $at): array
    {
        $proofs = array_merge(...array_map(fn (\stdClass $o): array => self::proofs($o->body), $family->assembly));
        $tried = array_merge(...array_map(fn (\stdClass $p): array => $p->kind === 'free' ? $p->each : [], $proofs));
        if ($tried === []) {
            return []; // a pack from before valves were tried one by one
        }
        $errors = [];
        foreach ($family->body->control->solenoids ?? [] as $i => $solenoid) {
            foreach (array_diff($solenoid->moves ?? [], $tried) as $valve) {
                $errors[] = [
                    'pointer' => "$at/body/control/solenoids/$i/moves",
                    'detail' => "No operation tries whether the \"$valve\" moves freely.",
                ];
            }
        }

        return $errors;
    }

    /** @return list<\stdClass> also those that options bring */
    private static function proofs(\stdClass $body): array
    {
        $changed = array_map(
            fn (\stdClass $change): array => $change->proofs ?? [],
            array_values((array) ($body->byOption ?? [])),
        );

        return array_values(array_merge($body->proofs ?? [], ...$changed));
    }
}
