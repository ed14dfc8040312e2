<?php

declare(strict_types=1);

namespace Yard\Core\Credit;

/** One line of a core credit; money in whole hundredths. */
final readonly class CreditLine
{
    public function __construct(
        public string $kind,
        public string $label,
        public float $quantity,
        public int $unitCents,
        public int $cents,
    ) {
    }

    /** @return array{kind: string, label: string, quantity: float, unitPrice: float|int, amount: float|int} */
    public function toArray(): array
    {
        return [
            'kind' => $this->kind,
            'label' => $this->label,
            'quantity' => $this->quantity,
            'unitPrice' => $this->unitCents / 100,
            'amount' => $this->cents / 100,
        ];
    }
}
