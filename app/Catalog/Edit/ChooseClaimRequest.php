<?php

namespace App\Catalog\Edit;

use App\Shop\Http\SignedRequest;

final class ChooseClaimRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'kind' => 'required|string|max:40',
            'key' => 'required|string|max:200',
            'claim' => 'required|integer|min:0',
            'reason' => 'required|string|max:300',
            'seen' => 'required|string|max:100',
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return ['reason.required' => 'Say why the house picks this one.'];
    }
}
