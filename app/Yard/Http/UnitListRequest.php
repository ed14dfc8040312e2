<?php

namespace App\Yard\Http;

use App\Shop\Http\SignedRequest;

final class UnitListRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'station' => 'nullable|string|max:20',
            'late' => 'nullable|boolean',
            'before' => 'nullable|integer',
        ];
    }
}
