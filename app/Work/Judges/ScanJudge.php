<?php

namespace App\Work\Judges;

use App\Kernel\Refusal;
use App\Shop\Models\Person;
use App\Work\Answer;
use App\Work\Bench;
use App\Work\Models\Proof;
use App\Work\ProofKind;
use App\Work\ProofSpec;
use App\Work\Queries\BenchWork;

/** A code read off a tray, a part, a lot or a tool. */
final class ScanJudge extends KeepsProofs
{
    private const LONGEST = 60;

    /** The unit's own label: no other unit's will do. */
    private const OWN_LABEL = 'unit label';

    protected function missing(ProofSpec $proof): string
    {
        return "Scan the $proof->of.";
    }

    public function take(BenchWork $work, ProofSpec $proof, Answer $answer, Person $by): void
    {
        $code = $answer->string('code');
        if ($code === '' || mb_strlen($code) > self::LONGEST) {
            throw Refusal::at('/answer/code', $this->missing($proof));
        }
        $own = [$work->unit->core_tag, $work->build()?->serial];
        if ($proof->of === self::OWN_LABEL && ! in_array($code, $own, true)) {
            throw Refusal::at('/answer/code', "\"$code\" is not the label of this unit.");
        }
        $this->assertSame($work, $proof, $code);
        $pattern = $proof->body['pattern'] ?? null;
        if ($pattern !== null && preg_match('~'.str_replace('~', '\~', $pattern).'~u', $code) !== 1) {
            throw Refusal::at('/answer/code', "\"$code\" is not the code of a $proof->of. {$this->missing($proof)}");
        }
        $this->keep($work, $proof, $answer, $by, ['code' => $code]);
    }

    /** What was checked on the bench is what goes in, and what ships. */
    private function assertSame(BenchWork $work, ProofSpec $proof, string $code): void
    {
        if (! isset($proof->body['same'])) {
            return;
        }
        $checked = Proof::query()
            ->where('unit_id', $work->unit->id)
            ->where('bench', Bench::Assembly)
            ->where('operation', $proof->body['same'])
            ->where('kind', ProofKind::Scan)
            ->whereNull('undone_at')
            ->latest('id')
            ->first();
        if ($checked !== null && $checked->answer['code'] !== $code) {
            throw Refusal::at(
                '/answer/code',
                "\"$code\" is not what was checked: that was \"{$checked->answer['code']}\".",
            );
        }
    }
}
