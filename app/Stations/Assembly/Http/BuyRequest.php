<?php

namespace App\Stations\Assembly\Http;

use App\Shop\Http\SignedRequest;

final class BuyRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'how' => 'required|in:bought,borrowed',
            'from' => 'required|string|max:80',
            'lot' => 'required|string|max:40',
            'paid' => 'nullable|numeric|min:0|max:100000',
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return [
            'how.required' => 'Say whether it is bought or borrowed.',
            'from.required' => 'Say who it comes from.',
            'lot.required' => 'Say the number of its lot: what goes in must be traceable.',
            'paid.numeric' => 'A price is a number.',
        ];
    }
}
