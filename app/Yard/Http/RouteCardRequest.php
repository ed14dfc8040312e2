<?php

namespace App\Yard\Http;

use App\Shop\Http\SignedRequest;

final class RouteCardRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['sections' => 'nullable|string|max:120'];
    }
}
