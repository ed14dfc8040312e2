<?php

namespace App\Stations\Returns\Http;

use App\Shop\Http\SignedRequest;

final class MeasureReturnRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'kind' => 'required|in:pack,end-play,air-check',
            'code' => 'required|string|max:60',
            'reading' => 'required|string|max:40',
            'version' => 'required|integer',
        ];
    }
}
