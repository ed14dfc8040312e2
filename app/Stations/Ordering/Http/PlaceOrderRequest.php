<?php

namespace App\Stations\Ordering\Http;

final class PlaceOrderRequest extends OrderRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return parent::rules() + [
            'customer' => 'nullable|string|max:20',
            'promisedOn' => 'nullable|date_format:Y-m-d',
            'version' => 'nullable|integer',
        ];
    }
}
