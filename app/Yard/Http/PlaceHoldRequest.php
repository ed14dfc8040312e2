<?php

namespace App\Yard\Http;

use App\Shop\Http\SignedRequest;

final class PlaceHoldRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'reason' => 'required|string|max:300',
            'liftRole' => 'nullable|in:manager,receiver,teardown,builder,dyno,returns',
        ];
    }
}
