<?php

namespace App\Stations\Assembly\Http;

use App\Shop\Http\SignedRequest;

final class RecordReadingRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'kind' => 'required|in:pack,end-play,air-check,torque',
            'code' => 'required|string|max:60',
            'reading' => 'required|string|max:40',
            'gauge' => 'nullable|string|max:20',
            'note' => 'nullable|string|max:300',
        ];
    }
}
