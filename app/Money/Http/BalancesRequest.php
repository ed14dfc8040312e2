<?php

namespace App\Money\Http;

use App\Money\Queries\CoreBalance;
use App\Shop\Http\SignedRequest;
use Illuminate\Validation\Rule;

final class BalancesRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        $columns = array_keys(CoreBalance::ORDERS);

        return [
            'q' => 'nullable|string|max:60',
            'sort' => ['nullable', Rule::in([...$columns, ...array_map(fn (string $c) => "-$c", $columns)])],
            'after' => 'nullable|integer|between:0,1000000',
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        $columns = implode(', ', array_keys(CoreBalance::ORDERS));

        return ['sort.in' => "This list is sorted by $columns (a minus before it turns it round), not by \":input\"."];
    }
}
