<?php

namespace App\Stations\Identification\Http;

use App\Shop\Http\SignedRequest;

final class AnswerRoundRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['variant' => 'required|string|max:40'];
    }
}
