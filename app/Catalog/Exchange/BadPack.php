<?php

namespace App\Catalog\Exchange;

use App\Kernel\Refusal;

/** A catalog pack that cannot be imported. */
final class BadPack extends Refusal
{
    /** @param  non-empty-list<array{pointer: string, detail: string}>  $errors */
    public function __construct(array $errors)
    {
        parent::__construct($errors[0]['detail'], 422, $errors);
    }
}
