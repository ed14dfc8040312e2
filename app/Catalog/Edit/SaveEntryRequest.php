<?php

namespace App\Catalog\Edit;

use App\Shop\Http\SignedRequest;

final class SaveEntryRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'kind' => 'required|string|max:40',
            'family' => 'nullable|string|max:40',
            'key' => 'nullable|string|max:200',
            'seen' => 'nullable|string|max:100',
        ];
    }
}
