<?php

namespace App\Work;

use App\Catalog\Read\MetalPairs;
use Illuminate\Support\Str;

/** One thing an operation must prove. */
final readonly class ProofSpec
{
    /**
     * @param  string  $code  unique in its operation
     * @param  string  $of  what it concerns: a place, a group of bolts, a part, a text; may be empty
     * @param  array<string, mixed>  $body  as the catalog has it
     */
    private function __construct(
        public string $operation,
        public string $code,
        public ProofKind $kind,
        public string $of,
        public array $body,
    ) {
    }

    /** @param  array<string, mixed>  $body */
    public static function read(string $operation, array $body): self
    {
        $kind = ProofKind::from($body['kind']);
        $of = (string) ($body['of'] ?? '');

        $code = $of === '' ? $kind->value : $kind->value.'-'.Str::slug(str_replace(':', '-', $of));

        return new self($operation, $code, $kind, $of, $body);
    }

    /** Unique at its bench. */
    public function key(): string
    {
        return "$this->operation/$this->code";
    }

    /** What is measured, where the proof is a number. */
    public function reading(): ReadingKind
    {
        return match ($this->kind) {
            ProofKind::Torque => ReadingKind::Torque,
            ProofKind::Air => ReadingKind::AirCheck,
            ProofKind::Values => ReadingKind::BenchTest,
            default => ReadingKind::from(Str::before($this->of, ':')),
        };
    }

    /** Code of the place, without its kind. */
    public function place(): string
    {
        return str_contains($this->of, ':') ? Str::after($this->of, ':') : $this->of;
    }

    /** @return array<string, mixed> as the bench shows it */
    public function shown(): array
    {
        $metal = ['ask' => 'What are the bolts in hand made of?', 'choices' => MetalPairs::METALS];

        return ['code' => $this->code]
            + $this->body
            + ['of' => $this->of]
            + ($this->kind === ProofKind::Metal ? $metal : []);
    }
}
