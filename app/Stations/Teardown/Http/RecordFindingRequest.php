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
            'condition' => 'required_without:plates|nullable|string|max:60',
            'plates' => 'array|max:30',
            'plates.*' => 'required|string|max:60',
            'reading' => 'nullable|string|max:40',
            'gauge' => 'nullable|string|max:20',
            'disposition' => 'required|in:reuse,recondition,replace,scrap,shelf',
            'role' => 'required|in:cause,collateral,none',
            'ours' => 'boolean',
            'note' => 'nullable|string|max:400',
            'pieces' => 'nullable|in:whole,missing',
            'route' => 'nullable|string|max:60',
            'version' => 'nullable|integer',
        ];
    }
}
