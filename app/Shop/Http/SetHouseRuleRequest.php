<?php

namespace App\Shop\Http;

final class SetHouseRuleRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'choice' => 'required|string|max:60',
            'reason' => 'required|string|max:400',
            'version' => 'required|integer',
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return ['reason.required' => 'Say why the house does it this way.'];
    }
}
