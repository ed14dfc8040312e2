<?php

namespace App\Catalog\Edit;

use App\Shop\Http\SignedRequest;

final class CatalogDiffRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['from' => 'required|date', 'to' => 'required|date|after_or_equal:from'];
    }
}
