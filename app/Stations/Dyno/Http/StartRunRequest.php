<?php

namespace App\Stations\Dyno\Http;

use App\Shop\Http\SignedRequest;

final class StartRunRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'specimen' => 'nullable|in:sound,flare-2-3,slip-4,tie-up-1-2,low-line,hunting,slow-shifts',
        ];
    }
}
