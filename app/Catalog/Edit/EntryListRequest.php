<?php

namespace App\Catalog\Edit;

use App\Shop\Http\SignedRequest;

final class EntryListRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'kind' => 'required|string|max:40',
            'family' => 'nullable|string|max:40',
            'q' => 'nullable|string|max:60',
            'after' => 'nullable|string|max:200',
            'asOf' => 'nullable|date',
        ];
    }
}
