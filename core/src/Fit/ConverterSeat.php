<?php

declare(strict_types=1);

namespace Yard\Core\Fit;

use Yard\Core\BadInput;
use Yard\Core\Decimal;
use Yard\Core\Input;

/**
 * Is the converter fully seated: bell face to lug face on the unit against engine face to flex-plate on the vehicle.
 * It must be drawn forward a little when bolted up: pull = converterDepth - flexplateDepth (common practice).
 */
final readonly class ConverterSeat
{
    private function __construct(
        public float $pull,
        public bool $seated,
        public bool $withinLimits,
        public string $message,
    ) {
    }

    /**
     * Depths and limits in the unit named.
     *
     * @throws BadInput when the limits are the wrong way round or a number has too many digits
     */
    public static function of(
        string $unit,
        float $converterDepth,
        float $flexplateDepth,
        float $minPull,
        float $maxPull,
    ): self {
        $typed = array_map(Decimal::ofFloat(...), [$converterDepth, $flexplateDepth, $minPull, $maxPull]);
        $places = max(array_map(static fn (Decimal $x): int => $x->places, $typed));
        [$converter, $flexplate, $min, $max] = array_map(static fn (Decimal $x): int => $x->scaled($places), $typed);
        if ($min > $max) {
            throw new BadInput('window', 'The largest pull must not be smaller than the smallest.', '/maxPull');
        }
        $pull = $converter - $flexplate;
        $show = static fn (int $x): string => Input::show(Decimal::unscale($x, $places))." $unit";

        return new self(
            Decimal::unscale($pull, $places),
            $pull >= $min,
            $pull >= $min && $pull <= $max,
            self::says($pull, $min, $max, $show),
        );
    }

    /** @param  callable(int): string  $show */
    private static function says(int $pull, int $min, int $max, callable $show): string
    {
        return match (true) {
            $pull < 0 => "Not seated: bolted up, the converter would be pressed {$show(-$pull)} into the pump and "
                .'crush it. Turn and push until it drops, then measure again.',
            $pull < $min => "Not seated: the pull is {$show($pull)}, and at least {$show($min)} is needed. Turn and "
                .'push until it drops, then measure again.',
            $pull > $max => "Seated, but the pull of {$show($pull)} is over {$show($max)}: the pump drive would be "
                .'short of engagement. Check pilot, spacer and flex-plate.',
            default => "Seated: the converter is drawn forward {$show($pull)} when bolted up.",
        };
    }
}
