<?php

namespace App\Stations\Dyno\Http;

use App\Shop\Http\SignedRequest;

final class KeepReferenceRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['coreTag' => 'required|string|max:40'];
    }
}
