<?php

declare(strict_types=1);

namespace Yard\Core\Fasteners;

use Yard\Core\BadInput;

/** An ISO metric ("M6x1.0", or "M6" for the coarse pitch) or unified inch thread ("5/16-18", "#10-24"). */
final class Thread
{
    /** ISO 261 coarse pitches, mm */
    private const COARSE = [
        '1.6' => 0.35,
        '2' => 0.4,
        '2.5' => 0.45,
        '3' => 0.5,
        '4' => 0.7,
        '5' => 0.8,
        '6' => 1.0,
        '7' => 1.0,
        '8' => 1.25,
        '10' => 1.5,
        '12' => 1.75,
        '14' => 2.0,
        '16' => 2.0,
        '18' => 2.5,
        '20' => 2.5,
        '22' => 2.5,
        '24' => 3.0,
        '27' => 3.0,
        '30' => 3.5,
        '33' => 3.5,
        '36' => 4.0,
        '39' => 4.0,
    ];

    private function __construct(
        public readonly bool $metric,
        public readonly float $diameterMm,
        public readonly float $pitchMm,
    ) {
    }

    /** @throws BadInput when the text is no thread */
    public static function of(string $text, string $path = ''): self
    {
        $s = str_replace(['×', 'X', ' '], ['x', 'x', ''], trim($text));
        if (preg_match('/\d,\d/', $s) === 1) {
            throw new BadInput(
                'decimal-comma',
                'Write the pitch with a point, not a comma: "'.str_replace(',', '.', $s).'".',
                $path,
            );
        }
        if (preg_match('/^[Mm](\d+(?:\.\d+)?)(?:x(\d+(?:\.\d+)?))?$/', $s, $m) === 1) {
            $pitch = isset($m[2]) ? (float) $m[2] : self::coarse($m[1], $path);

            return self::checked(true, (float) $m[1], $pitch, $text, $path);
        }
        if (preg_match(self::UNIFIED, trim($text), $m) === 1 && (float) $m['tpi'] > 0.0) {
            return self::checked(false, self::inches($m) * 25.4, 25.4 / (float) $m['tpi'], $text, $path);
        }
        throw new BadInput(
            'thread',
            '"'.mb_strimwidth($text, 0, 40, '…').'" is not a thread; write M6x1.0 or 5/16-18.',
            $path,
        );
    }

    /** A numbered size, a fraction with or without a whole number before it, or a decimal; then threads an inch. */
    private const UNIFIED =
        '/^(?:(?<number>#\s*\d+)|(?:(?<whole>\d+)[ -])?(?<num>\d+)\/(?<den>\d+)|(?<decimal>\d*\.\d+|\d+))'.
        '\s*-\s*(?<tpi>\d+(?:\.\d+)?)(?:\s*UN[A-Z]*)?$/';

    /** @return float mm, the coarse pitch of ISO 261 */
    private static function coarse(string $diameter, string $path): float
    {
        $size = rtrim(rtrim(str_contains($diameter, '.') ? $diameter : "$diameter.", '0'), '.');

        return self::COARSE[$size] ??
            throw new BadInput(
                'thread',
                "M$diameter has no coarse pitch in ISO 261; add the pitch, for example M{$diameter}x1.",
                $path,
            );
    }

    /** @param  array<array-key, string>  $m  a diameter as UNIFIED reads it; number n is 0.060 + 0.013 n */
    private static function inches(array $m): float
    {
        return match (true) {
            $m['number'] !== '' => 0.06 + 0.013 * (float) ltrim($m['number'], '# '),
            $m['num'] !== '' && (float) $m['den'] > 0.0 => (float) $m['whole'] + (float) $m['num'] / (float) $m['den'],
            default => (float) $m['decimal'],
        };
    }

    /**
     * Tensile stress area, exact geometric form: metric pi/4 ((d2+d3)/2)^2 (ISO 898-1), unified pi/4 (D - 9 sqrt(3)/16
     * p)^2 (ASME B1.1).
     */
    public function stressAreaMm2(): float
    {
        $root3 = sqrt(3.0);
        $effective = $this->metric
            ? $this->diameterMm - ((3.0 / 8.0 + 17.0 / 24.0) / 2.0) * $root3 * $this->pitchMm
            : $this->diameterMm - ((9.0 * $root3) / 16.0) * $this->pitchMm;

        return (M_PI / 4.0) * $effective ** 2;
    }

    private static function checked(bool $metric, float $diameterMm, float $pitchMm, string $text, string $path): self
    {
        if ($diameterMm <= 0.0 || $pitchMm <= 0.0 || $diameterMm < 2.0 * $pitchMm || $diameterMm > 1000.0) {
            throw new BadInput(
                'thread',
                '"'.trim($text).'" is no thread that can be cut: diameter and pitch do not go together.',
                $path,
            );
        }

        return new self($metric, $diameterMm, $pitchMm);
    }
}
