<?php

namespace App\Stations\Teardown\Http;

use App\Shop\Http\SignedRequest;

final class UnharmedRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['parts' => 'required|array|min:1|max:60', 'parts.*' => 'required|string|max:80|distinct'];
    }
}
