<?php

namespace App\Stations\Receiving\Http;

final class CreditQuestionRequest extends IntakeRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return self::WORTH;
    }
}
