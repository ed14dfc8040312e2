<?php

namespace App\Stations\Teardown\Http;

use App\Shop\Http\SignedRequest;

final class SettleVehicleCauseRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'who' => 'required|string|max:120',
            'how' => 'required|string|max:300',
        ];
    }
}
