<?php

namespace App\Kernel\Ledger;

/** How far a walk through the ledger has come; it can go on from here, also in another process. */
final readonly class Checkpoint implements \JsonSerializable
{
    public function __construct(
        public string $stream,
        public int $seq,
        public string $hash,
        public int $events,
        public bool $broken = false,
    ) {
    }

    public static function start(): self
    {
        return new self('', 0, Ledger::GENESIS, 0);
    }

    public function to(int $seq, string $hash, bool $broken): self
    {
        return new self($this->stream, $seq, $hash, $this->events + 1, $this->broken || $broken);
    }

    /** @return array<string, mixed> */
    public function jsonSerialize(): array
    {
        return get_object_vars($this);
    }

    public static function read(string $file): ?self
    {
        $kept = json_decode((string) @file_get_contents($file), true);

        return is_array($kept) ? new self(...$kept) : null;
    }
}
