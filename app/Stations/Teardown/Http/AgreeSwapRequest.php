<?php

namespace App\Stations\Teardown\Http;

use App\Shop\Http\SignedRequest;

final class AgreeSwapRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'part' => 'required|string|max:80',
            'agreedBy' => 'required|string|max:120',
            'how' => 'required|string|max:300',
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return [
            'agreedBy.required' => 'Say who of the customer agreed.',
            'how.required' => 'Say how they agreed: by telephone, in writing, at the counter.',
        ];
    }
}
