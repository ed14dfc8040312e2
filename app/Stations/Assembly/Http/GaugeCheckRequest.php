<?php

namespace App\Stations\Assembly\Http;

use App\Shop\Http\SignedRequest;

final class GaugeCheckRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'result' => 'required|in:good,bad',
            'nextDue' => 'nullable|date_format:Y-m-d',
            'note' => 'nullable|string|max:300',
        ];
    }
}
