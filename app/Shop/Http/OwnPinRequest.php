<?php

namespace App\Shop\Http;

final class OwnPinRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['old' => 'required|string|max:20', 'pin' => 'required|string|max:20'];
    }
}
