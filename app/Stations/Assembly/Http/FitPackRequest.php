<?php

namespace App\Stations\Assembly\Http;

use App\Shop\Http\SignedRequest;

final class FitPackRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'reading' => 'required|string|max:40',
            'trialWasher' => 'nullable|string|max:40',
            'picks' => 'required|list|min:1|max:60',
            'picks.*.slot' => 'required|string|max:60',
            'picks.*.part' => 'required|string|max:40',
            'picks.*.count' => 'required|integer|min:1|max:99',
        ];
    }
}
