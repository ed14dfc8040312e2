<?php

namespace App\Stations\Teardown\Http;

use App\Shop\Http\SignedRequest;

final class AnswerExtraWorkRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'answer' => 'required|in:approved,declined',
            'answeredBy' => 'required|string|max:120',
            'how' => 'required|string|max:300',
        ];
    }
}
