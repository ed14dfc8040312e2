<?php

namespace App\Stations\Dispatch\Http;

use App\Catalog\Models\Vocabulary;
use App\Shop\Http\SignedRequest;
use Illuminate\Validation\Rule;

final class RecordCommissioningRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'installedOn' => 'required|date_format:Y-m-d',
            'odometer' => 'required|string|max:30',
            'installer' => 'required|string|max:120',
            'items' => 'present|list|max:20',
            'items.*' => [Rule::in(array_keys((array) Vocabulary::body('installation')->items))],
            'converterDepth' => 'required|string|max:30',
            'flexplateDepth' => 'required|string|max:30',
        ];
    }
}
