<?php

namespace App\Shop\Http;

final class SignInLogRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['badge' => 'nullable|string|max:20', 'before' => 'nullable|integer'];
    }
}
