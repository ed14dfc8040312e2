<?php

namespace App\Stations\Assembly\Http;

use App\Shop\Http\SignedRequest;

final class BinPlanRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'depths' => 'array|max:60',
            'depths.*' => 'nullable|string|max:40',
        ];
    }

    /** @return array<string, string> what was measured, by core tag */
    public function depths(): array
    {
        return array_filter(
            array_map(fn (mixed $typed): string => trim((string) $typed), (array) $this->validated('depths', [])),
            fn (string $typed): bool => $typed !== '',
        );
    }
}
