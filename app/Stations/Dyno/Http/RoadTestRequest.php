<?php

namespace App\Stations\Dyno\Http;

use App\Shop\Http\SignedRequest;

final class RoadTestRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'why' => 'nullable|string|max:400',
            'pressures' => 'nullable|array|max:20',
            'pressures.*' => 'nullable|string|max:30',
            'road' => 'nullable|array|max:40',
            'road.*.right' => 'nullable|boolean',
            'road.*.note' => 'nullable|string|max:200',
            'suspect' => 'nullable|string|max:60',
        ];
    }
}
