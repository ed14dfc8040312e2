<?php

namespace App\Yard\Http;

use App\Shop\Http\SignedRequest;

final class AttachPhotoRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'photo' => 'required|file|max:24576',
            'place' => 'required|string|max:80',
            'station' => 'nullable|string|max:20',
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return ['photo.max' => 'The file is larger than 24 MB.', 'photo.uploaded' => 'The file is larger than 24 MB.'];
    }
}
