<?php

namespace App\Stations\Identification\Actions;

use App\Catalog\Models\FamilySpec;
use App\Kernel\Ledger\Ledger;
use App\Kernel\Refusal;
use App\Kernel\TypedQuantity;
use App\Shop\Models\Person;
use App\Stations\Identification\Models\ClueAnswer;
use App\Stations\Identification\Queries\VariantModel;
use App\Yard\Contracts\Clues;
use App\Yard\Gatekeeper;
use App\Yard\Models\Unit;
use App\Yard\StationName;

/** Somebody looked (or measured) and says what there is; an answer can be changed or taken back. */
final class AnswerClue implements Clues
{
    public function __construct(private readonly Ledger $ledger)
    {
    }

    public function answer(Unit $unit, string $feature, ?string $value, Person $by): void
    {
        Gatekeeper::at($unit, StationName::Identification, StationName::Ordering, StationName::Teardown);
        $spec =
            FamilySpec::query()
                ->where('family_id', $unit->family_id)
                ->where('kind', 'feature')
                ->where('code', $feature)
                ->first() ?? throw Refusal::at('/feature', "There is no clue \"$feature\" in this family.");
        if ($value === null) {
            ClueAnswer::query()->where('unit_id', $unit->id)->where('feature', $feature)->first()?->delete();
        } else {
            $value = in_array($value, VariantModel::NO_ANSWER, true) ? $value : $this->checked($spec, $value);
            ClueAnswer::query()->updateOrCreate(
                ['unit_id' => $unit->id, 'feature' => $feature],
                ['value' => $value, 'answered_by' => $by->id, 'answered_at' => now()],
            );
        }
        $this->ledger->onUnit($unit, 'clue.answered', ['feature' => $feature, 'value' => $value]);
    }

    private function checked(FamilySpec $spec, string $value): string
    {
        if (($spec->body['kind'] ?? '') === 'number') {
            $reading = self::reading($value, $spec->body['unit']);
            [$low, $high] = $spec->body['range'];
            if ($reading < $low || $reading > $high) {
                throw Refusal::at(
                    '/value',
                    "A reading of $reading {$spec->body['unit']} cannot be right here; expected is $low to $high "
                        ."{$spec->body['unit']}.",
                );
            }

            return (string) $reading;
        }
        if (! in_array($value, $spec->body['values'], true)) {
            throw Refusal::at(
                '/value',
                "\"$value\" is no answer to this; choose one of ".implode(', ', $spec->body['values']).'.',
            );
        }

        return $value;
    }

    /** A length in whatever unit it was taken, or a plain count (turns, teeth, a ratio). */
    private static function reading(string $value, string $unit): float
    {
        if (in_array($unit, ['in', 'mm', 'um'], true)) {
            return TypedQuantity::parse($value, 'length', $unit, '/value')->in($unit);
        }
        $number = trim(preg_replace('/\s*'.preg_quote($unit, '/').'$/', '', trim($value)) ?? '');
        if (preg_match('/^-?\d*\.?\d+$/', $number) !== 1) {
            throw Refusal::at(
                '/value',
                "\"$value\" is no number of $unit; type it with a decimal point, for example 17.2.",
            );
        }

        return (float) $number;
    }
}
