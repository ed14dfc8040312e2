<?php

declare(strict_types=1);

namespace Yard\Core\Dyno;

use Yard\Core\BadInput;

/** The channels of a test run, all of the same length and evenly sampled. */
final readonly class Recording
{
    private const FEWEST_SAMPLES = 3;

    private const MOST_SAMPLES = 1_000_000;

    /**
     * @param  float  $rate  samples a second
     * @param  non-empty-list<float>  $input  rev/min
     * @param  non-empty-list<float>  $output  rev/min
     * @param  non-empty-list<float>|null  $turbine  rev/min
     * @param  non-empty-list<float>|null  $line  kPa
     * @param  non-empty-list<float>|null  $temperature  degrees Celsius
     * @param  array<int, true>  $missing  samples at which nothing was recorded, whatever stands there
     */
    public function __construct(
        public float $rate,
        public array $input,
        public array $output,
        public ?array $turbine = null,
        public ?array $line = null,
        public ?array $temperature = null,
        public array $missing = [],
    ) {
    }

    /**
     * @param  array<string, list<float>>  $channels  input_rpm, output_rpm, and what else was recorded
     * @param  array<int, true>  $missing
     *
     * @throws BadInput at /channels/NAME for a length that does not fit
     */
    public static function of(float $rate, array $channels, array $missing = []): self
    {
        foreach (['input_rpm', 'output_rpm'] as $needed) {
            isset($channels[$needed]) ||
                throw new BadInput('missing', "The field \"$needed\" is missing.", "/channels/$needed");
        }

        return new self(
            $rate,
            self::channel($channels, 'input_rpm'),
            self::channel($channels, 'output_rpm'),
            isset($channels['turbine_rpm']) ? self::channel($channels, 'turbine_rpm') : null,
            isset($channels['line_kpa']) ? self::channel($channels, 'line_kpa') : null,
            isset($channels['temp_degc']) ? self::channel($channels, 'temp_degc') : null,
            $missing,
        );
    }

    /**
     * @param  array<string, list<float>>  $channels
     * @return non-empty-list<float>
     */
    private static function channel(array $channels, string $name): array
    {
        $values = $channels[$name];
        $given = count($values);
        $expected = count($channels['input_rpm']);
        if ($given !== $expected) {
            throw new BadInput(
                'length',
                "All channels must have the same number of samples: $name has $given, input_rpm has $expected.",
                "/channels/$name",
            );
        }
        if ($values === [] || $given < self::FEWEST_SAMPLES || $given > self::MOST_SAMPLES) {
            throw new BadInput(
                'length',
                'A trace needs between '.self::FEWEST_SAMPLES.' and '.self::MOST_SAMPLES." samples, not $given.",
                "/channels/$name",
            );
        }

        return $values;
    }

    public function seconds(): float
    {
        return count($this->output) / $this->rate;
    }
}
