<?php

namespace App\Builds;

use App\Catalog\Vehicle;
use App\Shop\Quantity;

/** What a build will have to hold: the engine's torque, the shift speed, the mass it moves. */
final readonly class Duty
{
    /** Shift speed where nobody says otherwise, rev/min: common practice, no source. */
    private const SHIFT_SPEED = 5200.0;

    private function __construct(public float $engineTorque, public float $shiftSpeed, public ?float $mass, public ?float $axle, public bool $hold, private string $typed)
    {
    }

    /**
     * @param  array{engineTorque?: ?string, shiftSpeed?: ?string, hold?: bool}|null  $in  as typed on the order
     * @return self|null null when neither the order nor the vehicle says how much torque comes in
     */
    public static function of(?array $in, ?Vehicle $vehicle): ?self
    {
        $typed = trim((string) ($in['engineTorque'] ?? ''));
        $torque = $typed === '' ? ($vehicle === null ? null : (float) $vehicle->engine_torque_nm) : Quantity::parse($typed, 'torque', 'N.m', '/duty/engineTorque')->si;
        if ($torque === null) {
            return null;
        }
        if ($torque < 0 || $torque > 5000) {
            throw \App\Shop\Refused::at('/duty/engineTorque', 'The engine torque must lie between 0 and 5000 N.m.');
        }
        $speed = trim((string) ($in['shiftSpeed'] ?? '')) === '' ? self::SHIFT_SPEED : round(Quantity::parse((string) $in['shiftSpeed'], 'rotation', 'rpm', '/duty/shiftSpeed')->in('rpm'), 3);

        return new self($torque, $speed, $vehicle === null ? null : (float) $vehicle->mass_kg, $vehicle === null ? null : (float) $vehicle->axle_ratio, (bool) ($in['hold'] ?? true), $typed);
    }

    /** @return array<string, mixed> */
    public function written(): array
    {
        return ['engineTorque_nm' => $this->engineTorque, 'typed' => $this->typed, 'shiftSpeed_rpm' => $this->shiftSpeed, 'mass_kg' => $this->mass, 'axleRatio' => $this->axle, 'hold' => $this->hold];
    }
}
