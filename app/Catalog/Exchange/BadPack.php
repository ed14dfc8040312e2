<?php

namespace App\Catalog\Exchange;

/** A catalog pack that cannot be imported. */
final class BadPack extends \RuntimeException
{
    /** @param  list<array{pointer: string, detail: string}>  $errors */
    public function __construct(public readonly array $errors)
    {
        parent::__construct($errors[0]['pointer'].': '.$errors[0]['detail']);
    }
}
