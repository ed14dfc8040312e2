<?php

declare(strict_types=1);

namespace Yard\Core\Calculator;

use Yard\Core\Hydraulics\Cleanliness;
use Yard\Core\Input;

/** fluid.cleanliness: counted particles as an ISO 4406 code, held against a target. */
final class FluidCleanliness implements Calculator
{
    private const SIZES = ['um4', 'um6', 'um14'];

    /** Fewer counted particles than this make a number uncertain (ISO 4406). */
    private const FEW = 20;

    public function calculate(Input $in): array
    {
        $counts = $in->at('counts');
        $volume = $in->numberOr('volume_ml', 1.0, above: 0.0);
        $numbers = $perMl = $few = [];
        $larger = INF;
        foreach (self::SIZES as $size) {
            if ($size === 'um4' && ! $counts->has($size)) {
                continue; // a microscope counts two sizes only
            }
            $count = $counts->number($size, min: 0.0);
            if ($count > $larger) {
                throw $counts->at($size)->fail('range', 'Of larger particles there cannot be more than of smaller.');
            }
            $larger = $count;
            $perMl[$size] = $count / $volume;
            $numbers[$size] = Cleanliness::number($perMl[$size]) ??
                throw $counts->at($size)->fail('range', 'This is dirtier than the scale reaches.');
            $count < self::FEW && $in->has('volume_ml') && $few[] = $size;
        }

        return [
            'code' => implode('/', [$numbers['um4'] ?? '–', $numbers['um6'], $numbers['um14']]),
            'numbers' => $numbers,
            'perMl' => $perMl,
            'fewCounted' => $few,
        ] + ($in->has('target') ? self::against($in->at('target'), $numbers) : []);
    }

    /**
     * @param  array<string, int>  $numbers
     * @return array<string, mixed>
     */
    private static function against(Input $target, array $numbers): array
    {
        $pattern = '~^(?:(\d{1,2}|–|-)/)(\d{1,2})/(\d{1,2})$~u';
        if (preg_match($pattern, trim($target->asString()), $found) !== 1) {
            throw $target->fail('format', 'Write a target as three numbers, 18/16/13, or -/16/13.');
        }
        $over = [];
        foreach (self::SIZES as $n => $size) {
            $most = $found[$n + 1];
            if (isset($numbers[$size]) && is_numeric($most) && $numbers[$size] > (int) $most) {
                $over[] = $size;
            }
        }

        return ['target' => trim($target->asString()), 'meets' => $over === [], 'over' => $over];
    }
}
