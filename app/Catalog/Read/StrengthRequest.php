<?php

namespace App\Catalog\Read;

use Illuminate\Foundation\Http\FormRequest;

final class StrengthRequest extends FormRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'engine' => 'required|numeric|gt:0|max:5000',
            'stall' => 'required|numeric|min:1|max:5',
            'shock' => 'nullable|numeric|min:1|max:10',
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return [
            'engine.*' => 'The torque of the engine is a number over 0, up to 5000 N.m.',
            'stall.*' => 'A converter multiplies by 1 to 5.',
            'shock.*' => 'A shock makes 1 to 10 times the torque.',
        ];
    }
}
