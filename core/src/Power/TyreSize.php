<?php

declare(strict_types=1);

namespace Yard\Core\Power;

use Yard\Core\Calculator;
use Yard\Core\Input;

/**
 * Radius of a tyre from the size moulded on its flank: overall diameter = rim + 2 x section x aspect (ISO 4000-1), and
 * rolling circumference = 3.05 x diameter for radials (the ETRTO factor; both from memory).
 */
final class TyreSize implements Calculator
{
    private const ROLLING = 3.05;

    public function calculate(Input $in): array
    {
        $size = $in->name('size');
        $diameter = self::diameter($size) ?? throw $in->at('size')->fail('tyre', self::says($size));
        $factor = $in->has('rollingFactor') ? $in->number('rollingFactor', min: 2.5, max: M_PI) : self::ROLLING;

        return [
            'rollingRadius_mm' => ($diameter * $factor) / (2.0 * M_PI),
            'diameter_mm' => $diameter,
            'assumed' => (object) ($in->has('rollingFactor') ? [] : ['rollingFactor' => self::ROLLING]),
        ];
    }

    public static function says(string $size): string
    {
        return "\"$size\" is no tyre size: write width/aspect R rim, such as 235/60R16.";
    }

    /** Overall diameter in mm; null where the text is no metric size. */
    public static function diameter(string $size): ?float
    {
        if (preg_match('~^\s*(?:LT|P)?\s*(\d{3})\s*/\s*(\d{2,3})\s*Z?R\s*(\d{2}(?:\.5)?)\b~i', $size, $m) !== 1) {
            return null;
        }
        [, $width, $aspect, $rim] = array_map(floatval(...), $m);
        if ($width < 100.0 || $width > 500.0 || $aspect < 20.0 || $aspect > 100.0 || $rim < 8.0 || $rim > 30.0) {
            return null;
        }

        return 25.4 * $rim + (2.0 * $width * $aspect) / 100.0;
    }
}
