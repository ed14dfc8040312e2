<?php

namespace App\Interchange\Http;

use App\Shop\Http\SignedRequest;

final class PartSourcesRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['number' => 'required|string|max:40'];
    }
}
