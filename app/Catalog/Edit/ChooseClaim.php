<?php

namespace App\Catalog\Edit;

use App\Catalog\Exchange\CatalogStore;
use App\Kernel\Refusal;
use App\Shop\Models\Person;

/** Of conflicting specifications the house picks one and signs it; the one it replaces stays beside it as a claim. */
final class ChooseClaim
{
    public function __construct(private readonly EditEntry $edit, private readonly CatalogStore $store)
    {
    }

    public function choose(string $kind, string $key, int $claim, string $reason, string $seen, Person $by): void
    {
        $node =
            $this->store->nodes($kind, null, null, [$key])[$key] ??
            throw new Refusal("There is no entry \"$key\".", 404);
        $chosen =
            ($node->claims ?? [])[$claim] ??
            throw Refusal::at('/claim', 'There is no such claim beside this specification.');
        $replaced = (object) [
            'body' => $node->body,
            'source' => $node->source,
            'edition' => $node->edition,
            'confidence' => $node->confidence,
        ];
        foreach (['body', 'source', 'edition', 'confidence'] as $field) {
            $node->{$field} = $chosen->{$field};
        }
        $node->claims[$claim] = $replaced;
        $node->signed = (object) ['by' => $by->name, 'on' => now()->format('Y-m-d'), 'reason' => $reason];
        $this->edit->save($kind, explode('|', $key)[0], $key, $node, $seen);
    }
}
