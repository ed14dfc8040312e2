<?php

namespace App\Yard\Contracts;

use App\Yard\Models\Build;

/** How many builds went into the field, for what, and how many of them came back, written down as it happens. */
interface FieldRecord
{
    /** Must be called in the transaction that ships the build. */
    public function shipped(Build $build): void;

    /** Must be called in the transaction that takes it back for the first time. */
    public function cameBack(Build $build): void;

    /** @return array{shipped: int, returned: int} */
    public function ofVariant(int $variantId): array;
}
