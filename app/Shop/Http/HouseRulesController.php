<?php

namespace App\Shop\Http;

use App\Shop\Actions\SetHouseRule;
use App\Shop\HouseRules;
use App\Shop\Queries\PeopleNames;
use App\Shop\RuleDefinition;
use Illuminate\Http\JsonResponse;

/** Where practitioners differ the shop picks a school and signs it. */
final class HouseRulesController
{
    public function __construct(private readonly HouseRules $rules, private readonly PeopleNames $names)
    {
    }

    public function index(): JsonResponse
    {
        return response()->json(['rules' => array_map($this->shown(...), array_values(RuleDefinition::all()))]);
    }

    public function set(SetHouseRuleRequest $request, string $code, SetHouseRule $action): JsonResponse
    {
        $in = $request->validated();
        $action->set($code, $in['choice'], $in['reason'], $in['version'], $request->person());

        return $this->index();
    }

    /** @return array<string, mixed> */
    private function shown(RuleDefinition $r): array
    {
        $own = $this->rules->own($r->code);

        return [
            'code' => $r->code,
            'station' => $r->station,
            'question' => $r->question,
            'kind' => $r->kind,
            'unit' => $r->unit,
            'choices' => $r->choices,
            'default' => $r->default,
            'min' => $r->min,
            'max' => $r->max,
            'source' => $r->source,
            'changes' => $r->changes,
            'choice' => $this->rules->choice($r->code),
            'reason' => $own->reason ?? '',
            'setBy' => $own === null ? null : $this->names->of($own->set_by),
            'version' => $own === null ? 0 : $own->version,
        ];
    }
}
