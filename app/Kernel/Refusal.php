<?php

namespace App\Kernel;

/** The shop's rules say no: one sentence for the person at the screen, and the field it belongs to. */
class Refusal extends \RuntimeException
{
    /**
     * @param  list<array{pointer: string, detail: string}>  $errors
     * @param  array<string, mixed>  $more
     */
    public function __construct(
        string $sentence,
        public readonly int $status = 422,
        public readonly array $errors = [],
        public readonly array $more = [],
    ) {
        parent::__construct($sentence);
    }

    public static function at(string $pointer, string $sentence): self
    {
        return new self($sentence, 422, [['pointer' => $pointer, 'detail' => $sentence]]);
    }

    /**
     * Two people changed the same record: both versions go back to the screen.
     *
     * @param  array<string, mixed>  $current
     * @param  array<string, mixed>  $yours
     */
    public static function stale(string $what, array $current, array $yours): self
    {
        return new self(
            "Somebody else changed $what while you were typing. Compare both versions and save again.",
            409,
            [],
            ['current' => $current, 'yours' => $yours],
        );
    }
}
