<?php

namespace App\Stations\Receiving\Http;

final class ReceiveCoreRequest extends IntakeRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['coreTag' => ['required', 'string', 'max:20', 'regex:/^[A-Z0-9][A-Z0-9-]{2,19}$/']] + parent::rules();
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return ['coreTag.regex' => 'A core tag has 3 to 20 capital letters, digits and dashes.'];
    }
}
