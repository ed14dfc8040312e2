<?php

namespace App\Work\Http;

use App\Shop\Http\SignedRequest;

final class ReachRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['part' => 'required|string|max:80'];
    }
}
