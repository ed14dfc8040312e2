<?php

namespace App\Stations\Teardown\Http;

use App\Shop\Http\SignedRequest;

final class TraceLeakRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'observed' => 'present|array|max:20',
            'observed.*' => 'required|string|max:60',
        ];
    }
}
