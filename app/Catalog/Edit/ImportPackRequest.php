<?php

namespace App\Catalog\Edit;

use App\Shop\Http\SignedRequest;

final class ImportPackRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['pack' => 'required|file|max:24576'];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return ['pack.max' => 'The file is larger than 24 MB.', 'pack.uploaded' => 'The file is larger than 24 MB.'];
    }
}
