<?php

namespace App\Stations\Assembly\Http;

use App\Shop\Http\SignedRequest;

final class ProposeFitRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['reading' => 'required|string|max:40', 'trialWasher' => 'nullable|string|max:40'];
    }
}
