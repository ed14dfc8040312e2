<?php

namespace App\Stations\Teardown\Http;

use App\Shop\Http\SignedRequest;

final class RecordFindingRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'part' => 'required|string|max:80',
            'condition' => 'required|string|max:60',
            'disposition' => 'required|in:reuse,recondition,replace,scrap,shelf',
            'role' => 'required|in:cause,collateral,none',
            'ours' => 'boolean',
            'note' => 'nullable|string|max:400',
            'version' => 'nullable|integer',
        ];
    }
}
