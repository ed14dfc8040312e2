<?php

declare(strict_types=1);

namespace Yard\Core\Quantity;

use Yard\Core\BadInput;

/**
 * A unit of measure: its kind and its exact factor to the SI unit as a quotient of two numbers, so that 0.024 in
 * becomes 0.0006096 m and not its neighbour. Factors: NIST SP 811 (2008), appendix B; 1 hp = 550 ft.lbf/s.
 */
final class Unit
{
    private const LBF = 44482216152605.0; // x 1e-13 N, exact: 0.45359237 kg x 9.80665 m/s2

    private const INCH_OF_MERCURY = 3386.389; // conventional, Pa

    /** symbol => [kind, numerator, denominator] */
    private const TABLE = [
        'm' => ['length', 1.0, 1.0],
        'mm' => ['length', 1.0, 1000.0],
        'um' => ['length', 1.0, 1000000.0],
        'in' => ['length', 254.0, 10000.0],
        'thou' => ['length', 254.0, 10000000.0],
        'km' => ['length', 1000.0, 1.0],
        'mi' => ['length', 1609344.0, 1000.0],
        'N.m' => ['torque', 1.0, 1.0],
        'kgf.m' => ['torque', 980665.0, 100000.0],
        'lbf.ft' => ['torque', self::LBF * 3048.0, 1.0e17],
        'lbf.in' => ['torque', self::LBF * 254.0, 1.0e17],
        'MPa' => ['pressure', 1000000.0, 1.0],
        'kPa' => ['pressure', 1000.0, 1.0],
        'bar' => ['pressure', 100000.0, 1.0],
        'psi' => ['pressure', self::LBF, 6451600000.0],
        'inHg' => ['pressure', self::INCH_OF_MERCURY, 1.0],
        'rad/s' => ['rotation', 1.0, 1.0],
        'rpm' => ['rotation', M_PI, 30.0],
        'K' => ['temperature', 1.0, 1.0],
        'degC' => ['temperature', 1.0, 1.0],
        'degF' => ['temperature', 5.0, 9.0],
        'kW' => ['power', 1000.0, 1.0],
        'hp' => ['power', self::LBF * 550.0 * 3048.0, 1.0e17],
        'kg' => ['mass', 1.0, 1.0],
        'g' => ['mass', 1.0, 1000.0],
        'lb' => ['mass', 45359237.0, 100000000.0],
        'N' => ['force', 1.0, 1.0],
        'kgf' => ['force', 980665.0, 100000.0],
        'lbf' => ['force', self::LBF, 1.0e13],
        'L' => ['volume', 1.0, 1000.0],
        'mL' => ['volume', 1.0, 1000000.0],
        'US qt' => ['volume', 946352946.0, 1.0e12],
        'US gal' => ['volume', 3785411784.0, 1.0e12],
        'km/h' => ['speed', 10.0, 36.0],
        'mph' => ['speed', 44704.0, 100000.0],
        'cSt' => ['viscosity', 1.0, 1000000.0],
        'mm2/s' => ['viscosity', 1.0, 1000000.0],
        'ohm' => ['resistance', 1.0, 1.0],
        'kohm' => ['resistance', 1000.0, 1.0],
        'g.cm' => ['unbalance', 1.0, 100000.0],
        'g.mm' => ['unbalance', 1.0, 1000000.0],
    ];

    private function __construct(
        public readonly string $symbol,
        public readonly string $kind,
        private readonly float $numerator,
        private readonly float $denominator,
    ) {
    }

    /** @throws BadInput for a symbol that is not in the table */
    public static function of(string $symbol, string $path = ''): self
    {
        if (! isset(self::TABLE[$symbol])) {
            throw new BadInput(
                'unknown-unit',
                "The unit \"$symbol\" is not known; use one of ".implode(', ', self::symbols()).'.',
                $path,
            );
        }

        return new self($symbol, ...self::TABLE[$symbol]);
    }

    /** @return list<string> */
    public static function symbols(): array
    {
        return array_keys(self::TABLE);
    }

    /** @return list<string> */
    public static function kinds(): array
    {
        return array_values(array_unique(array_column(self::TABLE, 0)));
    }

    /** The value in the SI unit of its kind (m, N.m, Pa, rad/s, K, W, kg, N, m3, m/s, m2/s, ohm, kg.m). */
    public function toSi(float $value): float
    {
        return match ($this->symbol) {
            'degC' => $value + 273.15,
            'degF' => ($value - 32.0) / 1.8 + 273.15,
            default => ($value * $this->numerator) / $this->denominator,
        };
    }

    private function toCelsius(float $value): float
    {
        return match ($this->symbol) {
            'degF' => ($value - 32.0) / 1.8,
            'K' => $value - 273.15,
            default => $value,
        };
    }

    private function fromCelsius(float $celsius): float
    {
        return match ($this->symbol) {
            'degF' => $celsius * 1.8 + 32.0,
            'K' => $celsius + 273.15,
            default => $celsius,
        };
    }

    /** @throws BadInput when the two units measure different things */
    public function convert(float $value, self $to, string $path = ''): float
    {
        if ($this->kind !== $to->kind) {
            throw new BadInput(
                'incompatible-units',
                "\"$this->symbol\" measures ".
                    self::noun($this->kind).
                    " and \"$to->symbol\" measures ".
                    self::noun($to->kind).
                    '; one cannot become the other.',
                $path,
            );
        }
        if ($this->symbol === $to->symbol) {
            return $value;
        }
        if ($this->kind === 'temperature') {
            return $to->fromCelsius($this->toCelsius($value));
        }

        // Grouped so that factors both units share cancel exactly.
        return $this->denominator === $to->denominator
            ? ($value * $this->numerator) / $to->numerator
            : ($value * ($this->numerator * $to->denominator)) / ($this->denominator * $to->numerator);
    }

    public static function noun(string $kind): string
    {
        return match ($kind) {
            'rotation' => 'a speed of rotation',
            default => (in_array($kind, ['angle', 'unbalance'], true) ? 'an ' : 'a ').$kind,
        };
    }
}
