<?php

namespace App\Yard\Http;

use App\Shop\Http\SignedRequest;

final class ScanRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['q' => 'required|string|max:60'];
    }
}
