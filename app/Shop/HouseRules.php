<?php

namespace App\Shop;

use App\Shop\Models\HouseRule;

/**
 * What the house holds to where practitioners differ: the shop's own choice where it made one, else what is shipped.
 * One query a request, however many rules are asked.
 */
final class HouseRules
{
    /** @var array<string, HouseRule>|null what the shop has set, by code */
    private ?array $set = null;

    public function number(string $code): float
    {
        return (float) $this->choice($code);
    }

    /** A percentage as a share. */
    public function share(string $code): float
    {
        return $this->number($code) / 100.0;
    }

    public function choice(string $code): string
    {
        return $this->own($code)->choice ?? RuleDefinition::of($code)->default;
    }

    public function own(string $code): ?HouseRule
    {
        return $this->set()[$code] ?? null;
    }

    /** @return array<string, HouseRule> */
    private function set(): array
    {
        return $this->set ??= HouseRule::query()->get()->keyBy('code')->all();
    }

    /** @return array<string, array{string, string}> what the shop has set, and why, by code */
    public function inForce(): array
    {
        return array_map(fn (HouseRule $r): array => [$r->choice, $r->reason], $this->set());
    }

    /** Why the house holds to it: its own reason, or the source of what is shipped. */
    public function reason(string $code): string
    {
        $own = $this->own($code);

        return $own !== null && $own->reason !== '' ? $own->reason : RuleDefinition::of($code)->source;
    }

    /**
     * What is in force, for the places where it matters.
     *
     * @return array<string, list<array{question: string, choice: string, reason: string}>> by rule
     */
    public function shown(string ...$codes): array
    {
        $shown = [];
        foreach ($codes as $code) {
            $shown[$code] = [[
                'question' => RuleDefinition::of($code)->question,
                'choice' => $this->choice($code),
                'reason' => $this->reason($code),
            ]];
        }

        return $shown;
    }

    /** Something was set in this request: ask again. */
    public function forget(): void
    {
        $this->set = null;
    }
}
