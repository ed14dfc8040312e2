<?php

namespace App\Stock\Http;

use App\Shop\Http\SignedRequest;

final class LotRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['sort' => 'nullable|string|max:20', 'after' => 'nullable|string|max:200'];
    }
}
