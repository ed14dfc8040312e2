<?php

namespace App\Stations\Ordering\Queries;

use App\Catalog\Models\Option;
use App\Catalog\Models\Variant;
use App\Catalog\Read\VariantHardware;
use Yard\Core\Dyno\BuiltHardware;
use Yard\Core\Dyno\UnitProgram;

/**
 * What will stand in a unit that is built as ordered, and which options make it so.
 *
 * @phpstan-import-type Power from BuiltHardware
 */
final readonly class UnitHardware
{
    /**
     * @param  list<string>  $options  that change the hardware
     * @param  array<string, mixed>|null  $built  null: nobody wrote down what the family has
     */
    private function __construct(private Variant $variant, private array $options, public ?array $built)
    {
    }

    /** @param  list<string>  $chosen  options that are in */
    public static function of(Variant $variant, array $chosen): self
    {
        $changes = Option::query()
            ->where('family_id', $variant->family_id)
            ->whereIn('code', $chosen)
            ->orderBy('id')
            ->get()
            ->keyBy('code')
            ->map(fn (Option $o): ?array => $o->body['power'] ?? null)
            ->filter()
            ->all();
        $options = array_map(strval(...), array_keys($changes));
        $family = $variant->family;
        if (! isset($family->body['power'])) {
            return new self($variant, $options, null);
        }
        /** @var Power $power */
        $power = VariantHardware::of($family->body['power'], $family->train, $variant->hardware ?? []);
        $gears = array_column($family->train['gears'], 'name');

        return new self($variant, $options, BuiltHardware::of($power, $gears, array_values($changes)));
    }

    /**
     * @param  array<string, mixed>|null  $program  of the family
     * @return array<string, mixed>|null as this unit runs it
     */
    public function program(?array $program, string $package): ?array
    {
        return $program === null ? null : UnitProgram::of(
            $program,
            $package,
            $this->variant->code,
            $this->options,
            $this->built['lockup'] ?? true,
        );
    }
}
