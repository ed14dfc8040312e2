<?php

namespace App\Catalog\Edit;

use App\Shop\Http\SignedRequest;

final class EntryRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'kind' => 'required|string|max:40',
            'key' => 'nullable|string|max:200',
            'asOf' => 'nullable|date',
        ];
    }
}
