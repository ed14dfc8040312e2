<?php

namespace App\Stations\Teardown\Http;

use App\Shop\Http\SignedRequest;

final class CompleteTeardownRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['noCauseFound' => 'boolean'];
    }
}
