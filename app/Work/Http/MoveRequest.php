<?php

namespace App\Work\Http;

use App\Shop\Http\SignedRequest;
use App\Work\Answer;
use App\Work\Move;
use Illuminate\Validation\Rule;

final class MoveRequest extends SignedRequest
{
    /** @return array<string, mixed> */
    public function rules(): array
    {
        return [
            'move' => ['required', Rule::enum(Move::class)],
            'note' => 'nullable|string|max:300',
            'at' => 'nullable|date',
            'sent' => 'nullable|date',
        ];
    }

    public function wanted(): Move
    {
        return Move::from($this->validated('move'));
    }

    public function answer(): Answer
    {
        $in = $this->validated();

        return Answer::sent([], trim($in['note'] ?? ''), $in['at'] ?? null, $in['sent'] ?? null);
    }
}
