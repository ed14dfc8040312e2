<?php

declare(strict_types=1);

namespace Yard\Core\Life;

use Yard\Core\Calculator;
use Yard\Core\Input;
use Yard\Core\Maths\Special;

/**
 * A failure rate with its exact interval: of units (Clopper & Pearson, Biometrika 26, 1934, 404) or over an exposure
 * (Garwood, Biometrika 28, 1936, 437). Confidence 0.95 unless given.
 */
final class RateInterval implements Calculator
{
    public function calculate(Input $in): array
    {
        $failures = $in->integer('failures', min: 0);
        $confidence = $in->has('confidence') ? $in->number('confidence', above: 0.0, below: 1.0) : 0.95;
        if ($in->has('units') === $in->has('exposure')) {
            throw $in->fail(
                'choice',
                'Give either "units" (how many were watched) or "exposure" (how long or far), not '.
                    ($in->has('units') ? 'both' : 'neither').
                    '.',
            );
        }
        $tail = (1.0 - $confidence) / 2.0;
        $x = (float) $failures;
        if ($in->has('units')) {
            $units = $in->integer('units', min: 1, max: 1_000_000_000);
            if ($failures > $units) {
                throw $in
                    ->at('failures')
                    ->fail('range', "There cannot be more failures ($failures) than units ($units).");
            }
            $n = (float) $units;

            return [
                'rate' => $x / $n,
                'lower' => $failures === 0
                        ? 0.0
                        : Special::invert(
                            static fn (float $p): float => Special::betaI($p, $x, $n - $x + 1.0),
                            $tail,
                            0.0,
                            1.0,
                        ),
                'upper' => $failures === $units
                        ? 1.0
                        : Special::invert(
                            static fn (float $p): float => Special::betaI($p, $x + 1.0, $n - $x),
                            1.0 - $tail,
                            0.0,
                            1.0,
                        ),
                'confidence' => $confidence,
                'method' => 'Clopper-Pearson',
            ];
        }
        $exposure = $in->number('exposure', above: 0.0);
        $far = $x + 50.0 + 40.0 * sqrt($x + 1.0);

        return [
            'rate' => $x / $exposure,
            'lower' => $failures === 0
                    ? 0.0
                    : Special::invert(static fn (float $m): float => Special::gammaP($x, $m), $tail, 0.0, $far) /
                        $exposure,
            'upper' => Special::invert(
                static fn (float $m): float => Special::gammaP($x + 1.0, $m),
                1.0 - $tail,
                0.0,
                $far,
            ) / $exposure,
            'confidence' => $confidence,
            'method' => 'Garwood',
        ];
    }
}
