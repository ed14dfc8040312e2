<?php

namespace App\Work\Judges;

use App\Kernel\Refusal;
use App\Shop\Models\Person;
use App\Work\Answer;
use App\Work\Models\Proof;
use App\Work\ProofSpec;
use App\Work\Queries\BenchWork;
use Illuminate\Support\Carbon;

/** Something needs its time: begun on the bench, over by the server's clock; or begun elsewhere before, with a word. */
final class TimerJudge extends KeepsProofs
{
    protected function missing(ProofSpec $proof): string
    {
        return "Start the timer: $proof->of, {$proof->body['minutes']} min.";
    }

    protected function against(ProofSpec $proof, Proof $last): ?string
    {
        $ends = Carbon::parse($last->answer['ends']);

        return $ends->isFuture()
            ? "$proof->of: ".max(1, (int) ceil(now()->diffInMinutes($ends))).' min left.'
            : null;
    }

    public function take(BenchWork $work, ProofSpec $proof, Answer $answer, Person $by): void
    {
        $last = $work->last($proof);
        $running = $last === null ? null : $this->against($proof, $last);
        $already = filter_var($answer->body['already'] ?? false, FILTER_VALIDATE_BOOLEAN);
        if ($last !== null && ($running === null || ! $already)) {
            throw new Refusal($running ?? "$proof->of: the time is up. Say that it is done.", 409);
        }
        if ($already && $answer->note === '') {
            throw Refusal::at('/note', $running === null
                ? "Say since when and where: $proof->of was begun before."
                : "Say why $proof->of is not waited for.");
        }
        $minutes = $already ? 0.0 : (float) $proof->body['minutes'];
        $this->keep($work, $proof, $answer, $by, [
            'minutes' => $minutes,
            'ends' => $answer->at->copy()->addSeconds((int) round(60 * $minutes))->toIso8601ZuluString(),
        ]);
    }
}
