<?php

namespace App\Stations\Teardown\Http;

use App\Shop\Http\SignedRequest;
use App\Stations\Teardown\Queries\Rescue;
use Illuminate\Validation\Rule;

final class RepairPlaceRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'place' => 'required|string|max:80',
            'trouble' => ['required', Rule::in(Rescue::TROUBLES)],
            'method' => 'required|string|max:60',
            'note' => 'nullable|string|max:400',
        ];
    }
}
