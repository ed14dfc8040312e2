<?php

declare(strict_types=1);

namespace Yard\Core\Power;

use Yard\Core\Input;

/** The stall speeds a duty wants, rev/min. */
final readonly class StallWindow
{
    private function __construct(private float $min, private float $max)
    {
    }

    public static function read(?Input $in): ?self
    {
        if ($in === null) {
            return null;
        }
        $min = $in->number('min', min: 0.0);
        $max = $in->number('max', above: 0.0);
        if ($max < $min) {
            throw $in->at('max')->fail('order', 'The window of stall speeds ends below its start.');
        }

        return new self($min, $max);
    }

    public function fits(float $stall): bool
    {
        return $stall >= $this->min && $stall <= $this->max;
    }

    public function says(float $stall): string
    {
        $window = sprintf('%.0f to %.0f rev/min', $this->min, $this->max);

        return match (true) {
            $stall < $this->min => sprintf(
                'With this engine it stalls at %.0f rev/min, below the %s this duty wants: it pulls away dull.',
                $stall,
                $window,
            ),
            $stall > $this->max => sprintf(
                'With this engine it stalls at %.0f rev/min, above the %s this duty wants: it slips and heats the '
                    .'fluid.',
                $stall,
                $window,
            ),
            default => sprintf('With this engine it stalls at %.0f rev/min, inside %s.', $stall, $window),
        };
    }
}
