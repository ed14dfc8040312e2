<?php

namespace App\Yard;

/** What a customer asked for: a package, options beside it, options left out, and the duty. */
final readonly class AskedOrder
{
    /**
     * @param  list<string>  $add  codes of options
     * @param  list<string>  $drop
     * @param  array<string, mixed>|null  $duty  as it was typed at the order desk
     */
    public function __construct(
        public string $package,
        public array $add = [],
        public array $drop = [],
        public ?array $duty = null,
    ) {
    }

    /** @param  array<string, mixed>  $in validated */
    public static function read(array $in): self
    {
        return new self($in['package'], $in['add'] ?? [], $in['drop'] ?? [], $in['duty'] ?? null);
    }

    /** @return array{package: string, add: list<string>, drop: list<string>, duty: array<string, mixed>|null} */
    public function toArray(): array
    {
        return [
            'package' => $this->package,
            'add' => $this->add,
            'drop' => $this->drop,
            'duty' => $this->duty,
        ];
    }
}
