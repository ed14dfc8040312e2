<?php

declare(strict_types=1);

namespace Yard\Core\Calculator;

use Yard\Core\Hydraulics\PatchCount;
use Yard\Core\Input;

/** fluid.cleanliness: counted particles as an ISO 4406 code, held against a target. */
final class FluidCleanliness implements Calculator
{
    /** Fewer counted particles than this make a number uncertain (ISO 4406). */
    private const FEW = 20;

    public function calculate(Input $in): array
    {
        $counts = $in->at('counts');
        $volume = $in->numberOr('volume_ml', 1.0, above: 0.0);
        $perMl = $few = [];
        foreach (PatchCount::SIZES as $size) {
            if ($size === 'um4' && ! $counts->has($size)) {
                continue; // a microscope counts two sizes only
            }
            $count = $counts->number($size, min: 0.0);
            $perMl[$size] = $count / $volume;
            $count < self::FEW && $in->has('volume_ml') && $few[] = $size;
        }
        $patch = $counts->within(fn (): PatchCount => PatchCount::of($perMl));

        return [
            'code' => $patch->code(),
            'numbers' => $patch->numbers,
            'perMl' => $patch->perMl,
            'fewCounted' => $few,
        ] + ($in->has('target') ? self::against($in->at('target'), $patch) : []);
    }

    /** @return array<string, mixed> */
    private static function against(Input $target, PatchCount $patch): array
    {
        $code = trim($target->asString());
        $over = $target->within(fn (): array => $patch->over($code));

        return ['target' => $code, 'meets' => $over === [], 'over' => $over];
    }
}
