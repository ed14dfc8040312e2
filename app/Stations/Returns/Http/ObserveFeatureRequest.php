<?php

namespace App\Stations\Returns\Http;

use App\Shop\Http\SignedRequest;

final class ObserveFeatureRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'feature' => 'required|string|max:60',
            'value' => 'nullable|string|max:120',
            'version' => 'required|integer',
        ];
    }
}
