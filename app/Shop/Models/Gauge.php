<?php

namespace App\Shop\Models;

use App\Kernel\Record;
use App\Kernel\Refusal;
use App\Kernel\TypedQuantity;
use Illuminate\Support\Carbon;
use Yard\Core\Quantity\Unit as MeasureUnit;

/**
 * A measuring tool with its range and calibration date.
 *
 * @property int $id
 * @property string $code
 * @property string $name
 * @property string $kind
 * @property string $unit
 * @property string $resolution
 * @property string $range_min
 * @property string $range_max
 * @property string $calibrated_until
 * @property Carbon|null $doubt_from  it was found bad: what it showed between these two is not sure
 * @property Carbon|null $doubt_to
 * @property string|null $spread  standard deviation of gauge and people, in its unit, by its last study
 * @property string|null $arm_mm  from its handle to its square, where an adapter may be set on it
 * @property int $version
 */
final class Gauge extends Record
{
    protected $table = 'gauges';

    protected $fillable = [
        'code',
        'name',
        'kind',
        'unit',
        'resolution',
        'range_min',
        'range_max',
        'calibrated_until',
        'doubt_from',
        'doubt_to',
        'spread',
        'arm_mm',
        'version',
    ];

    protected $casts = ['doubt_from' => 'datetime', 'doubt_to' => 'datetime'];

    /**
     * The gauge that is said to have shown a reading.
     *
     * @param  string  $at  where in what was sent reading and gauge stand
     *
     * @throws Refusal where there is none, it measures something else, or cannot show that much
     */
    public static function thatShowed(?string $code, string $quantity, TypedQuantity $reading, string $at): self
    {
        $gauge =
            self::query()->where('code', (string) $code)->first() ??
            throw Refusal::at("$at/gauge", 'Say which gauge was used.');
        if ($gauge->kind !== $quantity) {
            [$shows, $wanted] = [MeasureUnit::noun($gauge->kind), MeasureUnit::noun($quantity)];
            throw Refusal::at("$at/gauge", "\"$gauge->name\" measures $shows, not $wanted.");
        }
        $shown = $reading->in($gauge->unit);
        [$least, $most] = [(float) $gauge->range_min, (float) $gauge->range_max];
        if ($shown < $least - 1e-9 || $shown > $most + 1e-9) {
            throw Refusal::at(
                "$at/reading",
                "\"$gauge->name\" shows $least to $most $gauge->unit; it cannot have shown {$reading->typed}.",
            );
        }

        return $gauge;
    }

    /** Whether it was found bad after it showed something at this time, with no good check between. */
    public function isDoubtful(Carbon $at): bool
    {
        return $this->doubt_from !== null && $at >= $this->doubt_from && $at <= $this->doubt_to;
    }

    public function isOverdue(): bool
    {
        return $this->calibrated_until < now()->format('Y-m-d');
    }

    /** @return array<string, mixed> as a bench offers it */
    public function shown(): array
    {
        return [
            'code' => $this->code,
            'name' => $this->name,
            'kind' => $this->kind,
            'unit' => $this->unit,
            'min' => (float) $this->range_min,
            'max' => (float) $this->range_max,
            'calibratedUntil' => $this->calibrated_until,
            'overdue' => $this->isOverdue(),
            'spread' => $this->spread === null ? null : (float) $this->spread,
            'armMm' => $this->arm_mm === null ? null : (float) $this->arm_mm,
        ];
    }
}
