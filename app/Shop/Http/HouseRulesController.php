<?php

namespace App\Shop\Http;

use App\Kernel\Ledger\Ledger;
use App\Kernel\Refusal;
use App\Shop\Models\HouseRule;
use App\Shop\Queries\PeopleNames;
use App\Yard\Gatekeeper;
use Illuminate\Http\JsonResponse;

final class HouseRulesController
{
    public function __construct(private readonly PeopleNames $names)
    {
    }

    public function index(): JsonResponse
    {
        return response()->json([
            'rules' => HouseRule::query()
                ->orderBy('id')
                ->get()
                ->map(
                    fn (HouseRule $r) => [
                        'code' => $r->code,
                        'question' => $r->question,
                        'choice' => $r->choice,
                        'choices' => $r->choices,
                        'reason' => $r->reason,
                        'setBy' => $this->names->of($r->set_by),
                        'version' => $r->version,
                    ],
                ),
        ]);
    }

    public function set(SetHouseRuleRequest $request, string $code, Ledger $ledger): JsonResponse
    {
        $in = $request->validated();
        $rule = HouseRule::query()->where('code', $code)->firstOrFail();
        if ($rule->choices !== [] && ! in_array($in['choice'], $rule->choices, true)) {
            throw Refusal::at('/choice', 'Choose one of '.implode(', ', $rule->choices).'.');
        }
        if ($rule->choices === [] && (! is_numeric($in['choice']) || $in['choice'] <= 0 || $in['choice'] > 100000)) {
            throw Refusal::at('/choice', 'Type a number greater than 0, with a decimal point.');
        }
        Gatekeeper::unchanged($rule, $in['version'], 'this house rule', [
            'choice' => $in['choice'],
            'reason' => $in['reason'],
        ]);
        $rule->update([
            'choice' => $in['choice'],
            'reason' => $in['reason'],
            'set_by' => $request->person()->id,
            'version' => $rule->version + 1,
        ]);
        $ledger->record('shop', 'rule.set', ['code' => $code, 'choice' => $in['choice'], 'reason' => $in['reason']]);

        return $this->index();
    }
}
