<?php

namespace App\Stations\Ordering\Http;

use App\Shop\Http\SignedRequest;

final class ReleaseBuildRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'version' => 'required|integer',
            'acknowledged' => 'list|max:60',
            'acknowledged.*' => 'string|max:60',
        ];
    }
}
