<?php

namespace App\Work;

use App\Kernel\Refusal;
use App\Kernel\TypedQuantity;
use Yard\Core\BadInput;
use Yard\Core\Electric\CoilResistance;
use Yard\Core\Fit\Metal;
use Yard\Core\Quantity\Quantity;
use Yard\Core\Quantity\Unit as MeasureUnit;

/** One test of a part at the bench: a number read or reckoned from two others, and where it must lie. */
final readonly class BenchTest
{
    /** @param  array<string, mixed>  $row  of the frozen specification */
    private function __construct(public string $code, public string $name, public string $unit, private array $row)
    {
    }

    /**
     * @param  array<string, mixed>  $spec  frozen specification
     * @return list<self> of one group, as they are taken
     */
    public static function ofGroup(array $spec, string $group): array
    {
        return array_values(array_map(
            fn (array $row) => new self($row['code'], $row['name'], $row['unit'], $row),
            array_filter(ReadingKind::BenchTest->places($spec), fn (array $row) => $row['group'] === $group),
        ));
    }

    public function isDerived(): bool
    {
        return isset($this->row['derived']);
    }

    public function isCoil(): bool
    {
        return isset($this->row['coil']);
    }

    /** Kind of quantity, as gauges name it. */
    public function quantity(): string
    {
        return MeasureUnit::of($this->unit)->kind;
    }

    /**
     * What was read, in the unit of the test; a coil at 20 degrees.
     *
     * @param  string|null  $celsius  temperature of the coils, as typed
     *
     * @throws Refusal
     */
    public function reading(string $typed, ?string $celsius): TypedQuantity
    {
        $at = "/answer/$this->code";
        $read = $typed === ''
            ? throw Refusal::at($at, "Say what \"$this->name\" shows.")
            : TypedQuantity::parse($typed, $this->quantity(), $this->unit, $at);
        if (! $this->isCoil()) {
            return $read;
        }
        try {
            $warm = Quantity::parse($celsius ?? '', 'temperature', 'degC')->si() - 273.15;
            $ohm = CoilResistance::at20($read->in($this->unit), $warm);
        } catch (BadInput $e) {
            $missing = $celsius === null || $celsius === '';
            throw Refusal::at('/answer/temperature', $missing ? 'Say how warm the coils are.' : $e->getMessage());
        }
        $typed = "$read->typed at ".round($warm, 1).' degC';

        return TypedQuantity::parse(round($ohm, 4)." $this->unit", 'resistance', $this->unit, $at)->written($typed);
    }

    /**
     * @param  array<string, float>  $values  of the group so far, each in its own unit
     *
     * @throws Refusal
     */
    public function reckoned(array $values): TypedQuantity
    {
        ['from' => $from, 'less' => $less] = $this->row['derived'];
        $text = round($values[$from] - $values[$less], 6)." $this->unit";

        return TypedQuantity::parse($text, $this->quantity(), $this->unit, "/answer/$from");
    }

    /**
     * How much a hole passes beside the one of the book: its area, at the same pressure (Q = Cd A (2 dp / rho)^0.5).
     *
     * @param  array<string, mixed>  $row  of the frozen specification
     */
    public static function passes(array $row, ?float $read): ?float
    {
        return isset($row['hole']) && $read !== null ? ($read / $row['hole']) ** 2 : null;
    }

    /**
     * What an interference does: the force it takes and how much the bore closes; null where it is no press fit.
     *
     * @param  array<string, mixed>  $row  of the frozen specification
     * @param  array<string, float>  $values  latest readings of its group, each in its own unit
     * @return array{forceN: float, closesMm: float|null}|null
     */
    public static function pressed(array $row, array $values): ?array
    {
        $joint = $values[$row['derived']['less'] ?? ''] ?? null;
        $interference = $values[$row['code']] ?? null;
        if (! isset($row['press']) || $joint === null || $interference === null || $interference <= 0.0) {
            return null;
        }
        $toMm = fn (float $v): float => MeasureUnit::of($row['unit'])->convert($v, MeasureUnit::of('mm'));
        $press = $row['press'];
        $fit = Metal::pressed(
            Metal::from($press['bush']),
            Metal::from($press['into']),
            $toMm($joint),
            $toMm($interference),
            $press['bore_mm'],
            $press['outside_mm'],
            $press['length_mm'],
            $press['mu'],
        );
        $closes = $fit->boreClosure();

        return ['forceN' => $fit->insertForce(), 'closesMm' => $closes === null ? null : $closes / 1000.0];
    }
}
