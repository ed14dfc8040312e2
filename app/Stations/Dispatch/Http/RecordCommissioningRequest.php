<?php

namespace App\Stations\Dispatch\Http;

use App\Shop\Http\SignedRequest;
use App\Stations\Dispatch\Actions\RecordCommissioning;

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
            'items.*' => 'in:'.implode(',', array_keys(RecordCommissioning::ITEMS)),
            'converterDepth' => 'required|string|max:30',
            'flexplateDepth' => 'required|string|max:30',
        ];
    }
}
