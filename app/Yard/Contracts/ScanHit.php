<?php

namespace App\Yard\Contracts;

/** Something the scan line found. */
final readonly class ScanHit
{
    /**
     * @param  string  $kind  what it is, in the words of the shop
     * @param  string  $text  the number or name that was found
     * @param  string  $to  address in the interface that shows it
     */
    public function __construct(public string $kind, public string $text, public string $detail, public string $to)
    {
    }
}
