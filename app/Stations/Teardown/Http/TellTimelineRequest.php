<?php

namespace App\Stations\Teardown\Http;

use App\Shop\Http\SignedRequest;
use Yard\Core\Faults\Timeline;

final class TellTimelineRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'at' => 'required|string|max:30',
            'kind' => 'required|in:'.implode(',', Timeline::KINDS),
            'said' => 'required|string|max:120',
        ];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return [
            'at.required' => 'Say at which distance, about.',
            'kind.required' => 'Say what it was.',
            'said.required' => 'Say it in a few words.',
        ];
    }
}
