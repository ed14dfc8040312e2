<?php

namespace App\Money\Http;

use App\Shop\Http\SignedRequest;

final class ReviseCreditRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['reason' => 'required|string|max:300', 'version' => 'required|integer'];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return ['reason.required' => 'Say why the credit changes.'];
    }
}
