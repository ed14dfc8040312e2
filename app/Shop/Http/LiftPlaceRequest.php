<?php

namespace App\Shop\Http;

final class LiftPlaceRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['place' => 'required|string|max:120'];
    }
}
