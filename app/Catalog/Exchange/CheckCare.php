<?php

namespace App\Catalog\Exchange;

/** Washing that the material stands, tools and circumstances that are known, kinds of parts with what they lose. */
final class CheckCare
{
    /** @var list<array{pointer: string, detail: string}> */
    private array $errors = [];

    /** @param  array<string, \stdClass>  $words  body of the vocabularies by code */
    private function __construct(private readonly array $words)
    {
    }

    /**
     * @param  list<\stdClass>  $vocabularies
     * @return list<array{pointer: string, detail: string}>
     */
    public static function errors(\stdClass $family, array $vocabularies, string $at): array
    {
        $check = new self(array_column($vocabularies, 'body', 'code'));
        foreach (['teardown', 'assembly'] as $bench) {
            foreach ($family->{$bench} as $i => $operation) {
                $check->operation($operation->body, "$at/$bench/$i/body");
            }
        }
        foreach ($family->findings as $i => $entry) {
            $check->finding($entry->body, "$at/findings/$i/body");
        }

        return $check->errors;
    }

    private function operation(\stdClass $body, string $at): void
    {
        $this->washing($body, $at);
        if (isset($body->onlyIf)) {
            $known = isset($this->known('circumstances', 'items')[$body->onlyIf]);
            $this->assert($known, "$at/onlyIf", "There is no circumstance \"$body->onlyIf\".");
            $frozen = str_contains($at, '/assembly/');
            $this->assert(! $frozen, "$at/onlyIf", 'What an order froze does not wait for circumstances.');
        }
        $tools = $this->known('special-tools', 'kinds');
        foreach ($body->proofs ?? [] as $k => $proof) {
            $this->assert(
                $proof->kind !== 'tool' || isset($tools[$proof->of]),
                "$at/proofs/$k/of",
                'There is no special tool "'.($proof->of ?? '').'".',
            );
        }
    }

    private function washing(\stdClass $body, string $at): void
    {
        $stages = $this->known('cleaning-stages', 'stages');
        foreach ($body->stages ?? [] as $n => $name) {
            $stage = $stages[$name] ?? null;
            $this->assert($stage !== null, "$at/stages/$n", "There is no stage of washing \"$name\".");
            foreach ($stage->never ?? [] as $never) {
                $this->assert(
                    ! in_array($never->material, $body->materials ?? [], true),
                    "$at/stages/$n",
                    "\"$name\" and $never->material: $never->reason",
                );
            }
        }
    }

    private function finding(\stdClass $body, string $at): void
    {
        $kind = $body->kind ?? null;
        $known = $kind === null || isset($this->known('part-kinds', 'kinds')[$kind]);
        $this->assert($known, "$at/kind", "There is no kind of part \"$kind\".");
        $grades = $this->known('part-kinds', 'kinds')[$kind]->grades ?? [];
        $this->assert(
            $grades === [] || count($body->conditions) <= count($grades),
            "$at/conditions",
            'A part of this kind has no more than '.count($grades).' conditions, from sound to worst.',
        );
        foreach ($body->pieces ?? [] as $n => $condition) {
            $is = in_array($condition, $body->conditions, true);
            $this->assert($is, "$at/pieces/$n", "\"$condition\" is no condition of this part.");
        }
    }

    /** @return array<string, \stdClass> by code */
    private function known(string $vocabulary, string $list): array
    {
        return array_column($this->words[$vocabulary]->{$list} ?? [], null, 'code');
    }

    private function assert(bool $holds, string $pointer, string $detail): void
    {
        $holds || $this->errors[] = ['pointer' => $pointer, 'detail' => $detail];
    }
}
