<?php

namespace App\Catalog\Exchange;

use App\Catalog\Read\ByOption;
use Illuminate\Support\Str;

/** Wave and cushion plates carry no lining and are graded by nobody: they are missed only when they are counted. */
final class CheckCounts
{
    /** Plates that are graded one by one, and so counted. */
    private const GRADED = 'friction plates';

    private const BENCHES = ['teardown' => 'removes', 'assembly' => 'installs'];

    /** @return list<array{pointer: string, detail: string}> */
    public static function errors(\stdClass $family, string $at): array
    {
        $family = (array) json_decode((string) json_encode($family), true);
        $errors = [];
        foreach ($family['packs'] as $pack) {
            foreach (self::BENCHES as $bench => $field) {
                foreach ($family[$bench] as $i => $operation) {
                    if (in_array($pack['body']['element'], $operation['body'][$field] ?? [], true)) {
                        array_push($errors, ...array_map(
                            fn (string $detail) => ['pointer' => "$at/$bench/$i/body/proofs", 'detail' => $detail],
                            self::missed($pack, $operation['body'], $bench === 'assembly'),
                        ));
                    }
                }
            }
        }

        return $errors;
    }

    /**
     * @param  array<string, mixed>  $pack
     * @param  array<string, mixed>  $operation
     * @return list<string> what this operation does not count as the pack has it, bare and with each of its options
     */
    private static function missed(array $pack, array $operation, bool $withOptions): array
    {
        $details = [];
        $options = array_map(strval(...), array_keys($withOptions ? $pack['body']['byOption'] ?? [] : []));
        foreach (['', ...$options] as $option) {
            $chosen = $option === '' ? [] : [$option => $option];
            $counted = self::counts(ByOption::apply($operation, $chosen));
            // An option that names no plate is refused elsewhere.
            foreach (array_filter(ByOption::apply($pack['body'], $chosen)['fixed'], self::isPlate(...)) as $plate) {
                $what = Str::plural($plate['name']);
                if ($plate['name'] !== self::GRADED && ($counted[$what] ?? 0) !== $plate['count']) {
                    $with = $option === '' ? '' : " with \"$option\"";
                    $details[] = "The $pack[name] has $plate[count] $what$with: "
                        .'this operation counts '.($counted[$what] ?? 'none').'.';
                }
            }
        }

        return $details;
    }

    /**
     * @param  array<string, mixed>  $operation
     * @return array<string, int>
     */
    private static function counts(array $operation): array
    {
        return array_merge(...array_column($operation['proofs'] ?? [], 'counts'));
    }

    /** @param  array<string, mixed>  $plate */
    private static function isPlate(array $plate): bool
    {
        return isset($plate['name'], $plate['count']);
    }
}
