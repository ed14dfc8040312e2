<?php

namespace App\Stations\Receiving\Http;

use App\Shop\Http\SignedRequest;
use App\Stations\Receiving\Actions\MoveTray;
use Illuminate\Validation\Rule;

final class MoveTrayRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'stage' => ['required', Rule::in(MoveTray::STAGES)],
        ];
    }
}
