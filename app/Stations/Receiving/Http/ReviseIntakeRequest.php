<?php

namespace App\Stations\Receiving\Http;

final class ReviseIntakeRequest extends IntakeRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['version' => 'required|integer'] + parent::rules();
    }
}
