<?php

namespace App\Stations\Ordering\Queries;

use App\Catalog\Models\Family;
use App\Shop\HouseRules;
use App\Shop\RuleDefinition;

/**
 * Where practitioners disagree the house picks a school; this brings the choice to what the catalog writes for each.
 */
final class SchoolsInForce
{
    private function __construct(private readonly HouseRules $rules)
    {
    }

    public static function inForce(): self
    {
        return new self(app(HouseRules::class));
    }

    public function number(string $rule): float
    {
        return $this->rules->number($rule);
    }

    /**
     * A specification as this house has it: "byRule" holds what each choice changes.
     *
     * @param  array<string, mixed>  $body
     * @return array<string, mixed> with the rules in force under "house"
     */
    public function body(array $body): array
    {
        $byRule = $body['byRule'] ?? [];
        unset($body['byRule']);
        $body['house'] = $body['house'] ?? [];
        foreach ($byRule as $code => $choices) {
            if (isset(RuleDefinition::all()[$code])) {
                $body = array_replace($body, $choices[$this->rules->choice($code)] ?? []);
                array_push($body['house'], ...$this->rules->shown($code)[$code]);
            }
        }

        return $body;
    }

    /**
     * The options of a package as this house has them. A school takes the place of the stock member of its group, the
     * first; where the package itself brings another member, the package decides.
     *
     * @param  list<string>  $options  of the package
     * @return array{options: list<string>, house: array<string, array{question: string, choice: string,
     *     reason: string}>} and, by option, the rule that brought it
     */
    public function package(Family $family, array $options): array
    {
        $house = [];
        $ours = array_intersect_key($family->body['houseOptions'] ?? [], RuleDefinition::all());
        foreach ($ours as $code => $choices) {
            foreach ($choices[$this->rules->choice($code)] ?? [] as $option) {
                $with = self::brought($options, $option, $family->body['groups'] ?? []);
                if ($with !== $options) {
                    $options = $with;
                    $house[$option] = $this->rules->shown($code)[$code][0];
                }
            }
        }

        return ['options' => array_values($options), 'house' => $house];
    }

    /**
     * @param  array<int, string>  $options
     * @param  list<list<string>>  $groups
     * @return array<int, string> with the option in, unless it is in or the package brings another of its group
     */
    private static function brought(array $options, string $option, array $groups): array
    {
        if (in_array($option, $options, true)) {
            return $options;
        }
        foreach ($groups as $group) {
            if (in_array($option, $group, true)) {
                $stock = array_search($group[0], $options, true);

                return $stock === false ? $options : array_replace($options, [$stock => $option]);
            }
        }

        return [...$options, $option];
    }
}
