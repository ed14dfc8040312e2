<?php

declare(strict_types=1);

namespace Yard\Core\Power;

use Yard\Core\BadInput;
use Yard\Core\Input;

/**
 * A converter held: all of the power heats one lump of fluid and metal, which a cooler relieves. C dT/dt = P - UA (T -
 * air) in closed form (lumped capacity, e.g. Incropera, transient conduction).
 */
final readonly class LaunchHold
{
    /**
     * @param  float  $heat  W
     * @param  float  $capacity  J/K
     * @param  float  $ua  W/K
     */
    private function __construct(
        public float $heat,
        private float $capacity,
        private float $ua,
        private float $air,
        private float $start,
    ) {
    }

    /** @throws BadInput */
    public static function read(Input $in): self
    {
        $or = static fn (string $field, float $default): float => $in->has($field)
            ? $in->number($field, above: 0.0)
            : $default;
        $fluid = $in->number('fluid_l', min: 0.0) / 1000.0 * $or('fluidDensity', 850.0);
        $capacity =
            $fluid * $or('fluidSpecificHeat', 2000.0) +
            $in->number('metal_kg', min: 0.0) * $or('metalSpecificHeat', 480.0);
        if ($capacity <= 0.0) {
            throw $in->at('fluid_l')->fail('range', 'There must be some fluid or metal to be heated.');
        }

        return new self(
            ($in->number('torque_nm', min: 0.0) * $in->number('speed_rpm', min: 0.0) * M_PI) / 30.0,
            $capacity,
            $in->number('coolerUa_w_per_k', min: 0.0),
            $in->number('air_degc', above: -273.15),
            $in->number('start_degc', above: -273.15),
        );
    }

    /**
     * Reads limits and coolTo_degc.
     *
     * @return array<string, mixed>
     *
     * @throws BadInput
     */
    public function report(Input $in): array
    {
        $limits = [];
        $lowest = INF;
        foreach ($in->list('limits', 1) as $limit) {
            $max = $limit->number('max_degc', above: -273.15);
            $limits[] = ['name' => $limit->name('name'), 'max' => $max];
            $lowest = min($lowest, $max);
        }
        $given = static fn (string $field, ?float $value): array => $value === null ? [] : [$field => $value];
        $to = $in->numberIf('coolTo_degc', above: -273.15);
        $cool = $to === null ? null : $this->coolDown($lowest, $to);
        $often = $to === null ? null : $this->perHour($lowest, $to);

        return ['heat_w' => $this->heat] +
            $given('timeConstant_s', $this->timeConstant()) +
            $given('steady_degc', $this->steady()) +
            ['secondsTo' => array_map(
                fn (array $l): array => ['name' => $l['name']] + $given('seconds', $this->secondsTo($l['max'])),
                $limits,
            )] +
            $given('coolDown_s', $cool) +
            $given('perHour', $often);
    }

    /** In seconds; null without a cooler. */
    public function timeConstant(): ?float
    {
        return $this->ua > 0.0 ? $this->capacity / $this->ua : null;
    }

    /** Where it would end; null without a cooler. */
    public function steady(): ?float
    {
        return $this->ua > 0.0 ? $this->air + $this->heat / $this->ua : null;
    }

    /** Null: never. */
    public function secondsTo(float $limit): ?float
    {
        return $this->heats($this->start, $limit);
    }

    /** How often in an hour it may be held up to a limit, each time cooled down again; null: it need not be counted. */
    public function perHour(float $limit, float $cooled): ?float
    {
        [$held, $rest] = [$this->heats($cooled, $limit), $this->coolDown($limit, $cooled)];

        return $held === null || $rest === null || $held + $rest <= 0.0 ? null : 3600.0 / ($held + $rest);
    }

    private function heats(float $from, float $limit): ?float
    {
        if ($from >= $limit) {
            return 0.0;
        }
        $steady = $this->steady();
        if ($steady === null) {
            return $this->heat > 0.0 ? (($limit - $from) * $this->capacity) / $this->heat : null;
        }

        return $limit >= $steady
            ? null
            : ($this->capacity / $this->ua) * log(($steady - $from) / ($steady - $limit));
    }

    /** From a temperature down to another with the brake off; null: the cooler never gets there. */
    public function coolDown(float $from, float $to): ?float
    {
        return match (true) {
            $this->ua <= 0.0 || $to <= $this->air => null,
            $to >= $from => 0.0,
            default => ($this->capacity / $this->ua) * log(($from - $this->air) / ($to - $this->air)),
        };
    }
}
