<?php

namespace App\Yard\Http;

use App\Shop\Http\SignedRequest;

final class LiftHoldRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['reason' => 'required|string|max:300'];
    }
}
