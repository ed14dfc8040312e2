<?php

namespace App\Stations\Teardown\Http;

use App\Shop\Http\SignedRequest;

final class GradeAgainRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'part' => 'required|string|max:80',
            'condition' => 'required|string|max:60',
        ];
    }
}
