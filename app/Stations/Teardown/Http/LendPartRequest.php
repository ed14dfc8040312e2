<?php

namespace App\Stations\Teardown\Http;

use App\Shop\Http\SignedRequest;

final class LendPartRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'name' => 'required|string|max:160',
            'origin' => 'required|string|max:160',
            'reason' => 'required|string|max:300',
        ];
    }
}
