<?php

declare(strict_types=1);

namespace Yard\Core\Packages;

use Yard\Core\BadInput;
use Yard\Core\Input;
use Yard\Core\Power\HardwareChange;
use Yard\Core\Power\TrainDuty;

/**
 * An order of options for a unit: the cheapest set that meets wishes, house list, rules and torque margins, or the
 * smallest set of wishes that cannot hold together. Complete and exact: branch and bound with unit propagation over the
 * rules as clauses.
 */
final readonly class PackageOrder
{
    private OptionSearch $search;

    /**
     * @param  array<string, CatalogOption>  $options
     * @param  list<string>  $wanted  the customer's wishes
     * @param  list<string>  $always  the house list
     * @param  list<string>  $package  options of the package asked for
     * @param  list<string>  $unwanted
     * @param  list<list<string>>  $oneOf  groups of which exactly one is in
     * @param  float  $rate  money an hour
     */
    private function __construct(
        private array $options,
        private array $wanted,
        private array $always,
        private array $package,
        array $unwanted,
        private array $oneOf,
        private float $rate,
        private BaseBuild $base,
        private OrderContext $context,
        private ?Margins $margins,
        bool $enforceMargins,
        float $effort,
    ) {
        $this->search = new OptionSearch(
            $options,
            $oneOf,
            $always,
            $unwanted,
            $package,
            $rate,
            $margins,
            $enforceMargins,
            $effort,
        );
    }

    public static function read(Input $in): self
    {
        $power = $in->optional('power');
        $plan = $power === null ? null : TrainDuty::read($power);
        $enforce = ! $in->has('enforceMargins') || $in->bool('enforceMargins');
        $context = OrderContext::read($in, $plan, $enforce);
        $options = OptionList::read($in->list('options'), $context);
        $in->within(static fn () => OptionList::assertNoCircle($options));

        return new self(
            $options,
            OptionList::names($in->optional('wanted'), $options),
            OptionList::names($in->optional('always'), $options),
            OptionList::names($in->optional('package'), $options),
            OptionList::names($in->optional('unwanted'), $options),
            array_map(
                static fn (Input $group): array => OptionList::names($group, $options),
                $in->optional('oneOf')?->asList() ?? [],
            ),
            $in->numberOr('rate', 0.0, min: 0.0),
            BaseBuild::read($in->optional('base')),
            $context,
            $plan === null ? null : new Margins($plan, self::changes($options, $plan)),
            $enforce,
            $in->numberOr('effort', 1.0, above: 0.0, max: 100.0),
        );
    }

    /** @return array<string, mixed> as package.resolve answers */
    public function resolve(): array
    {
        $solution = $this->search->cheapest($this->wanted);
        $complete = $this->search->complete;
        if ($solution === null && ! $complete) {
            throw new BadInput(
                'too-large',
                'The rules leave too much to try before a choice that holds is found; wish for less, or allow more '
                    .'effort.',
                '/options',
            );
        }
        if ($solution === null) {
            return $this->conflict();
        }

        return ['status' => 'ok', 'conflicts' => []] +
            $this->written($solution, $this->wanted) +
            ['optimal' => $complete] +
            ($complete ? [] : ['bound' => $this->search->leastOf($this->wanted)]);
    }

    /**
     * What each option changes in the hardware.
     *
     * @param  array<string, CatalogOption>  $options
     * @return array<string, HardwareChange>
     */
    private static function changes(array $options, TrainDuty $plan): array
    {
        $out = [];
        foreach ($options as $code => $option) {
            if ($option->power !== null || $option->converter !== null) {
                $out[$code] = HardwareChange::read($option->power, $plan->chart->train, $option->converter);
            }
        }

        return $out;
    }

    /**
     * @param  list<string>  $chosen
     * @param  list<string>  $wanted
     * @return array<string, mixed>
     */
    private function written(array $chosen, array $wanted): array
    {
        $forced = [...$wanted, ...$this->always, ...$this->package];
        $bill = new Bill($this->base, array_map(fn (string $code) => $this->options[$code], $chosen));
        $totals = ['price' => $bill->price(), 'hours' => $bill->hours()];

        return [
            'chosen' => $chosen,
            'added' => array_map(
                fn (string $code): array => ['option' => $code, 'because' => $this->search->whyIn($code, $chosen)],
                array_values(array_diff($chosen, $forced)),
            ),
            'removed' => array_map(
                fn (string $code): array => ['option' => $code, 'because' => $this->search->whyOut($code, $chosen)],
                $this->missed($chosen),
            ),
            'forbidden' => $this->search->forbidden($wanted),
            'cheapest' => ['chosen' => $chosen] +
                $totals + ['cost' => $totals['price'] + $totals['hours'] * $this->rate],
        ] +
            $bill->toArray() +
            $totals +
            $this->converter($chosen) +
            ($this->margins === null
                ? []
                : [
                    'margins' => $this->margins->of($chosen),
                    'sensitivity' => $this->search->sensitivity($chosen),
                ]);
    }

    /**
     * @param  list<string>  $chosen
     * @return array{converter?: array<string, mixed>} what the converter chosen does behind the engine
     */
    private function converter(array $chosen): array
    {
        $out = [];
        foreach ($chosen as $code) {
            $converter = $this->options[$code]->converter;
            $behind = $converter === null ? null : $this->context->behind($converter);
            $out = $behind === null ? $out : ['converter' => ['option' => $code] + $behind];
        }

        return $out;
    }

    /**
     * Options of the package that are not in. One that another variant takes is not missed where the package brings its
     * sister of the same group.
     *
     * @param  list<string>  $chosen
     * @return list<string>
     */
    private function missed(array $chosen): array
    {
        $sisterIn = fn (string $code): bool => array_filter(
            $this->oneOf,
            fn (array $group): bool => in_array($code, $group, true) &&
                array_intersect($group, $this->package, $chosen) !== [],
        ) !== [];

        return array_values(
            array_filter(
                array_diff($this->package, $chosen),
                fn (string $code): bool => $this->options[$code]->notHere === null || ! $sisterIn($code),
            ),
        );
    }

    /** @return array<string, mixed> */
    private function conflict(): array
    {
        $clash = $this->search->smallestClash($this->wanted);
        $complete = $this->search->complete;
        $alternatives = [];
        foreach ($clash as $wish) {
            $rest = array_values(array_diff($this->wanted, [$wish]));
            $solution = $this->search->cheapest($rest);
            $complete = $complete && $this->search->complete;
            if ($solution !== null) {
                $bill = new Bill($this->base, array_map(fn (string $code) => $this->options[$code], $solution));
                $alternatives[] = [
                    'without' => $wish,
                    'chosen' => $solution,
                    'price' => $bill->price(),
                    'hours' => $bill->hours(),
                ];
            }
        }

        return [
            'status' => 'conflict',
            'chosen' => [],
            'added' => [],
            'removed' => [],
            'forbidden' => $this->search->forbidden([]),
            'conflicts' => [$this->search->explain($clash)],
            'bom' => [],
            'fluid_l' => 0.0,
            'hours' => 0.0,
            'price' => 0.0,
            'alternatives' => $alternatives,
            'optimal' => $complete,
        ];
    }
}
