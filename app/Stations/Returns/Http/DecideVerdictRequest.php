<?php

namespace App\Stations\Returns\Http;

use App\Shop\Http\SignedRequest;

final class DecideVerdictRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'verdict' => 'required|string|max:40',
            'note' => 'nullable|string|max:600',
            'split' => 'required|array|min:1|max:6',
            'split.*' => 'numeric|min:0|max:100',
            'version' => 'required|integer',
        ];
    }
}
