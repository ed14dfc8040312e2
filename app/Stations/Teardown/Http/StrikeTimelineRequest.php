<?php

namespace App\Stations\Teardown\Http;

use App\Shop\Http\SignedRequest;

final class StrikeTimelineRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'km' => 'required|integer|min:0',
            'kind' => 'required|string|max:20',
            'said' => 'required|string|max:120',
        ];
    }
}
