<?php

namespace App\Stations\Assembly\Http;

use App\Shop\Http\SignedRequest;

final class GaugeStudyRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'rows' => 'required|list|min:8|max:2000',
            'rows.*.person' => 'required|string|max:60',
            'rows.*.part' => 'required|string|max:60',
            'rows.*.reading' => 'required|string|max:40',
        ];
    }
}
