<?php

namespace App\Stations\Identification\Http;

use App\Shop\Http\SignedRequest;

final class AnswerClueRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['feature' => 'required|string|max:60', 'value' => 'nullable|string|max:120'];
    }
}
