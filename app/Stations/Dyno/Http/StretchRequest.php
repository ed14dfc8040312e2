<?php

namespace App\Stations\Dyno\Http;

use Illuminate\Foundation\Http\FormRequest;

final class StretchRequest extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'from' => 'required|numeric|min:0|max:86400',
            'to' => 'required|numeric|gt:from|max:86400',
            'points' => 'nullable|integer|min:10|max:4000',
        ];
    }
}
