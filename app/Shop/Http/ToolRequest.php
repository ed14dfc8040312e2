<?php

namespace App\Shop\Http;

final class ToolRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'tag' => $this->isMethod('POST') ? 'required|string|max:20' : 'prohibited',
            'kind' => 'required|string|max:60',
            'name' => 'required|string|max:160',
            'place' => 'required|string|max:60',
            'inspectedUntil' => 'required|date_format:Y-m-d',
            'version' => $this->isMethod('POST') ? 'prohibited' : 'required|integer',
        ];
    }
}
