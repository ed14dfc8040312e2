<?php

namespace App\Stations\Ordering;

use App\Kernel\Refusal;
use App\Kernel\TypedQuantity;

/** The duty as it was typed on the order; what was left empty is null. */
final readonly class TypedDuty
{
    private const AT = '/duty/engineCurve';

    private const MOST_POINTS = 60;

    private const MOST_TORQUE_NM = 5000;

    /** field => kind, unit, what it is called, least, most; kind "number" has no unit */
    private const FIELDS = [
        'engineTorque' => ['torque', 'N.m', 'engine torque', 0, self::MOST_TORQUE_NM],
        'shiftSpeed' => ['rotation', 'rpm', 'shift speed', 500, 12000],
        'mass' => ['mass', 'kg', 'mass', 100, 60000],
        'axle' => ['number', '', 'axle ratio', 1, 12],
        'grade' => ['number', '', 'grade', 0, 60],
    ];

    /** @param  array<string, mixed>  $in */
    public function __construct(private array $in)
    {
    }

    public function text(string $field): string
    {
        return trim((string) ($this->in[$field] ?? ''));
    }

    /** @throws Refusal at the field for what is no such quantity, or lies outside its limits */
    public function quantity(string $field): ?float
    {
        $text = $this->text($field);
        if ($text === '') {
            return null;
        }
        [$kind, $unit, $what, $least, $most] = self::FIELDS[$field];
        $at = "/duty/$field";
        if ($kind === 'number') {
            is_numeric($text) || throw Refusal::at($at, "The $what is a number with a point, not \"$text\".");
            $value = (float) $text;
        } else {
            $value = round(TypedQuantity::parse($text, $kind, $unit, $at)->in($unit), 6);
        }
        if ($value < $least || $value > $most || ($kind === 'torque' && $value <= 0)) {
            $shown = rtrim(' '.($unit === 'rpm' ? 'rev/min' : $unit));
            throw Refusal::at($at, "The $what must lie between $least and $most$shown.");
        }

        return $value;
    }

    /** @return list<array{speed_rpm: float, torque_nm: float}>|null from "1500 220, 3000 305" */
    public function curve(): ?array
    {
        if ($this->text('engineCurve') === '') {
            return null;
        }
        $pairs = preg_split('/\s*[,;\n]\s*/', $this->text('engineCurve'), -1, PREG_SPLIT_NO_EMPTY) ?: [];
        if ($pairs === [] || count($pairs) > self::MOST_POINTS) {
            throw Refusal::at(self::AT, 'The engine curve needs 1 to '.self::MOST_POINTS.' points.');
        }
        $points = array_map(self::point(...), $pairs);
        foreach ($points as $i => $point) {
            $rises = $i === 0 || $point['speed_rpm'] > $points[$i - 1]['speed_rpm'];
            if (! $rises || $point['torque_nm'] <= 0 || $point['torque_nm'] > self::MOST_TORQUE_NM) {
                throw Refusal::at(
                    self::AT,
                    'The speeds of the engine curve must rise, and each torque lie above 0 and up to '
                        .self::MOST_TORQUE_NM.' N.m.',
                );
            }
        }

        return $points;
    }

    /** @return array{speed_rpm: float, torque_nm: float} */
    private static function point(string $pair): array
    {
        if (preg_match('/^\s*(\d+(?:\.\d+)?)[\s:]+(\d+(?:\.\d+)?)\s*$/', $pair, $m) !== 1) {
            throw Refusal::at(
                self::AT,
                "\"$pair\" is no point of the curve: write rev/min and N.m, such as 1500 220, 3000 305.",
            );
        }

        return ['speed_rpm' => (float) $m[1], 'torque_nm' => (float) $m[2]];
    }
}
