<?php

namespace App\Work\Http;

use App\Shop\Http\SignedRequest;
use App\Work\Answer;

final class ProofRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'answer' => 'nullable|array|max:20',
            'note' => 'nullable|string|max:300',
            'at' => 'nullable|date',
            'sent' => 'nullable|date',
        ];
    }

    public function answer(): Answer
    {
        $in = $this->validated();

        return Answer::sent(
            (array) $this->input('answer', []),
            trim($in['note'] ?? ''),
            $in['at'] ?? null,
            $in['sent'] ?? null,
        );
    }
}
