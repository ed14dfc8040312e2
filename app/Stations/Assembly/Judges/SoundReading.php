<?php

namespace App\Stations\Assembly\Judges;

use App\Shop\Models\Gauge;
use App\Stations\Assembly\Models\Measurement;

/** What speaks against a reading that was taken: it lies outside, or its gauge cannot be believed. */
final class SoundReading
{
    /** @return string|null follows the name of the place */
    public static function against(string $what, Measurement $m, ?Gauge $gauge): ?string
    {
        if (! $m->inside) {
            return ": the $what of ".(float) $m->value." $m->unit lies outside ".
                (float) $m->window_min.' to '.(float) $m->window_max.'.';
        }

        if ($gauge?->isDoubtful($m->measured_at) === true) {
            return ": the gauge $gauge->name was found bad afterwards; measure it again with another.";
        }

        return $gauge !== null && $gauge->calibrated_until < $m->measured_at->format('Y-m-d')
            ? ": the gauge $gauge->name was past its calibration date."
            : null;
    }
}
