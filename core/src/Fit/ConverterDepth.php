<?php

declare(strict_types=1);

namespace Yard\Core\Fit;

use Yard\Core\Calculator;
use Yard\Core\Decimal;
use Yard\Core\Input;

/**
 * Is the converter fully seated: bell face to lug face on the unit against engine face to flex-plate on the vehicle.
 * It must be drawn forward a little when bolted up: pull = converterDepth - flexplateDepth (common practice).
 */
final class ConverterDepth implements Calculator
{
    public function calculate(Input $in): array
    {
        $unit = $in->choice('unit', Stack::UNITS);
        $d = array_map(
            static fn (string $k): Decimal => $in
                ->at($k)
                ->asDecimal($k === 'minPull' || $k === 'maxPull' ? 0.0 : null),
            ['converterDepth', 'flexplateDepth', 'minPull', 'maxPull'],
        );
        $places = max(array_map(static fn (Decimal $x): int => $x->places, $d));
        [$converter, $flexplate, $min, $max] = array_map(static fn (Decimal $x): int => $x->scaled($places), $d);
        if ($min > $max) {
            throw $in->at('maxPull')->fail('window', 'The largest pull must not be smaller than the smallest.');
        }
        $pull = $converter - $flexplate;
        $show = static fn (int $x): string => Input::show(Decimal::unscale($x, $places))." $unit";
        $message = match (true) {
            $pull < 0 => 'Not seated: bolted up, the converter would be pressed '.
                $show(-$pull).
                ' into the pump and crush it. Turn and push until it drops, then measure again.',
            $pull < $min => 'Not seated: the pull is '.
                $show($pull).
                ', and at least '.
                $show($min).
                ' is needed. Turn and push until it drops, then measure again.',
            $pull > $max => 'Seated, but the pull of '.
                $show($pull).
                ' is over '.
                $show($max).
                ': the pump drive would be short of engagement. Check pilot, spacer and flex-plate.',
            default => 'Seated: the converter is drawn forward '.$show($pull).' when bolted up.',
        };

        return [
            'pull' => Decimal::unscale($pull, $places),
            'seated' => $pull >= $min,
            'withinLimits' => $pull >= $min && $pull <= $max,
            'message' => $message,
        ];
    }
}
