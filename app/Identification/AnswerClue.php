<?php

namespace App\Identification;

use App\Catalog\Spec;
use App\Ledger\Ledger;
use App\Shop\Person;
use App\Shop\Quantity;
use App\Shop\Refused;
use App\Track\Gatekeeper;
use App\Track\Unit;

/** Somebody looked (or measured) and says what there is; an answer can be changed or taken back. */
final class AnswerClue
{
    public function __construct(private readonly Ledger $ledger)
    {
    }

    public function answer(Unit $unit, string $feature, ?string $value, Person $by): void
    {
        Gatekeeper::at($unit, 'identify', 'desk', 'teardown');
        $spec = Spec::query()->where('family_id', $unit->family_id)->where('kind', 'feature')->where('code', $feature)->first() ?? throw Refused::at('/feature', "There is no clue \"$feature\" in this family.");
        if ($value === null) {
            ClueAnswer::query()->where('unit_id', $unit->id)->where('feature', $feature)->delete();
        } else {
            $value = in_array($value, RankVariants::NO_ANSWER, true) ? $value : $this->checked($spec, $value);
            ClueAnswer::query()->updateOrCreate(['unit_id' => $unit->id, 'feature' => $feature], ['value' => $value, 'answered_by' => $by->id, 'answered_at' => now()]);
        }
        $this->ledger->onUnit($unit, 'clue.answered', ['feature' => $feature, 'value' => $value]);
    }

    private function checked(Spec $spec, string $value): string
    {
        if (($spec->body['kind'] ?? '') === 'number') {
            $reading = Quantity::parse($value, 'length', $spec->body['unit'], '/value')->in($spec->body['unit']);
            [$low, $high] = $spec->body['range'];
            if ($reading < $low || $reading > $high) {
                throw Refused::at('/value', "A reading of $reading {$spec->body['unit']} cannot be right here; expected is $low to $high {$spec->body['unit']}.");
            }

            return (string) $reading;
        }
        if (! in_array($value, $spec->body['values'], true)) {
            throw Refused::at('/value', "\"$value\" is no answer to this; choose one of ".implode(', ', $spec->body['values']).'.');
        }

        return $value;
    }
}
