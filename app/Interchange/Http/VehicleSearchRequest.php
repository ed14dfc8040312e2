<?php

namespace App\Interchange\Http;

use App\Shop\Http\SignedRequest;

final class VehicleSearchRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['q' => 'required|string|max:60'];
    }
}
