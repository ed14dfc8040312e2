<?php

namespace App\Catalog\Edit;

use App\Catalog\Exchange\CsvKind;
use App\Shop\Http\SignedRequest;

final class UploadCsvRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'file' => 'required|file|max:24576',
            'kind' => 'required|in:'.implode(',', array_keys(CsvKind::KINDS)),
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return ['file.max' => 'The file is larger than 24 MB.', 'file.uploaded' => 'The file is larger than 24 MB.'];
    }
}
