<?php

declare(strict_types=1);

namespace Yard\Core\Quantity;

use Yard\Core\BadInput;

/** A number with its unit, as people type it: ".024", "24 thou", "1 5/8 in", "18 ft-lb", "10Nm". */
final readonly class Quantity
{
    /** Spellings after folding (lower case, no blanks, dots, hyphens or middle dots) => symbol. */
    private const SPELLINGS = [
        'm' => 'm',
        'metre' => 'm',
        'metres' => 'm',
        'meter' => 'm',
        'meters' => 'm',
        'mm' => 'mm',
        'millimetre' => 'mm',
        'millimetres' => 'mm',
        'millimeter' => 'mm',
        'millimeters' => 'mm',
        'um' => 'um',
        'micron' => 'um',
        'microns' => 'um',
        'micrometre' => 'um',
        'micrometer' => 'um',
        'in' => 'in',
        'inch' => 'in',
        'inches' => 'in',
        '"' => 'in',
        'ins' => 'in',
        'thou' => 'thou',
        'thous' => 'thou',
        'mil' => 'thou',
        'mils' => 'thou',
        'thousandths' => 'thou',
        'km' => 'km',
        'mi' => 'mi',
        'mile' => 'mi',
        'miles' => 'mi',
        'nm' => 'N.m',
        'newtonmetre' => 'N.m',
        'newtonmetres' => 'N.m',
        'newtonmeter' => 'N.m',
        'newtonmeters' => 'N.m',
        'kgfm' => 'kgf.m',
        'kgm' => 'kgf.m',
        'mkg' => 'kgf.m',
        'mkgf' => 'kgf.m',
        'lbfft' => 'lbf.ft',
        'lbft' => 'lbf.ft',
        'ftlb' => 'lbf.ft',
        'ftlbf' => 'lbf.ft',
        'ftlbs' => 'lbf.ft',
        'lbsft' => 'lbf.ft',
        'footpounds' => 'lbf.ft',
        'footpound' => 'lbf.ft',
        'poundfeet' => 'lbf.ft',
        'lbfin' => 'lbf.in',
        'lbin' => 'lbf.in',
        'inlb' => 'lbf.in',
        'inlbf' => 'lbf.in',
        'inlbs' => 'lbf.in',
        'lbsin' => 'lbf.in',
        'inchpounds' => 'lbf.in',
        'inchpound' => 'lbf.in',
        'psi' => 'psi',
        'psig' => 'psi',
        'lbf/in2' => 'psi',
        'kpa' => 'kPa',
        'bar' => 'bar',
        'mpa' => 'MPa',
        'rpm' => 'rpm',
        'rev/min' => 'rpm',
        'r/min' => 'rpm',
        '1/min' => 'rpm',
        'rad/s' => 'rad/s',
        '°f' => 'degF',
        'degf' => 'degF',
        'f' => 'degF',
        'fahrenheit' => 'degF',
        '°c' => 'degC',
        'degc' => 'degC',
        'c' => 'degC',
        'celsius' => 'degC',
        'k' => 'K',
        'kelvin' => 'K',
        'hp' => 'hp',
        'bhp' => 'hp',
        'horsepower' => 'hp',
        'kw' => 'kW',
        'lb' => 'lb',
        'lbs' => 'lb',
        'pound' => 'lb',
        'pounds' => 'lb',
        'kg' => 'kg',
        'kilo' => 'kg',
        'kilos' => 'kg',
        'lbf' => 'lbf',
        'n' => 'N',
        'newton' => 'N',
        'newtons' => 'N',
        'kgf' => 'kgf',
        'kp' => 'kgf',
        'usqt' => 'US qt',
        'qt' => 'US qt',
        'qts' => 'US qt',
        'quart' => 'US qt',
        'quarts' => 'US qt',
        'usgal' => 'US gal',
        'gal' => 'US gal',
        'gallon' => 'US gal',
        'gallons' => 'US gal',
        'l' => 'L',
        'litre' => 'L',
        'litres' => 'L',
        'liter' => 'L',
        'liters' => 'L',
        'ml' => 'mL',
        'mph' => 'mph',
        'km/h' => 'km/h',
        'kmh' => 'km/h',
        'kph' => 'km/h',
        'cst' => 'cSt',
        'mm2/s' => 'mm2/s',
    ];

    private const KIND_ALIASES = [
        'angular-speed' => 'rotation',
        'angularSpeed' => 'rotation',
        'rotational-speed' => 'rotation',
        'distance' => 'length',
        'clearance' => 'length',
    ];

    private const VULGAR = [
        '½' => ' 1/2',
        '¼' => ' 1/4',
        '¾' => ' 3/4',
        '⅛' => ' 1/8',
        '⅜' => ' 3/8',
        '⅝' => ' 5/8',
        '⅞' => ' 7/8',
    ];

    private function __construct(public float $value, public Unit $unit)
    {
    }

    /**
     * @param  string  $kind  what is measured: length, torque, pressure ...
     * @param  string|null  $default  the unit of a bare number; null refuses one
     *
     * @throws BadInput at /text, /kind or /default
     */
    public static function parse(string $text, string $kind, ?string $default = null): self
    {
        $kind = self::kind($kind);
        $bare = $default === null ? null : self::defaultUnit($default, $kind);
        [$value, $typed] = self::split($text);
        $unit = $typed === '' ? $bare : self::unitOf($typed, '/text');
        if ($unit === null) {
            throw new BadInput('no-unit', 'Which unit is "'.trim($text).'" in? Type it behind the number.', '/text');
        }
        if ($unit->kind !== $kind) {
            throw new BadInput('unit-kind', self::wrongKind(trim($text), $unit, $kind), '/text');
        }
        if ($unit->symbol === 'thou') {
            [$value, $unit] = [$value / 1000.0, Unit::of('in')];
        }
        if ($unit->kind === 'temperature' && $unit->toSi($value) < 0.0) {
            throw new BadInput('range', 'The temperature lies below absolute zero (-273.15 degC).', '/text');
        }

        return new self($value, $unit);
    }

    public function si(): float
    {
        return $this->unit->toSi($this->value);
    }

    private static function kind(string $kind): string
    {
        $known = self::KIND_ALIASES[$kind] ?? $kind;
        if (! in_array($known, Unit::kinds(), true)) {
            throw new BadInput(
                'choice',
                'The field "kind" must be one of '.implode(', ', Unit::kinds()).", not \"$known\".",
                '/kind',
            );
        }

        return $known;
    }

    private static function defaultUnit(string $text, string $kind): Unit
    {
        $unit = self::unitOf($text, '/default');
        if ($unit->kind !== $kind) {
            $measures = Unit::noun($unit->kind);
            throw new BadInput(
                'unit-kind',
                "The default unit \"$unit->symbol\" measures $measures, not ".Unit::noun($kind).'.',
                '/default',
            );
        }

        return $unit;
    }

    private static function wrongKind(string $text, Unit $unit, string $kind): string
    {
        $hint = match (true) {
            $unit->symbol !== 'lb' => '',
            $kind === 'force' => ' Type lbf for pounds of force.',
            $kind === 'torque' => ' Type lbf.ft or lbf.in.',
            default => '',
        };

        return "\"$text\" is ".Unit::noun($unit->kind).'; this field takes '.Unit::noun($kind).'.'.$hint;
    }

    /** Signs and marks as keyboards, word processors and phones write them. */
    private const MARKS = [
        '−' => '-',
        '–' => '-',
        '″' => '"',
        '”' => '"',
        '“' => '"',
        "''" => '"',
        'µ' => 'u',
        'μ' => 'u',
        "\u{00A0}" => ' ',
        '×' => 'x',
    ];

    /** A decimal, or a fraction with or without a whole number before it; then the unit. */
    private const WRITTEN =
        '/^(?<sign>[-+]?)\s*(?:(?:(?<whole>[0-9]+)(?:\s+|\s*-\s*))?(?<num>[0-9]+)\s*\/\s*(?<den>[0-9]+)|'.
        '(?<decimal>(?:[0-9]+\.?[0-9]*|\.[0-9]+)(?:[eE][-+]?[0-9]+)?))\s*(?<unit>[^0-9].*)?$/u';

    /** @return array{float, string} the number and the unit text behind it, which may be blank */
    private static function split(string $text): array
    {
        $s = trim(strtr($text, self::VULGAR + self::MARKS));
        if ($s === '') {
            throw new BadInput('blank', 'Nothing was typed.', '/text');
        }
        if (preg_match('/^[-+]?[0-9]*,[0-9]/', $s) === 1) {
            throw new BadInput(
                'decimal-comma',
                'Write the decimal with a point, not a comma: "'.str_replace(',', '.', $s).'".',
                '/text',
            );
        }
        $shown = trim($text);
        if (preg_match(self::WRITTEN, $s, $m) !== 1) {
            throw new BadInput(
                'not-a-quantity',
                "\"$shown\" cannot be read as a number with a unit; type for example 24 thou, .61 mm or 1 5/8 in.",
                '/text',
            );
        }
        $value = ($m['decimal'] ?? '') === '' ? self::fraction($m) : (float) $m['decimal'];
        if (! is_finite($value)) {
            throw new BadInput('range', "\"$shown\" is too large.", '/text');
        }

        return [$m['sign'] === '-' ? -$value : $value, trim($m['unit'] ?? '')];
    }

    /** @param  array<array-key, string>  $m  whole, num and den of a fraction as written */
    private static function fraction(array $m): float
    {
        [$whole, $num, $den] = [(float) ($m['whole'] ?? 0), (float) ($m['num'] ?? 0), (float) ($m['den'] ?? 0)];
        if ($den === 0.0) {
            throw new BadInput('not-a-quantity', 'A fraction cannot have 0 below the line.', '/text');
        }

        return ($whole * $den + $num) / $den;
    }

    private static function unitOf(string $text, string $path): Unit
    {
        if (in_array($text, Unit::symbols(), true)) {
            return Unit::of($text, $path);
        }
        $folded = str_replace(
            ['.', '-', '·', '*', ' ', '²', 'º'],
            ['', '', '', '', '', '2', '°'],
            mb_strtolower($text),
        );
        $symbol = $text === 'mPa' ? null : self::SPELLINGS[$folded] ?? null;
        if ($symbol === null) {
            throw new BadInput(
                'unknown-unit',
                '"'.mb_strimwidth($text, 0, 40, '…').'" is not a unit this field knows.',
                $path,
            );
        }

        return Unit::of($symbol, $path);
    }
}
