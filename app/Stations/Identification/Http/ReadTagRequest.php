<?php

namespace App\Stations\Identification\Http;

use App\Shop\Http\SignedRequest;

final class ReadTagRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['text' => 'required|string|max:40'];
    }
}
