<?php

namespace App\Stations\Dyno\Http;

use App\Shop\Http\SignedRequest;

final class JudgeRunRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'verdict' => 'required|in:pass,fail,conditional',
            'reason' => 'nullable|string|max:400',
            'suspect' => 'nullable|string|max:60',
        ];
    }
}
