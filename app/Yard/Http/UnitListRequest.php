<?php

namespace App\Yard\Http;

use App\Shop\Http\SignedRequest;

final class UnitListRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'station' => 'nullable|string|max:20',
            'late' => 'nullable|boolean',
            'customer' => 'nullable|string|exists:customers,code',
            'sort' => 'nullable|string|max:20',
            'after' => 'nullable|string|max:200',
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return ['customer.exists' => 'No customer has the code ":input".'];
    }
}
