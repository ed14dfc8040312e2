<?php

namespace App\Interchange\Http;

use App\Shop\Http\SignedRequest;

final class VehicleSupplyRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['year' => 'nullable|integer|min:1950|max:2100'];
    }
}
