<?php

namespace App\Stations\Dyno\Http;

use App\Shop\Http\SignedRequest;
use App\Stations\Dyno\Cells;

final class StartRunRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['cell' => 'nullable|string|max:8'];
    }

    public function cell(): string
    {
        return Cells::named($this->validated('cell'));
    }
}
