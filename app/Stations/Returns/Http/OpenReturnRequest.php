<?php

namespace App\Stations\Returns\Http;

use App\Shop\Http\SignedRequest;

final class OpenReturnRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'serial' => 'required|string|max:20',
            'complaint' => 'required|string|max:2000',
            'codes' => 'list|max:40',
            'codes.*' => 'string|max:20',
            'installedOn' => 'nullable|date_format:Y-m-d',
            'failedOn' => 'required|date_format:Y-m-d',
            'odometer' => 'nullable|string|max:30',
        ];
    }
}
