<?php

namespace App\Catalog\Edit;

use App\Shop\Http\SignedRequest;

final class RemoveEntryRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['kind' => 'required|string|max:40', 'key' => 'required|string|max:200'];
    }
}
