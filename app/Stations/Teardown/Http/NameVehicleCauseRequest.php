<?php

namespace App\Stations\Teardown\Http;

use App\Shop\Http\SignedRequest;

final class NameVehicleCauseRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'cause' => 'required|string|max:60',
            'note' => 'nullable|string|max:400',
        ];
    }
}
