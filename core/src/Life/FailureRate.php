<?php

declare(strict_types=1);

namespace Yard\Core\Life;

use Yard\Core\BadInput;
use Yard\Core\Maths\Special;

/**
 * A failure rate with its exact interval: of units (Clopper & Pearson, Biometrika 26, 1934, 404) or over an exposure
 * (Garwood, Biometrika 28, 1936, 437).
 */
final readonly class FailureRate
{
    public const CONFIDENCE = 0.95;

    private function __construct(
        public float $rate,
        public float $lower,
        public float $upper,
        public float $confidence,
        public string $method,
    ) {
    }

    /** @throws BadInput when more failed than were watched */
    public static function ofUnits(int $failures, int $units, float $confidence = self::CONFIDENCE): self
    {
        if ($failures > $units) {
            throw new BadInput(
                'range',
                "There cannot be more failures ($failures) than units ($units).",
                '/failures',
            );
        }
        $tail = (1.0 - $confidence) / 2.0;
        $x = (float) $failures;
        $n = (float) $units;
        $lower = static fn (float $p): float => Special::betaI($p, $x, $n - $x + 1.0);
        $upper = static fn (float $p): float => Special::betaI($p, $x + 1.0, $n - $x);

        return new self(
            $x / $n,
            $failures === 0 ? 0.0 : Special::invert($lower, $tail, 0.0, 1.0),
            $failures === $units ? 1.0 : Special::invert($upper, 1.0 - $tail, 0.0, 1.0),
            $confidence,
            'Clopper-Pearson',
        );
    }

    /** @param  float  $exposure  how long or how far, in any unit; the rate is per that unit */
    public static function ofExposure(int $failures, float $exposure, float $confidence = self::CONFIDENCE): self
    {
        $tail = (1.0 - $confidence) / 2.0;
        $x = (float) $failures;
        $far = $x + 50.0 + 40.0 * sqrt($x + 1.0);
        $lower = static fn (float $m): float => Special::gammaP($x, $m);
        $upper = static fn (float $m): float => Special::gammaP($x + 1.0, $m);

        return new self(
            $x / $exposure,
            $failures === 0 ? 0.0 : Special::invert($lower, $tail, 0.0, $far) / $exposure,
            Special::invert($upper, 1.0 - $tail, 0.0, $far) / $exposure,
            $confidence,
            'Garwood',
        );
    }
}
