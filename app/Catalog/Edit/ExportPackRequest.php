<?php

namespace App\Catalog\Edit;

use App\Shop\Http\SignedRequest;

final class ExportPackRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['asOf' => 'nullable|date'];
    }
}
