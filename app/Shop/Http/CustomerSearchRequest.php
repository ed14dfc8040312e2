<?php

namespace App\Shop\Http;

final class CustomerSearchRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['q' => 'nullable|string|max:80'];
    }
}
