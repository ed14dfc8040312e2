<?php

namespace App\Work\Http;

use App\Shop\Http\SignedRequest;
use App\Work\Decision;
use Illuminate\Validation\Rule;

final class DecideDiscrepancyRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['decision' => ['required', Rule::enum(Decision::class)], 'note' => 'nullable|string|max:400'];
    }
}
