<?php

namespace App\Stations\Assembly\Http;

use App\Shop\Http\SignedRequest;

final class PickRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'part' => 'required|string|max:40',
            'lot' => 'required|string|max:60',
            'instead' => 'nullable|string|max:40',
        ];
    }
}
