<?php

namespace App\Stations\Ordering\Http;

use App\Shop\Http\SignedRequest;

/** An order as it is typed: package, wishes and the duty the unit has to hold. */
class OrderRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'package' => 'required|string|max:60',
            'add' => 'list|max:60',
            'add.*' => 'string|max:60',
            'drop' => 'list|max:60',
            'drop.*' => 'string|max:60',
            'vehicle' => 'nullable|string|max:40',
            'duty' => 'nullable|array',
            'duty.engineTorque' => 'nullable|string|max:30',
            'duty.engineCurve' => 'nullable|string|max:600',
            'duty.shiftSpeed' => 'nullable|string|max:30',
            'duty.mass' => 'nullable|string|max:30',
            'duty.axle' => 'nullable|string|max:30',
            'duty.tyre' => 'nullable|string|max:30',
            'duty.grade' => 'nullable|string|max:30',
            'duty.hold' => 'boolean',
        ];
    }
}
