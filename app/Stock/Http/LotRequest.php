<?php

namespace App\Stock\Http;

use App\Shop\Http\SignedRequest;

final class LotRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['after' => 'nullable|integer'];
    }
}
