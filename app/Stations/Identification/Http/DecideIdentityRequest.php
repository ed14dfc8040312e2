<?php

namespace App\Stations\Identification\Http;

use App\Shop\Http\SignedRequest;

final class DecideIdentityRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'variant' => 'nullable|string|max:40',
            'foreignParts' => 'list|max:40',
            'foreignParts.*' => 'string|max:80',
            'note' => 'nullable|string|max:300',
        ];
    }
}
