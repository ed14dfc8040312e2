<?php

namespace App\Stations\Returns\Actions;

use App\Kernel\Ledger\Ledger;
use App\Kernel\Refusal;
use App\Shop\Models\Person;
use App\Stations\Returns\Models\UnitReturn;
use App\Stations\Returns\Queries\RecordEvidence;
use App\Stations\Returns\Queries\VerdictRanking;
use App\Work\Bench;
use App\Work\OperationSpec;
use App\Work\Queries\BenchWork;
use App\Yard\Gatekeeper;
use App\Yard\StationName;

/** A person decides; the weights of all causes at that moment are kept beside the decision. */
final class DecideVerdict
{
    public function __construct(
        private readonly Ledger $ledger,
        private readonly VerdictRanking $rank,
        private readonly RecordEvidence $evidence,
    ) {
    }

    /** @param  array<string, float>  $split payer => share in percent */
    public function decide(
        UnitReturn $return,
        string $verdict,
        string $note,
        array $split,
        int $version,
        Person $by,
    ): void {
        $unit = $return->unit()->firstOrFail();
        Gatekeeper::at($unit, StationName::Returns);
        if ($return->verdict !== null) {
            throw new Refusal('The verdict is already given.', 409);
        }
        Gatekeeper::unchanged($return, $version, 'this return', ['verdict' => $verdict]);
        if (! isset($this->rank->model()['hypotheses'][$verdict])) {
            throw Refusal::at('/verdict', "There is no verdict \"$verdict\".");
        }
        $sum = round(array_sum($split), 6);
        if ($sum !== 100.0) {
            throw Refusal::at('/split', 'The shares must add up to 100 %, not '.round($sum, 2).' %.');
        }
        $ranking = $this->rank->of($this->evidence->all($return))['ranking'];
        $weights = array_column($ranking, 'posterior', 'verdict');
        self::mustBeReasoned($weights[$verdict], $note);
        $return->update([
            'verdict' => $verdict,
            'verdict_note' => $note,
            'weights' => $weights,
            'ranking' => $ranking,
            'cost_split' => $split,
            'verdict_by' => $by->id,
            'verdict_at' => now(),
            'version' => $return->version + 1,
        ]);
        $this->ledger->onUnit($unit, 'return.decided', [
            'number' => $return->number,
            'verdict' => $verdict,
            'weight' => $weights[$verdict],
            'note' => $note,
            'split' => $split,
            'notLookedAt' => array_map(
                fn (OperationSpec $o) => $o->name,
                BenchWork::of($unit, Bench::Returns)->left(),
            ),
        ]);
    }

    private static function mustBeReasoned(float $weight, string $note): void
    {
        if ($weight < 0.25 && trim($note) === '') {
            $percent = round(100 * $weight);
            throw Refusal::at(
                '/note',
                "The evidence speaks for something else ($percent % for this verdict); say why you decide so.",
            );
        }
    }
}
