<?php

namespace App\Stations\Teardown\Http;

use App\Shop\Http\SignedRequest;

final class AskExtraWorkRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'text' => 'required|string|max:300',
            'hours' => 'required|numeric|min:0|max:200',
            'price' => 'required|numeric|min:0|max:1000000',
        ];
    }
}
