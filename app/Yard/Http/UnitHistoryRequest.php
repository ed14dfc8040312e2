<?php

namespace App\Yard\Http;

use App\Shop\Http\SignedRequest;

final class UnitHistoryRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['before' => 'nullable|integer'];
    }
}
