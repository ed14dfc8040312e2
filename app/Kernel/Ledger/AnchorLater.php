<?php

namespace App\Kernel\Ledger;

use Illuminate\Contracts\Queue\ShouldQueue;
use Illuminate\Foundation\Bus\Dispatchable;
use Illuminate\Queue\InteractsWithQueue;

/** A head that could not be written down when its event was stored: tried again until there is room. */
final class AnchorLater implements ShouldQueue
{
    use Dispatchable;
    use InteractsWithQueue;

    private const AGAIN_AFTER_S = 10;

    public int $tries = 0;

    public function __construct(
        private readonly string $stream,
        private readonly int $seq,
        private readonly string $hash,
    ) {
    }

    public function retryUntil(): \DateTimeInterface
    {
        return now()->addMonth();
    }

    public function handle(): void
    {
        Anchors::add($this->stream, $this->seq, $this->hash) || $this->release(self::AGAIN_AFTER_S);
    }
}
