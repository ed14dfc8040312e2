<?php

namespace App\Work\Http;

use App\Shop\Http\SignedRequest;

final class MarkStepRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'counts' => 'array|max:20',
            'counts.*' => 'integer|min:0|max:999',
            'note' => 'nullable|string|max:400',
        ];
    }
}
