<?php

namespace App\Stations\Identification\Http;

use App\Shop\Http\SignedRequest;

final class AskFeatureRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['feature' => 'required|string|max:60'];
    }
}
