<?php

declare(strict_types=1);

namespace Yard\Core\Drivetrain;

use Yard\Core\BadInput;
use Yard\Core\Input;

/**
 * What teeth and open elements take of the input power. Teeth: of each set the power that rolls against its carrier,
 * times what each mesh loses (basic efficiency of epicyclic trains, e.g. Müller, from memory); exact for a single set,
 * first order in a train of several. Open elements: their drag times their slip. Off unless it is asked for.
 */
final readonly class Losses
{
    /**
     * @param  float  $mesh  share of its power one mesh passes on
     * @param  array<string, float>  $drag  released element => torque, as a share of the input torque
     */
    private function __construct(private float $mesh, private array $drag)
    {
    }

    /**
     * Reads losses: {"mesh": 0.985, "drag_nm": {"C2": 1.5}, "inputTorque_nm": 250}; null where it is not given.
     *
     * @throws BadInput
     */
    public static function read(Input $in, Train $train): ?self
    {
        $losses = $in->optional('losses');
        if ($losses === null) {
            return null;
        }
        $drag = [];
        $given = $losses->optional('drag_nm');
        if ($given !== null) {
            $torque = $losses->number('inputTorque_nm', above: 0.0);
            foreach ($given->asMap() as $id => $nm) {
                isset($train->elements[$id]) ||
                    throw $nm->fail('unknown-element', "There is no element \"$id\" in this train.");
                $drag[$id] = $nm->asNumber(min: 0.0) / $torque;
            }
        }

        return new self($losses->number('mesh', min: 0.5, max: 1.0), $drag);
    }

    /**
     * @return array{efficiency: float, losses: array<string, float>}|null share of the input power that comes out, and
     *     what each set and element takes; null where the gear does not drive or a member is not determined
     */
    public function of(SolvedGear $gear, Train $train): ?array
    {
        if ($gear->state !== 'driven') {
            return null;
        }
        $losses = [];
        foreach ($train->sets as $set) {
            [$sun, $carrier] = [self::speed($gear, $set->sun), self::speed($gear, $set->carrier)];
            if (! isset($gear->setTorque[$set->id]) || $sun === null || $carrier === null) {
                return null;
            }
            $rolling = $gear->setTorque[$set->id]['sun'] * ($sun - $carrier);
            $losses[$set->id] = abs($rolling) * (1.0 - $this->mesh ** ($set->double ? 3 : 2));
        }
        foreach (array_intersect_key($this->drag, $gear->slip) as $id => $share) {
            $losses[$id] = $share * abs($gear->slip[$id]);
        }

        return ['efficiency' => max(0.0, 1.0 - array_sum($losses)), 'losses' => $losses];
    }

    private static function speed(SolvedGear $gear, string $shaft): ?float
    {
        return $shaft === Train::CASE ? 0.0 : $gear->speeds[$shaft] ?? null;
    }
}
