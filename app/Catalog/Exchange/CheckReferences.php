<?php

namespace App\Catalog\Exchange;

use App\Catalog\Read\ByOption;
use App\Catalog\Read\VariantHardware;
use Yard\Core\BadInput;
use Yard\Core\Drivetrain\ApplyChart;
use Yard\Core\Input;
use Yard\Core\Packages\PackageOrder;
use Yard\Core\Power\MarginReport;
use Yard\Core\Power\TrainDuty;
use Yard\Core\Power\Tyre;

/** Everything a pack names must exist in it, once, and fit together; a schema cannot say that. */
final class CheckReferences
{
    /** @var list<array{pointer: string, detail: string}> */
    private array $errors = [];

    /** Specifications a house rule or an option may change. */
    private const CHANGEABLE = [
        'packs',
        'endPlays',
        'fasteners',
        'airChecks',
        'benchTests',
        'converters',
        'assembly',
        'teardown',
    ];

    /** Lists whose entries have a key of their own. */
    private const CODED = [
        'jobTypes' => 'code',
        'vocabularies' => 'code',
        'families' => 'code',
        'partSets' => 'code',
        'conversions' => 'code',
        'evidence' => 'code',
        'kits' => 'kit',
    ];

    /** Fields that name an entry of another list: list, field, what it names. */
    private const NAMED = [
        ['kits', 'kit', 'part'],
        ['supersessions', 'old', 'part'],
        ['supersessions', 'new', 'part'],
        ['equalParts', 'part', 'part'],
        ['equalParts', 'equals', 'part'],
        ['partFits', 'part', 'part'],
        ['applications', 'variant', 'variant'],
        ['partFits', 'variant', 'variant'],
        ['conversions', 'from', 'variant'],
        ['conversions', 'to', 'variant'],
        ['applications', 'vehicle', 'vehicle'],
    ];

    /** @var array<string, \stdClass>|null */
    private ?array $byNumber = null;

    /** @var array<string, \stdClass> the schema of a specification's body, by list */
    private array $schemas = [];

    /**
     * @param  array{parts?: list<string>, variants?: list<string>, vehicles?: list<string>}  $elsewhere codes that
     *     exist
     *     outside the pack, when one entry is checked
     */
    public function __construct(private readonly \stdClass $pack, private readonly array $elsewhere = [])
    {
    }

    /** @return list<array{pointer: string, detail: string}> */
    public function errors(): array
    {
        $this->errors = [];
        $pack = $this->pack;
        $elsewhere = array_map(fn (array $codes) => array_fill_keys($codes, true), $this->elsewhere);
        $known = [
            'part' => $this->unique($pack->parts, 'number', '/parts') + ($elsewhere['parts'] ?? []),
            'vehicle' => $this->unique($pack->vehicles, 'code', '/vehicles') + ($elsewhere['vehicles'] ?? []),
            'variant' => $elsewhere['variants'] ?? [],
        ];
        foreach (self::CODED as $kind => $key) {
            $this->unique($pack->{$kind}, $key, "/$kind");
        }
        foreach ($pack->vehicles as $i => $vehicle) {
            $this->vehicle($vehicle, "/vehicles/$i");
        }
        foreach ($pack->families as $i => $family) {
            $known['variant'] += $this->unique($family->variants, 'code', "/families/$i/variants");
            $this->family($family, "/families/$i", $known['part']);
        }
        $this->years();
        foreach (self::NAMED as [$kind, $field, $what]) {
            foreach ($pack->{$kind} as $i => $entry) {
                $this->known($entry->{$field}, $known[$what], $what, "/$kind/$i/$field");
            }
        }
        $this->partLists($known['part']);

        return $this->errors;
    }

    private function years(): void
    {
        foreach (['vehicles', 'applications', 'partFits'] as $kind) {
            foreach ($this->pack->{$kind} as $i => $entry) {
                if ($entry->fromYear > $entry->toYear) {
                    $this->errors[] = [
                        'pointer' => "/$kind/$i/toYear",
                        'detail' => "The years must run forward, not from $entry->fromYear to $entry->toYear.",
                    ];
                }
            }
        }
    }

