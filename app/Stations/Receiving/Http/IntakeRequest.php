<?php

namespace App\Stations\Receiving\Http;

use App\Shop\Http\SignedRequest;

/** What is written down when a core arrives, or corrected later. */
abstract class IntakeRequest extends SignedRequest
{
    protected const STORY = [
        'jobType' => 'required|string|max:40',
        'ownership' => 'required|in:exchange,customer',
        'customer' => 'nullable|string|max:20',
        'rack' => 'nullable|string|max:20',
        'vehicle' => 'nullable|string|max:120',
        'vin' => 'nullable|string|max:40',
        'odometer' => 'nullable|string|max:30',
        'engine' => 'nullable|string|max:60',
        'complaint' => 'nullable|string|max:2000',
        'codes' => 'list|max:40',
        'codes.*' => 'string|max:20',
        'sender' => 'nullable|in:own,shop',
        'senderDiagnosis' => 'nullable|string|max:2000',
        'clues' => 'array|max:40',
        'clues.*' => 'string|max:120',
        'damage' => 'list|max:30',
        'damage.*.place' => 'required|string|max:60',
        'damage.*.what' => 'required|string|max:160',
        'tagCode' => 'nullable|string|max:40',
        'pallet' => 'nullable|string|max:20',
        'observed' => 'array|max:40',
        'observed.*' => 'string|max:120',
        'gradeReason' => 'nullable|string|max:300',
        'weight' => 'nullable|string|max:30',
        'note' => 'nullable|string|max:2000',
        'promisedOn' => 'nullable|date_format:Y-m-d',
    ];

    protected const WORTH = [
        'family' => 'nullable|string|max:40',
        'missing' => 'list|max:60',
        'missing.*.part' => 'required|string|max:40',
        'missing.*.count' => 'integer|min:1|max:99',
        'failedHard' => 'list|max:60',
        'failedHard.*.part' => 'required|string|max:40',
        'repairHours' => 'nullable|numeric|min:0|max:200',
        'grade' => 'nullable|in:A,B,C,D,X',
        'flags' => 'list|max:4',
        'flags.*' => 'in:caseBroken,wrongUnit',
    ];

    protected const CONVERTER = [
        'converter' => 'nullable|array',
        'converter.serial' => 'nullable|string|max:40',
        'converter.state' => 'nullable|in:core,checked,contaminated,exchanged',
        'converter.stallClass' => 'nullable|string|max:40',
        'converter.lockup' => 'nullable|string|max:40',
        'converter.hub' => 'nullable|string|max:40',
        'converter.coreValue' => 'nullable|numeric|min:0|max:10000',
        'converter.note' => 'nullable|string|max:300',
    ];

    /** @return array<string, mixed> */
    public function rules(): array
    {
        return self::STORY + self::WORTH + self::CONVERTER;
    }
}
