<?php

declare(strict_types=1);

namespace Yard\Core\Power;

use Yard\Core\Hydraulics\BandGrip;
use Yard\Core\Hydraulics\Clutch;
use Yard\Core\Hydraulics\RotatingOil;
use Yard\Core\Input;

/** What an element can hold: a plate pack, a band with its servo, or a documented torque (one-way clutches). */
final readonly class Capacity
{
    /**
     * @param array{mu: float, wrap: float, drum: float, width: ?float, servoArea: float, servoReturn: float,
     *     lever: float, energised: ?string}|null  $band
     * @param  array{node: string, oil: RotatingOil, counts: bool}|null  $oil
     * @param  float|null  $liningLimit  kPa the lining stands
     * @param  float|null  $heatLimit  J/mm2 the lining takes in one shift
     */
    private function __construct(
        private ?Clutch $clutch,
        private ?array $band,
        private ?float $fixed,
        public ?array $oil,
        private float $pressureFactor,
        private ?float $liningLimit = null,
        public ?float $heatLimit = null,
        private float $left = 1.0,
        public ?SnapRingLand $land = null,
    ) {
    }

    /**
     * The same element worn, or with less of the line's pressure behind it.
     *
     * @param  float  $left  share of the torque it holds at a given pressure
     * @param  float  $reaches  share of the pressure that reaches it
     */
    public function weakened(float $left, float $reaches): self
    {
        return new self(
            $this->clutch,
            $this->band,
            $this->fixed,
            $this->oil,
            $this->pressureFactor * $reaches,
            $this->liningLimit,
            $this->heatLimit,
            $this->left * $left,
            $this->land,
        );
    }

    /** @param  array<string, int>  $nodes  shafts of the train */
    public static function read(Input $in, array $nodes): self
    {
        $factor = $in->numberOr('pressureFactor', 1.0, min: 0.0);

        return match ($in->choice('kind', ['clutch', 'band', 'fixed'])) {
            'clutch' => self::readClutch($in, $nodes, $factor),
            'band' => new self(null, self::readBand($in), null, null, $factor, ...self::lining($in)),
            default => new self(null, null, $in->number('torque_nm', above: 0.0), null, $factor),
        };
    }

    /** @param  array<string, int>  $nodes */
    private static function readClutch(Input $in, array $nodes, float $factor): self
    {
        $clutch = Clutch::read($in);
        $limits = self::lining($in);
        $ring = $in->optional('land');
        $land = $ring === null ? null : SnapRingLand::read($ring);
        $spin = $in->optional('centrifugal');
        if ($spin === null) {
            return new self($clutch, null, null, null, $factor, ...[...$limits, 1.0, $land]);
        }
        $node = $spin->name('drum');
        isset($nodes[$node]) ||
            throw $spin->at('drum')->fail('unknown-node', "No set and no element has a shaft called \"$node\".");
        $oil = [
            'node' => $node,
            'oil' => RotatingOil::read($spin, $clutch->pistonOuter, $clutch->pistonInner),
            'counts' => $spin->has('countsForCapacity') && $spin->bool('countsForCapacity'),
        ];

        return new self($clutch, null, null, $oil, $factor, ...[...$limits, 1.0, $land]);
    }

    /**
     * @return array{mu: float, wrap: float, drum: float, width: ?float, servoArea: float, servoReturn: float,
     *     lever: float, energised: ?string}
     */
    private static function readBand(Input $in): array
    {
        $servo = $in->number('servoDiameter_mm', above: 0.0);
        $rod = $in->numberOr('servoRod_mm', 0.0, min: 0.0, below: $servo);

        return [
            'mu' => $in->number('mu', min: 0.0, max: 2.0),
            'wrap' => $in->number('wrap_deg', min: 0.0, max: 3600.0),
            'drum' => $in->number('drumDiameter_mm', above: 0.0),
            'width' => $in->numberIf('width_mm', above: 0.0),
            'servoArea' => (M_PI / 4.0) * ($servo ** 2 - $rod ** 2),
            'servoReturn' => $in->number('returnForce_n', min: 0.0),
            'lever' => $in->numberOr('leverRatio', 1.0, above: 0.0),
            'energised' => $in->has('energisedBy')
                ? $in->choice('energisedBy', ['positive', 'negative'])
                : null,
        ];
    }

    /** @return array{float|null, float|null} what the lining stands: kPa, J/mm2 in one shift */
    private static function lining(Input $in): array
    {
        $lining = $in->optional('lining');

        return [
            $lining?->has('pressure_kpa') ? $lining->number('pressure_kpa', above: 0.0) : null,
            $lining?->has('heat_j_mm2') ? $lining->number('heat_j_mm2', above: 0.0) : null,
        ];
    }

    /** Rubbing area of all faces in mm2; null where the width of a band or the plates are not described. */
    public function area(): ?float
    {
        return match (true) {
            $this->clutch !== null => (($this->clutch->faces * M_PI) / 4.0) *
                ($this->clutch->outer ** 2 - $this->clutch->inner ** 2),
            $this->band !== null && $this->band['width'] !== null => ($this->band['drum'] / 2.0) *
                deg2rad($this->band['wrap']) *
                $this->band['width'],
            default => null,
        };
    }

    /** What the pack presses with, in N; null where it is no pack. */
    public function clamps(float $pressureKpa, float $drumRpm): ?float
    {
        return $this->clutch?->normalForce(
            $pressureKpa * $this->pressureFactor,
            $this->oil !== null && $this->oil['counts'] ? $this->oil['oil']->force($drumRpm) : 0.0,
        );
    }

    public function returnForce(): float
    {
        return $this->clutch->returnForce ?? 0.0;
    }

    /**
     * @param  float  $torque  sign of the element's torque on its node a: tells which way a drum pulls its band
     * @param  float  $drumRpm  speed of the clutch's drum, for oil that counts
     * @return array{capacity_nm: float, liningPressure_kpa?: float, liningLimit_kpa?: float,
     *     rotation?: 'with'|'against'}
     */
    public function at(float $pressureKpa, float $torque, float $drumRpm): array
    {
        $whole = $this->whole($pressureKpa, $torque, $drumRpm);

        return ['capacity_nm' => $whole['capacity_nm'] * $this->left] + $whole;
    }

    /**
     * @return array{capacity_nm: float, liningPressure_kpa?: float, liningLimit_kpa?: float,
     *     rotation?: 'with'|'against'}
     */
    private function whole(float $pressureKpa, float $torque, float $drumRpm): array
    {
        $pressure = $pressureKpa * $this->pressureFactor;
        if ($this->clutch !== null) {
            $force = (float) $this->clamps($pressureKpa, $drumRpm);

            return [
                'capacity_nm' => $this->clutch->torque($force),
                'liningPressure_kpa' => $this->clutch->liningPressure($force),
            ] + $this->limit();
        }
        if ($this->band !== null) {
            // Without a stated direction the band counts as gripping against the drum: the weaker case.
            $with = $this->band['energised'] !== null && $torque > 0.0 === ($this->band['energised'] === 'positive');
            $apply =
                max(0.0, ($pressure / 1000.0) * $this->band['servoArea'] - $this->band['servoReturn']) *
                $this->band['lever'];

            $grip = new BandGrip(
                $this->band['mu'],
                $this->band['wrap'],
                $this->band['drum'],
                $apply,
                $with,
            );

            // Highest lining pressure of a band, at its tight end: 2 P1/(b D) (Shigley, ch. 16, band-type clutches and
            // brakes).
            return ['capacity_nm' => $grip->torqueNm, 'rotation' => $with ? 'with' : 'against'] +
                ($this->band['width'] === null
                    ? []
                    : ['liningPressure_kpa' => (2000.0 * $grip->tight) / ($this->band['width'] * $this->band['drum'])] +
                        $this->limit());
        }

        return ['capacity_nm' => (float) $this->fixed];
    }

    /**
     * How torque follows pressure: it is straight from the pressure on at which the springs give way.
     *
     * @return array{slope: float, from: float}|null N.m a kPa of line pressure,
     *     kPa; null where pressure changes nothing
     */
    public function response(float $torque, float $drumRpm): ?array
    {
        $far = 1e6;
        [$once, $twice] = [
            $this->at($far, $torque, $drumRpm)['capacity_nm'],
            $this->at(2.0 * $far, $torque, $drumRpm)['capacity_nm'],
        ];
        $slope = ($twice - $once) / $far;

        return $this->fixed !== null || $slope <= 0.0 ? null : ['slope' => $slope, 'from' => $far - $once / $slope];
    }

    /** The pressure in kPa that reaches this element's own circuit. */
    public function circuit(float $lineKpa): float
    {
        return $lineKpa * $this->pressureFactor;
    }

    /** @return array{liningLimit_kpa?: float} */
    private function limit(): array
    {
        return $this->liningLimit === null ? [] : ['liningLimit_kpa' => $this->liningLimit];
    }
}
