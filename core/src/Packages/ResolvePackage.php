<?php

declare(strict_types=1);

namespace Yard\Core\Packages;

use Yard\Core\Calculator;
use Yard\Core\GearTrain\Train;
use Yard\Core\Input;
use Yard\Core\Power\HardwareChange;
use Yard\Core\Power\TrainDuty;

/**
 * The cheapest set of options that meets wishes, house list, rules and torque margins, or the smallest set of wishes
 * that cannot hold together. Complete and exact: branch and bound with unit propagation over the rules as clauses.
 */
final class ResolvePackage implements Calculator
{
    public function calculate(Input $in): array
    {
        $power = $in->optional('power');
        $plan = $power === null ? null : TrainDuty::read($power, Train::read($power));
        $enforce = ! $in->has('enforceMargins') || $in->bool('enforceMargins');
        $here = OrderContext::read($in, $plan, $enforce);
        /** @var array<string, CatalogOption> $options */
        $options = [];
        foreach ($in->list('options') as $item) {
            $option = CatalogOption::read($item, $here);
            isset($options[$option->code]) &&
                throw $item->at('code')->fail('duplicate', "The option \"$option->code\" is listed twice.");
            $options[$option->code] = $option;
        }
        $this->checkNames($in, $options);
        $lists = [];
        foreach (['wanted', 'always', 'package', 'unwanted'] as $field) {
            $lists[$field] = [];
            foreach ($in->optional($field)?->asList() ?? [] as $item) {
                isset($options[$item->asString()]) ||
                    throw $item->fail('unknown-option', "There is no option \"{$item->asString()}\".");
                $lists[$field][] = $item->asString();
            }
        }
        $oneOf = [];
        foreach ($in->optional('oneOf')?->asList() ?? [] as $group) {
            $oneOf[] = array_map(function (Input $item) use ($options): string {
                isset($options[$item->asString()]) ||
                    throw $item->fail('unknown-option', "There is no option \"{$item->asString()}\".");

                return $item->asString();
            }, $group->asList());
        }
        $rate = $in->has('rate') ? $in->number('rate', min: 0.0) : 0.0;
        $margins =
            $power === null || $plan === null
                ? null
                : new Margins($plan, $this->overrides($options, Train::read($power)));
        $problem = new OptionSearch(
            $options,
            $oneOf,
            $lists['always'],
            $lists['unwanted'],
            $lists['package'],
            $rate,
            $margins,
            $enforce,
        );
        $solution = $problem->cheapest($lists['wanted']);
        if ($solution === null) {
            return $this->conflict($in, $problem, $options, $lists, $oneOf, $rate, $here);
        }

        return ['status' => 'ok', 'conflicts' => []] +
            $this->written($in, $problem, $solution, $options, $lists, $oneOf, $rate, $here);
    }

    /**
     * Rules must name options that exist, and requirements may not run in a circle.
     *
     * @param  array<string, CatalogOption>  $options
     */
    private function checkNames(Input $in, array $options): void
    {
        // Read again, with its place, only where something is wrong.
        $at = static fn (int $n, string $rule): Input => $in->list('options')[$n]->at($rule);
        foreach (array_values($options) as $n => $option) {
            foreach (['requires' => $option->requires, 'excludes' => $option->excludes] as $rule => $others) {
                foreach ($others as $k => $other) {
                    isset($options[$other]) ||
                        throw $at($n, $rule)
                            ->asList()[$k]->fail('unknown-option', "There is no option \"$other\".");
                    $other === $option->code &&
                        throw $at($n, $rule)
                            ->asList()[$k]->fail(
                                'self',
                                "\"$other\" cannot ".($rule === 'requires' ? 'require' : 'exclude').' itself.',
                            );
                }
            }
            foreach ($option->requiresAny as $l => $any) {
                foreach ($any as $k => $other) {
                    isset($options[$other]) ||
                        throw $at($n, 'requiresAny')
                            ->asList()[$l]->asList()[$k]->fail('unknown-option', "There is no option \"$other\".");
                }
            }
        }
        $state = [];
        /** @var array<string, string> $state */
        $visit = static function (string $code, string ...$way) use (&$visit, &$state, $options, $in): void {
            $way = [...array_values($way), $code];
            $state[$code] = 'open';
            foreach ($options[$code]->requires as $next) {
                if (in_array($code, $options[$next]->requires, true)) {
                    continue; // two that travel together require each other: a pair, not a circle
                }
                if (($state[$next] ?? '') === 'open') {
                    throw $in
                        ->at('options')
                        ->fail(
                            'cycle',
                            'The requirements run in a circle: '.
                                implode(' needs ', [
                                    ...array_slice($way, (int) array_search($next, $way, true)),
                                    $next,
                                ]).
                                '.',
                        );
                }
                isset($state[$next]) || $visit($next, ...$way);
            }
            $state[$code] = 'done';
        };
        foreach (array_keys($options) as $code) {
            isset($state[$code]) || $visit((string) $code);
        }
    }

    /**
     * What each option changes in the hardware.
     *
     * @param  array<string, CatalogOption>  $options
     * @return array<string, HardwareChange>
     */
    private function overrides(array $options, Train $train): array
    {
        $out = [];
        foreach ($options as $code => $option) {
            if ($option->power !== null || $option->converter !== null) {
                $out[$code] = HardwareChange::read($option->power, $train, $option->converter);
            }
        }

        return $out;
    }

