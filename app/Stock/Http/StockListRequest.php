<?php

namespace App\Stock\Http;

use App\Shop\Http\SignedRequest;

final class StockListRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'q' => 'nullable|string|max:60',
            'sort' => 'nullable|string|max:20',
            'after' => 'nullable|string|max:300',
        ];
    }
}