    /** @param  array<string, true>  $parts */
    private function partLists(array $parts): void
    {
        foreach ([['kits', 'items'], ['conversions', 'parts']] as [$kind, $field]) {
            foreach ($this->pack->{$kind} as $i => $entry) {
                foreach ($entry->{$field} as $k => $item) {
                    $this->known($item->part, $parts, 'part', "/$kind/$i/$field/$k/part");
                }
            }
        }
        foreach ($this->pack->partSets as $i => $set) {
            foreach ($set->parts as $k => $part) {
                $this->known($part, $parts, 'part', "/partSets/$i/parts/$k");
            }
        }
    }

    /** @param  array<string, true>  $parts */
    private function family(\stdClass $family, string $at, array $parts): void
    {
        $features = $this->unique($family->features, 'code', "$at/features");
        $options = $this->unique($family->options, 'code', "$at/options");
        $this->unique($family->packages, 'code', "$at/packages");
        foreach ($family->variants as $i => $variant) {
            foreach (array_keys(get_object_vars($variant->expect)) as $feature) {
                $this->known((string) $feature, $features, 'feature', "$at/variants/$i/expect/$feature");
            }
        }
        $this->tagPatterns($family, $at);
        $this->places($family, $features, $parts, $at);
        foreach (self::CHANGEABLE as $list) {
            foreach ($family->{$list} as $i => $spec) {
                $this->spec($list, $spec->body, $parts, "$at/$list/$i/body");
                foreach ($this->changed($list, $spec->body, $options, "$at/$list/$i/body") as $pointer => $body) {
                    $this->spec($list, $body, $parts, $pointer);
                }
            }
        }
        $this->operations($family, $at);
        $this->options($family, $options, $parts, $at);
        $this->rulesOfOptions($family, $options, $parts, $at);
        $this->hardware($family, $at);
    }

    private function tagPatterns(\stdClass $family, string $at): void
    {
        $variants = array_fill_keys(array_column($family->variants, 'code'), true);
        foreach ($family->body->tagPatterns ?? [] as $i => $tag) {
            if (@preg_match("/$tag->pattern/", '') === false) {
                $this->errors[] = [
                    'pointer' => "$at/body/tagPatterns/$i/pattern",
                    'detail' => 'This is no pattern: '.lcfirst(preg_last_error_msg()).'.',
                ];
            }
            foreach ((array) $tag->letters as $letter => $codes) {
                foreach ($codes as $k => $code) {
                    $this->known($code, $variants, 'variant', "$at/body/tagPatterns/$i/letters/$letter/$k");
                }
            }
        }
    }

    /**
     * @param  array<string, true>  $features
     * @param  array<string, true>  $parts
     */
    private function places(\stdClass $family, array $features, array $parts, string $at): void
    {
        $drawn = array_fill_keys(array_column($family->body->section->parts ?? [], 'code'), true);
        foreach ($family->body->outline->places ?? [] as $i => $place) {
            if (isset($place->shape->part)) {
                $this->known($place->shape->part, $drawn, 'drawn part', "$at/body/outline/places/$i/shape/part");
            }
            foreach ($place->parts as $k => $part) {
                $this->known($part, $parts, 'part', "$at/body/outline/places/$i/parts/$k");
            }
            foreach ($place->features as $k => $feature) {
                $this->known($feature, $features, 'feature', "$at/body/outline/places/$i/features/$k");
            }
        }
    }

    private function operations(\stdClass $family, string $at): void
    {
        foreach (['teardown', 'assembly'] as $bench) {
            $this->unique($family->{$bench}, 'code', "$at/$bench");
            array_push($this->errors, ...CheckOperations::errors($family, $bench, $at));
        }
        array_push(
            $this->errors,
            ...CheckSection::errors($family, $at),
            ...CheckCounts::errors($family, $at),
            ...CheckTests::errors($family, $at),
            ...CheckPrograms::errors($family, $at),
            ...CheckControl::errors($family, $at),
            ...CheckStrength::errors($family, $at),
            ...CheckPorts::errors($family, $at),
            ...CheckFasteners::errors($family, $this->pack->vocabularies, $at),
            ...CheckLeaks::errors($family, $at),
            ...CheckCare::errors($family, $this->pack->vocabularies, $at),
        );
    }

