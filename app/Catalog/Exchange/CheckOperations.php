<?php

namespace App\Catalog\Exchange;

use Yard\Core\BadInput;
use Yard\Core\Work\Graph;
use Yard\Core\Work\Operation;

/** The operations of a bench: a graph that can be worked through, with proofs of what the family has. */
final class CheckOperations
{
    /** Where the thing lives that a proof is of. */
    private const LISTS = [
        'pack' => 'packs',
        'end-play' => 'endPlays',
        'torque' => 'fasteners',
        'metal' => 'fasteners',
        'air' => 'airChecks',
        'condition' => 'findings',
        'observation' => 'seen',
    ];

    /** @var list<array{pointer: string, detail: string}> */
    private array $errors = [];

    private function __construct(private readonly \stdClass $family)
    {
    }

    /** @return list<array{pointer: string, detail: string}> */
    public static function errors(\stdClass $family, string $bench, string $at): array
    {
        $check = new self($family);
        $check->graph($family->{$bench}, "$at/$bench");
        foreach ($family->{$bench} as $i => $operation) {
            $check->operation($operation->body, "$at/$bench/$i/body");
        }

        return $check->errors;
    }

    /**
     * Operations the shop has for every family: they can prove nothing that only a family has.
     *
     * @param  list<\stdClass>  $operations  with code and name beside what they are
     * @param  list<string>  $seen  what can be seen of a returned unit
     * @return list<array{pointer: string, detail: string}>
     */
    public static function ofShop(array $operations, array $seen, string $at): array
    {
        $family = (object) (array_fill_keys(array_values(self::LISTS), []) + ['list' => []]);
        $family->seen = array_map(fn (string $code) => (object) ['code' => $code], $seen);
        foreach ($operations as $o) {
            $body = (object) array_diff_key((array) $o, ['code' => 0, 'name' => 0]);
            $family->list[] = (object) ['code' => $o->code ?? '', 'name' => $o->name ?? '', 'body' => $body];
        }
        $errors = CheckPack::violations(
            (object) ['list' => $family->list],
            (object) ['properties' => (object) [
                'list' => (object) ['items' => self::ofShopSchema()],
            ]],
        );
        $errors = $errors === [] ? self::errors($family, 'list', '') : $errors;

        return array_map(fn (array $e): array => [
            'pointer' => $at.preg_replace('~^/list|(?<=[0-9])/body~', '', $e['pointer']),
            'detail' => $e['detail'],
        ], $errors);
    }

    /** An operation of the shop needs no source of its own, its vocabulary names it; and it may ask what is seen. */
    private static function ofShopSchema(): \stdClass
    {
        $schema = CheckPack::entrySchema('teardown');
        $schema->required = ['code', 'name', 'body'];
        $text = (object) ['type' => 'string', 'minLength' => 1];
        $schema->properties->body->properties->proofs->items->oneOf[] = (object) [
            'type' => 'object',
            'properties' => (object) ['kind' => (object) ['const' => 'observation'], 'of' => $text],
            'required' => ['kind', 'of'],
            'additionalProperties' => false,
        ];

        return $schema;
    }

    /** @param  list<\stdClass>  $operations */
    private function graph(array $operations, string $at): void
    {
        try {
            new Graph(array_map(
                fn (\stdClass $o) => new Operation(
                    $o->code,
                    $o->body->after,
                    $o->body->afterAny ?? [],
                    $o->body->removes ?? [],
                    $o->body->renews ?? [],
                    (float) ($o->body->hours ?? 0),
                    ($o->body->place ?? 'bench') === 'vehicle',
                    $o->body->alternative ?? false,
                ),
                $operations,
            ));
        } catch (BadInput $e) {
            // "/operations/3/after/0" of the graph is "/3/body/after/0" of the list
            $path = preg_replace('~^/operations(/[0-9]+)?~', '$1/body', $e->path) ?? '';
            $this->add($at.($e->path === '/operations' ? '' : $path), $e->getMessage());
        }
    }

    private function operation(\stdClass $body, string $at): void
    {
        if (isset($body->fasteners) && ! $this->has('fasteners', $body->fasteners)) {
            $this->add("$at/fasteners", "There are no fasteners \"$body->fasteners\" in this family.");
        }
        $kinds = array_column($body->proofs ?? [], 'kind');
        if (in_array('skilled', $kinds, true) && array_diff($kinds, ['skilled', 'tool', 'done']) === []) {
            $this->add("$at/proofs", 'A skill alone proves nothing: say what else shows that the work is right.');
        }
        $seen = [];
        foreach ($body->proofs ?? [] as $k => $proof) {
            $this->proof($proof, "$at/proofs/$k");
            $key = $proof->kind.' '.($proof->of ?? '');
            isset($seen[$key]) && $this->add("$at/proofs/$k", 'This proof is asked for twice.');
            $seen[$key] = true;
        }
    }

    private function proof(\stdClass $proof, string $at): void
    {
        $of = $proof->of ?? '';
        [$kind, $code] = str_contains($of, ':') ? explode(':', $of, 2) : [$proof->kind, $of];
        $list = self::LISTS[$kind] ?? null;
        if ($list !== null && ! $this->has($list, $code)) {
            $this->add("$at/of", "There is no \"$code\" among the $list of this family.");
        }
        if ($proof->kind === 'orientation' && ! in_array($proof->right, $proof->choices, true)) {
            $this->add("$at/right", 'The right answer must be one of the choices.');
        }
        if (isset($proof->pattern) && @preg_match('~'.str_replace('~', '\~', $proof->pattern).'~u', '') === false) {
            $this->add("$at/pattern", 'This is not a regular expression.');
        }
    }

    private function has(string $list, string $code): bool
    {
        return in_array($code, array_column($this->family->{$list}, 'code'), true);
    }

    private function add(string $pointer, string $detail): void
    {
        $this->errors[] = ['pointer' => $pointer, 'detail' => $detail];
    }
}
