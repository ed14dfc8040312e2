<?php

namespace App\Stations\Dispatch\Http;

use App\Shop\Http\SignedRequest;

final class ShipUnitRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'customer' => 'nullable|string|max:20',
            'carrier' => 'nullable|string|max:80',
        ];
    }
}
