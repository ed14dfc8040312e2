<?php

namespace App\Stations\Receiving\Http;

use App\Shop\Http\SignedRequest;

final class FillTrayRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'tag' => 'required|string|max:20',
            'items' => 'required|list|min:1|max:200',
            'items.*.name' => 'required|string|max:120',
            'items.*.count' => 'required|integer|min:1|max:500',
            'items.*.keepTogether' => 'nullable|string|max:40',
        ];
    }
}
