<?php

namespace App\Money\Http;

use App\Shop\Http\SignedRequest;

final class BalancesRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['q' => 'nullable|string|max:60', 'after' => 'nullable|integer|between:0,1000000'];
    }
}