    /**
     * @param  array<string, true>  $options
     * @param  array<string, true>  $parts
     */
    private function options(\stdClass $family, array $options, array $parts, string $at): void
    {
        foreach ($family->options as $i => $option) {
            foreach (['requires', 'excludes'] as $rule) {
                foreach ($option->body->{$rule} ?? [] as $k => $other) {
                    $this->known($other, $options, 'option', "$at/options/$i/body/$rule/$k");
                }
            }
            foreach ($option->body->parts ?? [] as $k => $item) {
                $this->known($item->part, $parts, 'part', "$at/options/$i/body/parts/$k/part");
            }
        }
        foreach ($family->packages as $i => $package) {
            foreach ($package->body->options as $k => $option) {
                $this->known($option, $options, 'option', "$at/packages/$i/body/options/$k");
            }
            foreach ($package->body->parts as $k => $item) {
                $this->known($item->part, $parts, 'part', "$at/packages/$i/body/parts/$k/part");
            }
        }
    }

    /**
     * @param  array<string, true>  $options
     * @param  array<string, true>  $parts
     */
    private function rulesOfOptions(\stdClass $family, array $options, array $parts, string $at): void
    {
        foreach ($family->body->always as $k => $always) {
            $this->known($always->option, $options, 'option', "$at/body/always/$k/option");
        }
        foreach ((array) ($family->body->houseOptions ?? []) as $rule => $choices) {
            foreach ((array) $choices as $choice => $codes) {
                foreach ($codes as $k => $code) {
                    $this->known($code, $options, 'option', "$at/body/houseOptions/$rule/$choice/$k");
                }
            }
        }
        foreach ($family->body->neverOmit ?? [] as $k => $never) {
            $this->known($never->part, $parts, 'part', "$at/body/neverOmit/$k/part");
        }
    }

    /** @param  array<string, true>  $parts */
    private function spec(string $list, \stdClass $body, array $parts, string $at): void
    {
        if ($list !== 'packs' && $list !== 'endPlays') {
            return;
        }
        if (
            $body->window->min > $body->window->max ||
            $body->target < $body->window->min ||
            $body->target > $body->window->max
        ) {
            $this->errors[] = [
                'pointer' => "$at/window",
                'detail' => 'The window must go from min to max with the target inside.',
            ];
        }
        foreach ($body->fixed ?? [] as $k => $fixed) {
            $this->known($fixed->part, $parts, 'part', "$at/fixed/$k/part");
        }
        foreach ($body->slots ?? [] as $s => $slot) {
            foreach ($slot->parts as $k => $part) {
                $this->selective($part, $body->unit, $parts, "$at/slots/$s/parts/$k");
            }
        }
        foreach ($body->washers ?? [] as $k => $part) {
            $this->selective($part, $body->unit, $parts, "$at/washers/$k");
        }
    }

    /**
     * What house rules and options make of a specification, held against the schema like the one they change.
     *
     * @param  array<string, true>  $options
     * @return \Generator<string, \stdClass> by the pointer of the change
     */
    private function changed(string $list, \stdClass $body, array $options, string $at): \Generator
    {
        $schema = $this->schemas[$list] ??= CheckPack::entrySchema($list)->properties->body;
        foreach ($this->changes($body, $options, $at) as $pointer => $change) {
            $changed = clone $body;
            foreach ($change as $field => $value) {
                $changed->{$field} = json_decode((string) json_encode($value));
            }
            $faults = CheckPack::violations($changed, $schema);
            foreach ($faults as $fault) {
                $this->errors[] = ['pointer' => $pointer.$fault['pointer'], 'detail' => $fault['detail']];
            }
            if ($faults === []) {
                yield $pointer => $changed;
            }
        }
    }

    /**
     * @param  array<string, true>  $options
     * @return array<string, array<string, mixed>> what is changed, by the pointer of the change
     */
    private function changes(\stdClass $body, array $options, string $at): array
    {
        $plain = json_decode((string) json_encode($body), true);
        $changes = [];
        foreach ($plain['byRule'] ?? [] as $rule => $choices) {
            foreach ($choices as $choice => $change) {
                $changes["$at/byRule/$rule/$choice"] = $change;
            }
        }
        foreach ($plain['byOption'] ?? [] as $code => $change) {
            $this->known((string) $code, $options, 'option', "$at/byOption/$code");
            $changes["$at/byOption/$code"] = array_intersect_key(ByOption::apply($plain, [$code => '']), $change);
        }

        return $changes;
    }

    private function vehicle(\stdClass $vehicle, string $at): void
    {
        if (isset($vehicle->tyre)) {
            $this->reads("$at/tyre", fn () => Tyre::of($vehicle->tyre));
        }
        $before = -1;
        foreach ($vehicle->engineCurve ?? [] as $k => $point) {
            if ($point->speed_rpm <= $before) {
                $this->errors[] = [
                    'pointer' => "$at/engineCurve/$k/speed_rpm",
                    'detail' => 'The speeds of the engine curve must rise from point to point.',
                ];
            }
            $before = $point->speed_rpm;
        }
    }