    /**
     * @param  list<string>  $chosen
     * @param  array<string, CatalogOption>  $options
     * @param  array{wanted: list<string>, always: list<string>, package: list<string>, unwanted: list<string>}  $lists
     * @param  list<list<string>>  $oneOf
     * @return array<string, mixed>
     */
    private function written(
        Input $in,
        OptionSearch $problem,
        array $chosen,
        array $options,
        array $lists,
        array $oneOf,
        float $rate,
        OrderContext $here,
    ): array {
        $base = $in->optional('base');
        $price = $base?->has('price') ? (int) round(100.0 * $base->number('price', min: 0.0)) : 0;
        $hours = $base?->has('hours') ? $base->number('hours', min: 0.0) : 0.0;
        $fluid = $base?->has('fluid_l') ? $base->number('fluid_l', min: 0.0) : 0.0;
        $bom = [];
        foreach ($base?->optional('parts')?->asList() ?? [] as $part) {
            $bom[$part->name('part')] =
                ($bom[$part->name('part')] ?? 0) + ($part->has('count') ? $part->integer('count', min: 1) : 1);
        }
        $operations = $checks = $finalChecks = [];
        $converter = null;
        foreach ($chosen as $code) {
            $checks = [...$checks, ...$options[$code]->checks];
            $finalChecks = [...$finalChecks, ...$options[$code]->finalChecks];
            $behind = $options[$code]->converter === null ? null : $here->behind($options[$code]->converter);
            $converter = $behind === null ? $converter : ['option' => $code] + $behind;
            $price += $options[$code]->price;
            $hours += $options[$code]->hours;
            $fluid += $options[$code]->fluid;
            $operations = [...$operations, ...$options[$code]->operations];
            foreach ($options[$code]->adds as $part) {
                $bom[$part['part']] = ($bom[$part['part']] ?? 0) + $part['count'];
            }
        }
        $omitted = [];
        foreach ($chosen as $code) {
            foreach ($options[$code]->omits as $part) {
                if (isset($bom[$part])) {
                    $omitted[] = [
                        'part' => $part,
                        'because' => $options[$code]->omitWhy !== ''
                                ? $options[$code]->omitWhy
                                : "\"{$options[$code]->name}\" takes its place or does not go with it.",
                    ];
                    unset($bom[$part]);
                }
            }
        }
        $lines = [];
        foreach ($bom as $part => $count) {
            $lines[] = ['part' => (string) $part, 'count' => $count];
        }
        $forced = [...$lists['wanted'], ...$lists['always'], ...$lists['package']];
        $out = [
            'chosen' => $chosen,
            'added' => array_values(
                array_map(
                    fn (string $code): array => ['option' => $code, 'because' => $problem->whyIn($code, $chosen)],
                    array_filter($chosen, static fn (string $c): bool => ! in_array($c, $forced, true)),
                ),
            ),
            'removed' => array_map(
                fn (string $code): array => ['option' => $code, 'because' => $problem->whyOut($code, $chosen)],
                $this->missed($lists['package'], $chosen, $options, $oneOf),
            ),
            'forbidden' => $problem->forbidden($lists['wanted']),
            'cheapest' => [
                'chosen' => $chosen,
                'price' => $price / 100,
                'hours' => $hours,
                'cost' => $price / 100 + $hours * $rate,
            ],
            'bom' => $lines,
            'omitted' => $omitted,
            'operations' => $operations,
            'checks' => $checks,
            'finalChecks' => $finalChecks,
            'fluid_l' => $fluid,
            'hours' => $hours,
            'price' => $price / 100,
        ];

        return $out +
            ($converter === null ? [] : ['converter' => $converter]) +
            ($problem->margins === null
                ? []
                : ['margins' => $problem->margins->of($chosen), 'sensitivity' => $problem->sensitivity($chosen)]);
    }

    /**
     * Options of the package that are not in. One that another variant takes is not missed where the package brings its
     * sister of the same group.
     *
     * @param  list<string>  $package
     * @param  list<string>  $chosen
     * @param  array<string, CatalogOption>  $options
     * @param  list<list<string>>  $oneOf
     * @return list<string>
     */
    private function missed(array $package, array $chosen, array $options, array $oneOf): array
    {
        $sisterIn = static fn (string $code): bool => array_filter(
            $oneOf,
            static fn (array $group): bool => in_array($code, $group, true) &&
                array_intersect($group, $package, $chosen) !== [],
        ) !== [];

        return array_values(
            array_filter(
                array_diff($package, $chosen),
                static fn (string $code): bool => $options[$code]->notHere === null || ! $sisterIn($code),
            ),
        );
    }

    /**
     * @param  array<string, CatalogOption>  $options
     * @param  array{wanted: list<string>, always: list<string>, package: list<string>, unwanted: list<string>}  $lists
     * @param  list<list<string>>  $oneOf
     * @return array<string, mixed>
     */
    private function conflict(
        Input $in,
        OptionSearch $problem,
        array $options,
        array $lists,
        array $oneOf,
        float $rate,
        OrderContext $here,
    ): array {
        $clash = $problem->smallestClash($lists['wanted']);
        $out = [
            'status' => 'conflict',
            'chosen' => [],
            'added' => [],
            'removed' => [],
            'forbidden' => $problem->forbidden([]),
            'conflicts' => [$problem->explain($clash)],
            'bom' => [],
            'fluid_l' => 0.0,
            'hours' => 0.0,
            'price' => 0.0,
            'alternatives' => [],
        ];
        foreach ($clash as $wish) {
            $rest = array_values(array_diff($lists['wanted'], [$wish]));
            $solution = $problem->cheapest($rest);
            if ($solution !== null) {
                $written = $this->written(
                    $in,
                    $problem,
                    $solution,
                    $options,
                    ['wanted' => $rest] + $lists,
                    $oneOf,
                    $rate,
                    $here,
                );
                $out['alternatives'][] = [
                    'without' => $wish,
                    'chosen' => $solution,
                    'price' => $written['price'],
                    'hours' => $written['hours'],
                ];
            }
        }

        return $out;
    }
}
