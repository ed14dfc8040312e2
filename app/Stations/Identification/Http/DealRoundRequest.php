<?php

namespace App\Stations\Identification\Http;

use App\Shop\Http\SignedRequest;

final class DealRoundRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['family' => 'nullable|string|max:40'];
    }
}
