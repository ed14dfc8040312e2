<?php

namespace App\Work\Http;

use App\Shop\Http\SignedRequest;
use App\Work\Answer;

final class SpokenRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return ['sound' => 'required|file|max:2048', 'at' => 'nullable|date', 'sent' => 'nullable|date'];
    }

    /** @return array<string, string> */
    public function messages(): array
    {
        return array_fill_keys(
            ['sound.max', 'sound.uploaded'],
            'The recording is larger than 2 MB; say it in two parts.',
        );
    }

    public function answer(): Answer
    {
        $in = $this->validated();

        return Answer::sent([], '', $in['at'] ?? null, $in['sent'] ?? null);
    }
}
