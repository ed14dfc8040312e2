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
        'air' => 'airChecks',
        'condition' => 'findings',
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
