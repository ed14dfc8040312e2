<?php

namespace App\Shop\Actions;

use App\Kernel\Ledger\Ledger;
use App\Kernel\Refusal;
use App\Kernel\TypedQuantity;
use App\Shop\HouseRules;
use App\Shop\Models\HouseRule;
use App\Shop\Models\Person;
use App\Shop\RuleDefinition;
use App\Yard\Gatekeeper;

/** The shop decides how it does something, says why, and signs for it. */
final class SetHouseRule
{
    public function __construct(private readonly Ledger $ledger, private readonly HouseRules $rules)
    {
    }

    /** @param  int  $version  0 while the shop has not set the rule yet */
    public function set(string $code, string $typed, string $reason, int $version, Person $by): void
    {
        $definition =
            RuleDefinition::all()[$code] ?? throw new Refusal("There is no house rule \"$code\".", 404);
        $choice = self::read($definition, $typed);
        $own = HouseRule::query()->where('code', $code)->first();
        if ($own === null) {
            if ($version !== 0) {
                throw Refusal::stale('this house rule', ['version' => 0], ['choice' => $choice, 'reason' => $reason]);
            }
            $own = new HouseRule(['code' => $code, 'version' => 0]);
        } else {
            Gatekeeper::unchanged($own, $version, 'this house rule', ['choice' => $choice, 'reason' => $reason]);
        }
        $own->fill(['choice' => $choice, 'reason' => $reason, 'set_by' => $by->id, 'version' => $own->version + 1]);
        $own->save();
        $this->rules->forget();
        $this->ledger->record('shop', 'rule.set', ['code' => $code, 'choice' => $choice, 'reason' => $reason]);
    }

    /** @throws Refusal at the field when the value is none of the choices or outside the limits */
    private static function read(RuleDefinition $rule, string $typed): string
    {
        if ($rule->kind === 'choice') {
            $values = array_column($rule->choices, 'value');

            return in_array($typed, $values, true)
                ? $typed
                : throw Refusal::at('/choice', 'Choose one of '.implode(', ', $values).'.');
        }
        if ($rule->kind === 'quantity') {
            $value = TypedQuantity::parse($typed, (string) $rule->quantity, $rule->unit, '/choice')->in($rule->unit);
        } elseif (is_numeric($typed)) {
            $value = (float) $typed;
        } else {
            throw Refusal::at('/choice', 'Type a number, with a decimal point.');
        }
        if (($rule->min !== null && $value < $rule->min) || ($rule->max !== null && $value > $rule->max)) {
            throw Refusal::at('/choice', trim("Type a value from $rule->min to $rule->max $rule->unit").'.');
        }

        return (string) $value;
    }
}
