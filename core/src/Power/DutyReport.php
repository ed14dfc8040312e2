<?php

declare(strict_types=1);

namespace Yard\Core\Power;

use Closure;
use Yard\Core\Drivetrain\SolvedGear;

/**
 * What the elements of a unit hold against what its duty asks: gear by gear at full throttle, the weakest at every
 * opening, the largest input torque all of them allow.
 *
 * @phpstan-type Row array{element: string, demand_nm: float, capacity_nm: float, margin?: float,
 *     liningPressure_kpa?: float, liningLimit_kpa?: float, rotation?: 'with'|'against'}
 * @phpstan-type Gear array{name: string, state: string, pressure_kpa: float, converterRatio: float,
 *     elements: list<Row>, ratio?: float}
 * @phpstan-type Weak array{gear: string, element: string, margin: float, demand_nm: float, capacity_nm: float,
 *     opening?: float}
 */
final class DutyReport
{
    private const NOTHING = 1e-9;

    /** @var array<string, Gear> */
    private array $gears = [];

    /** @var list<array{gear: string, element: string}> */
    private array $unknown = [];

    /** @var array<int, Weak> throttle opening => the weakest element */
    private array $weakest = [];

    private ?float $largest = null;

    /** @var array<int, true> */
    private array $openings = [];

    /** @var array<int, float> throttle opening => the least torque an element allows behind the converter, N.m */
    private array $behind = [];

    /**
     * @param  Closure(float, int, float): float  $engineFor  torque behind the converter, throttle opening, a torque
     *     not worth passing => input torque, N.m
     */
    public function __construct(private readonly float $limit, private readonly Closure $engineFor)
    {
    }

    public function gear(string $name, SolvedGear $solved, float $pressure, float $converterRatio): void
    {
        $this->gears[$name] =
            [
                'name' => $name,
                'state' => $solved->state,
                'pressure_kpa' => $pressure,
                'converterRatio' => $converterRatio,
                'elements' => [],
            ] + ($solved->ratio === null ? [] : ['ratio' => $solved->ratio]);
    }

    /** A split that statics does not determine, or an element nobody described, is named and not guessed. */
    public function unknown(string $gear, string $element): void
    {
        $this->unknown[] = ['gear' => $gear, 'element' => $element];
    }

    /**
     * @param  array{capacity_nm: float, liningPressure_kpa?: float, liningLimit_kpa?: float,
     *     rotation?: 'with'|'against'}  $held
     * @param  int  $point  0 is full throttle
     */
    public function element(
        string $gear,
        string $element,
        float $demand,
        array $held,
        int $point,
        float $opening,
    ): void {
        $this->openings[$point] = true;
        $row = ['element' => $element, 'demand_nm' => $demand] + $held;
        if ($demand > self::NOTHING) {
            $row['margin'] = $held['capacity_nm'] / $demand;
            if (! isset($this->weakest[$point]) || $row['margin'] < $this->weakest[$point]['margin']) {
                $this->weakest[$point] =
                    [
                        'gear' => $gear,
                        'element' => $element,
                        'margin' => $row['margin'],
                        'demand_nm' => $demand,
                        'capacity_nm' => $held['capacity_nm'],
                    ] + ($point === 0 ? [] : ['opening' => $opening]);
            }
        }
        if ($point === 0) {
            $this->gears[$gear]['elements'][] = $row;
        }
    }

    public function allows(float $inputTorque): void
    {
        $this->largest = min($this->largest ?? INF, $inputTorque);
    }

    /** The same of an element behind a slipping converter; which engine that is, is sought when somebody asks. */
    public function allowsBehind(int $point, float $turbineTorque): void
    {
        $this->behind[$point] = min($this->behind[$point] ?? INF, $turbineTorque);
    }

    /** N.m of input torque every element holds; null where none carries any. */
    public function largest(): ?float
    {
        foreach ($this->behind as $point => $turbineTorque) {
            $this->allows(($this->engineFor)($turbineTorque, $point, $this->largest ?? INF));
        }
        $this->behind = [];

        return $this->largest;
    }

    /** @return list<Gear> */
    public function gears(): array
    {
        return array_values($this->gears);
    }

    /** @return list<array{gear: string, element: string}> */
    public function unknowns(): array
    {
        return $this->unknown;
    }

    /** @return Weak|null */
    public function weakest(): ?array
    {
        return $this->byMargin()[0] ?? null;
    }

    /** @return list<Weak> the weakest at each throttle opening; empty where only full throttle was asked for */
    public function byThrottle(): array
    {
        return count($this->openings) > 1 ? $this->byMargin() : [];
    }

    public function holds(): bool
    {
        $weakest = $this->weakest();

        return $weakest === null || $weakest['margin'] >= $this->limit;
    }

    /** @return list<Weak> */
    private function byMargin(): array
    {
        $sorted = $this->weakest;
        usort($sorted, static fn (array $a, array $b): int => $a['margin'] <=> $b['margin']);

        return $sorted;
    }
}
