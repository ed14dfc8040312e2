<?php

namespace App\Work;

use App\Kernel\Refusal;
use Illuminate\Support\Carbon;

/** What a person at the bench answers, and when. */
final readonly class Answer
{
    /** A tablet may be that much ahead of the server before its clock is called wrong. */
    private const AHEAD_S = 5;

    /**
     * @param  array<string, mixed>  $body
     * @param  Carbon  $at  by the server's clock: when it was answered, also where it was sent later
     * @param  Carbon|null  $tablet  by the tablet's clock
     */
    public function __construct(public array $body, public string $note, public Carbon $at, public ?Carbon $tablet)
    {
    }

    /**
     * @param  array<string, mixed>  $body
     * @param  string|null  $at  when it was answered, by the tablet's clock
     * @param  string|null  $sent  when the tablet sent it, by the same clock
     *
     * @throws Refusal when it cannot have been answered then
     */
    public static function sent(array $body, string $note, ?string $at, ?string $sent): self
    {
        if ($at === null) {
            return new self($body, $note, now(), null);
        }
        $tablet = Carbon::parse($at);
        $ago = $tablet->diffInSeconds($sent === null ? now() : Carbon::parse($sent), false);
        if ($ago < -self::AHEAD_S) {
            throw Refusal::at('/at', 'The clock of this tablet was set back: what it wrote lies in its own future.');
        }

        return new self($body, $note, now()->subSeconds((int) max(0, $ago)), $tablet);
    }

    public function string(string $field): string
    {
        $value = $this->body[$field] ?? '';

        return is_scalar($value) ? trim((string) $value) : throw Refusal::at("/answer/$field", 'This must be a text.');
    }
}
