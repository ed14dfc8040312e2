<?php

namespace App\Shop\Http;

final class PinRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['pin' => 'required|string|max:20'];
    }
}
