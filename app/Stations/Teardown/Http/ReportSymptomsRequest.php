<?php

namespace App\Stations\Teardown\Http;

use App\Shop\Http\SignedRequest;

final class ReportSymptomsRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'observed' => 'present|array|max:40',
            'observed.*' => 'string|max:20',
            'pressures' => 'nullable|array|max:20',
            'pressures.*' => 'string|max:20',
        ];
    }
}
