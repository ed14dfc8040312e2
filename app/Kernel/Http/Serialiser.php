<?php

namespace App\Kernel\Http;

use Illuminate\Http\Request;

/** Knows what a write is about: whoever writes on the same thing waits until the one before is done. */
interface Serialiser
{
    /** Found before the transaction begins; null where the write is about nothing that is there already. */
    public function subjectOf(Request $request): ?int;

    /** Lets one writer at a time pass, until its transaction ends. */
    public function lock(int $subject): void;
}
