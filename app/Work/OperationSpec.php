<?php

namespace App\Work;

use Yard\Core\Work\Operation;

/** One piece of work at a bench, with what comes before it and what proves it. */
final readonly class OperationSpec
{
    /** What the bench shows of an operation beside its proofs, as it is written in the catalog. */
    private const SHOWN = [
        'tool',
        'stages',
        'sub',
        'fasteners',
        'trap',
        'mark',
        'comesWith',
        'staysBehind',
        'keepTogether',
        'caution',
        'because',
        'house',
        'source',
        'confidence',
        'parts',
        'installs',
        'scope',
    ];

    /**
     * @param  list<string>  $after
     * @param  list<list<string>>  $afterAny
     * @param  list<ProofSpec>  $proofs
     * @param  array<string, mixed>  $body
     */
    private function __construct(
        public string $code,
        public string $name,
        public array $after,
        public array $afterAny,
        public array $proofs,
        public array $body,
    ) {
    }

    /** @param  array<string, mixed>  $body  as the catalog has it, with code and name */
    public static function read(array $body): self
    {
        $proofs = $body['proofs'] ?? [];
        $kinds = array_column($proofs, 'kind');
        // A timer that ran out, or a tool that lies ready, does not say that the work is done.
        $timed = in_array('timer', $kinds, true) && ! in_array('done', $kinds, true);
        if (array_diff($kinds, ['tool']) === [] || $timed) {
            $proofs[] = ['kind' => 'done'];
        }

        return new self(
            $body['code'],
            $body['name'],
            $body['after'] ?? [],
            $body['afterAny'] ?? [],
            array_values(array_map(fn (array $p) => ProofSpec::read($body['code'], $p), $proofs)),
            $body,
        );
    }

    /** The same operation where some others are not part of the job: what came before them comes before it.
     *
     * @param  array<string, self>  $all
     * @param  array<string, mixed>  $in  keys are part of the job
     */
    public function within(array $all, array $in): self
    {
        $groups = array_map(
            fn (array $group): array => array_values(array_filter($group, fn (string $c) => isset($in[$c]))),
            array_filter(
                $this->afterAny,
                fn (array $group): bool => array_filter($group, fn (string $c) => ! isset($in[$c])) !== $group,
            ),
        );

        return new self(
            $this->code,
            $this->name,
            self::bridged($this->after, $all, $in),
            array_values($groups),
            $this->proofs,
            $this->body,
        );
    }

    public function proof(string $code): ?ProofSpec
    {
        foreach ($this->proofs as $proof) {
            if ($proof->code === $code) {
                return $proof;
            }
        }

        return null;
    }

    public function forPlan(): Operation
    {
        return new Operation(
            $this->code,
            $this->after,
            $this->afterAny,
            $this->body['removes'] ?? [],
            $this->body['renews'] ?? [],
            (float) ($this->body['hours'] ?? 0),
            ($this->body['place'] ?? 'bench') === 'vehicle',
            $this->body['alternative'] ?? false,
        );
    }

    /** @return array<string, mixed> as the bench shows it, without its state */
    public function shown(): array
    {
        return [
            'code' => $this->code,
            'name' => $this->name,
            'after' => $this->after,
            'afterAny' => $this->afterAny,
            'alternative' => $this->body['alternative'] ?? false,
            'hours' => (float) ($this->body['hours'] ?? 0),
            'removes' => $this->body['removes'] ?? [],
            'proofs' => array_map(fn (ProofSpec $p) => $p->shown(), $this->proofs),
        ] + array_intersect_key($this->body, array_flip(self::SHOWN));
    }

    /**
     * @param  list<string>  $codes
     * @param  array<string, self>  $all
     * @param  array<string, mixed>  $in
     * @return list<string>
     */
    private static function bridged(array $codes, array $all, array $in): array
    {
        $bridged = [];
        while ($codes !== []) {
            $code = array_shift($codes);
            isset($in[$code]) ? $bridged[$code] = true : array_push($codes, ...$all[$code]->after ?? []);
        }

        return array_map(strval(...), array_keys($bridged));
    }
}
