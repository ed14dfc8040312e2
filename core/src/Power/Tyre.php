<?php

declare(strict_types=1);

namespace Yard\Core\Power;

use Yard\Core\BadInput;

/**
 * Radius of a tyre from the size moulded on its flank: overall diameter = rim + 2 x section x aspect (ISO 4000-1), and
 * rolling circumference = 3.05 x diameter for radials (the ETRTO factor; both from memory).
 */
final readonly class Tyre
{
    public const ROLLING_FACTOR = 3.05;

    private const SIZE = '~^\s*(?:LT|P)?\s*(\d{3})\s*/\s*(\d{2,3})\s*Z?R\s*(\d{2}(?:\.5)?)\b~i';

    /** @param  float  $diameter  overall, mm */
    private function __construct(public float $diameter)
    {
    }

    /** @throws BadInput where the text is no metric size */
    public static function of(string $size): self
    {
        $is = preg_match(self::SIZE, $size, $m) === 1;
        [, $width, $aspect, $rim] = $is ? array_map(floatval(...), $m) : [0.0, 0.0, 0.0, 0.0];
        if ($width < 100.0 || $width > 500.0 || $aspect < 20.0 || $aspect > 100.0 || $rim < 8.0 || $rim > 30.0) {
            throw new BadInput('tyre', "\"$size\" is no tyre size: write width/aspect R rim, such as 235/60R16.");
        }

        return new self(25.4 * $rim + (2.0 * $width * $aspect) / 100.0);
    }

    /** mm; the factor is circumference over diameter */
    public function rollingRadius(float $factor = self::ROLLING_FACTOR): float
    {
        return ($this->diameter * $factor) / (2.0 * M_PI);
    }
}
