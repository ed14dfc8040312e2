<?php

namespace App\Stations\Receiving\Http;

use App\Shop\Http\SignedRequest;

final class WeighTrayRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'item' => 'required|string|max:120',
            'basket' => 'required|string|max:20',
            'filled' => 'required|string|max:20',
            'sample' => 'required|integer|min:1|max:500',
            'sampleWeight' => 'required|string|max:20',
        ];
    }
}
