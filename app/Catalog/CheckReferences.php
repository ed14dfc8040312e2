<?php

namespace App\Catalog;

/** Everything a pack names must exist in it, once, and fit together; a schema cannot say that. */
final class CheckReferences
{
    /** @var list<array{pointer: string, detail: string}> */
    private array $errors = [];

    public function __construct(private readonly \stdClass $pack)
    {
    }

    /** @return list<array{pointer: string, detail: string}> */
    public function errors(): array
    {
        $this->errors = [];
        $parts = $this->unique($this->pack->parts, 'number', '/parts');
        $vehicles = $this->unique($this->pack->vehicles, 'code', '/vehicles');
        $this->unique($this->pack->jobTypes, 'code', '/jobTypes');
        $this->unique($this->pack->families, 'code', '/families');
        $variants = [];
        foreach ($this->pack->kits as $i => $kit) {
            $this->known($kit->kit, $parts, 'part', "/kits/$i/kit");
            foreach ($kit->items as $k => $item) {
                $this->known($item->part, $parts, 'part', "/kits/$i/items/$k/part");
            }
        }
        foreach ($this->pack->supersessions as $i => $s) {
            $this->known($s->old, $parts, 'part', "/supersessions/$i/old");
            $this->known($s->new, $parts, 'part', "/supersessions/$i/new");
        }
        foreach ($this->pack->families as $i => $family) {
            $variants += $this->unique($family->variants, 'code', "/families/$i/variants");
            $this->family($family, "/families/$i", $parts);
        }
        foreach ($this->pack->applications as $i => $a) {
            $this->known($a->variant, $variants, 'variant', "/applications/$i/variant");
            $this->known($a->vehicle, $vehicles, 'vehicle', "/applications/$i/vehicle");
        }

        return $this->errors;
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
        foreach ($family->packs as $i => $pack) {
            $this->window($pack->body, "$at/packs/$i/body");
            foreach ($pack->body->fixed as $k => $fixed) {
                $this->known($fixed->part, $parts, 'part', "$at/packs/$i/body/fixed/$k/part");
            }
            foreach ($pack->body->slots as $s => $slot) {
                foreach ($slot->parts as $k => $part) {
                    $this->selective($part, $pack->body->unit, $parts, "$at/packs/$i/body/slots/$s/parts/$k");
                }
            }
        }
        foreach ($family->endPlays as $i => $play) {
            $this->window($play->body, "$at/endPlays/$i/body");
            foreach ($play->body->washers as $k => $part) {
                $this->selective($part, $play->body->unit, $parts, "$at/endPlays/$i/body/washers/$k");
            }
        }
        foreach (['teardown', 'assembly'] as $phase) {
            $before = [];
            $this->unique($family->{$phase}, 'code', "$at/$phase");
            foreach ($family->{$phase} as $i => $step) {
                foreach ($step->body->needs as $k => $need) {
                    // Steps may only need earlier ones: the order is a graph without cycles by construction.
                    $this->known($need, $before, 'earlier step', "$at/$phase/$i/body/needs/$k");
                }
                $before[$step->code] = true;
            }
        }
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
        foreach ($family->body->always as $k => $always) {
            $this->known($always->option, $options, 'option', "$at/body/always/$k/option");
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
        foreach ($this->pack->parts as $part) {
            if ($part->number === $number && (! isset($part->thickness) || ($part->thicknessUnit ?? '') !== $unit)) {
                $this->errors[] = ['pointer' => $at, 'detail' => "The selective part \"$number\" needs a thickness in $unit."];
            }
        }
    }

    private function window(\stdClass $body, string $at): void
    {
        if ($body->window->min > $body->window->max || $body->target < $body->window->min || $body->target > $body->window->max) {
            $this->errors[] = ['pointer' => "$at/window", 'detail' => 'The window must go from min to max with the target inside.'];
        }
    }
}