    /**
     * What the family, its variants and its options say of hardware must be something the calculators can reckon with.
     */
    private function hardware(\stdClass $family, string $at): void
    {
        $power = isset($family->body->power) ? self::plain($family->body->power) : null;
        $train = self::plain($family->train);
        try {
            ApplyChart::read(Input::of($train));
        } catch (BadInput) {
            return; // told where the train itself is looked at
        }
        $with = fn (array $variant): array => ['inputTorque_nm' => 100] +
            VariantHardware::of($power ?? [], $train, $variant);
        if ($power !== null && ! $this->margins($with([]), "$at/body/power")) {
            return; // one fault of the family would be told again for every variant and option
        }
        foreach ($family->variants as $i => $variant) {
            if ($power !== null && isset($variant->hardware)) {
                $this->margins($with(self::plain($variant->hardware)), "$at/variants/$i/hardware");
            }
        }
        $this->optionHardware($family, $power === null ? null : $with([]), $at);
        $this->stallWindows($family, $at);
    }

    /** @return array<string, mixed> */
    private static function plain(mixed $node): array
    {
        return json_decode((string) json_encode($node), true);
    }

    /** @param  array<string, mixed>  $duty */
    private function margins(array $duty, string $at): bool
    {
        return $this->reads($at, function () use ($duty): void {
            $plan = TrainDuty::read(Input::of($duty));
            (new MarginReport($plan, $plan->hardware))->toArray();
        });
    }

    /** @param  array<string, mixed>|null  $power  of the family */
    private function optionHardware(\stdClass $family, ?array $power, string $at): void
    {
        foreach ($family->options as $i => $option) {
            $own = array_intersect_key(self::plain($option->body), ['power' => 0, 'converter' => 0]);
            if ($own === []) {
                continue;
            }
            $order =
                ['options' => [['code' => $option->code, 'price' => 0] + $own]] +
                ($power === null ? [] : ['power' => $power]);
            $this->reads(
                "$at/options/$i/body",
                fn () => PackageOrder::read(Input::of($order))->resolve(),
                '/options/0',
            );
        }
    }

    private function stallWindows(\stdClass $family, string $at): void
    {
        foreach ($family->packages as $i => $package) {
            $window = $package->body->stall_rpm ?? null;
            if ($window !== null && $window->max < $window->min) {
                $this->errors[] = [
                    'pointer' => "$at/packages/$i/body/stall_rpm/max",
                    'detail' => 'The window of stall speeds ends below its start.',
                ];
            }
        }
    }

    /** @param  string  $within  the part of the core's own pointer that stands for the place */
    private function reads(string $at, \Closure $read, string $within = ''): bool
    {
        try {
            $read();

            return true;
        } catch (BadInput $e) {
            $path = str_starts_with($e->path, $within) ? substr($e->path, strlen($within)) : $e->path;
            $this->errors[] = ['pointer' => $at.$path, 'detail' => $e->getMessage()];

            return false;
        }
    }

    /**
     * @param  list<\stdClass>  $items
     * @return array<string, true>
     */
    private function unique(array $items, string $key, string $at): array
    {
        $seen = [];
        foreach ($items as $i => $item) {
            if (isset($seen[$item->{$key}])) {
                $this->errors[] = ['pointer' => "$at/$i/$key", 'detail' => "\"{$item->{$key}}\" is listed twice."];
            }
            $seen[$item->{$key}] = true;
        }

        return $seen;
    }

    /** @param  array<string, true>  $known */
    private function known(string $name, array $known, string $what, string $at): void
    {
        if (! isset($known[$name])) {
            $this->errors[] = ['pointer' => $at, 'detail' => "There is no $what \"$name\" in this pack."];
        }
    }

    /** @param  array<string, true>  $parts */
    private function selective(string $number, string $unit, array $parts, string $at): void
    {
        $this->known($number, $parts, 'part', $at);
        $part = ($this->byNumber ??= array_column($this->pack->parts, null, 'number'))[$number] ?? null;
        if ($part !== null && (! isset($part->thickness) || ($part->thicknessUnit ?? '') !== $unit)) {
            $this->errors[] = [
                'pointer' => $at,
                'detail' => "The selective part \"$number\" needs a thickness in $unit.",
            ];
        }
    }
}
