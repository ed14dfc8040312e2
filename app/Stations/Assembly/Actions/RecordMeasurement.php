<?php

namespace App\Stations\Assembly\Actions;

use App\Kernel\Ledger\Ledger;
use App\Kernel\Refusal;
use App\Kernel\TypedQuantity;
use App\Shop\HouseRules;
use App\Shop\Models\Gauge;
use App\Shop\Models\Person;
use App\Stations\Assembly\Models\Measurement;
use App\Stations\Assembly\Models\PackFit;
use App\Work\Answer;
use App\Work\Place;
use App\Work\ReadingKind;
use App\Yard\Models\Build;
use Yard\Core\Quantity\Unit as MeasureUnit;

/**
 * A reading with person, time and gauge. Outside the window it is still a fact and is kept; it only bars the sign-off.
 */
final class RecordMeasurement
{
    public function __construct(private readonly Ledger $ledger, private readonly HouseRules $rules)
    {
    }

    public function record(
        Build $build,
        ReadingKind $kind,
        string $code,
        string $typed,
        ?string $gaugeCode,
        Answer $answer,
        Person $by,
    ): Measurement {
        $place = Place::of($build, $kind, $code);
        $reading = TypedQuantity::parse($typed, $kind->quantity(), $place->unit, '/answer/reading');
        $gauge = Gauge::thatShowed($gaugeCode, $kind->quantity(), $reading, '/answer');
        if (trim($answer->note) === '') {
            $this->assertAsPredicted($build, $place, $reading->in($place->unit));
        }

        return $this->keep($build, $place, $reading, $gauge, $answer, $by);
    }

    /** @param  Gauge|null  $gauge  null where the number is reckoned from others */
    public function keep(
        Build $build,
        Place $place,
        TypedQuantity $reading,
        ?Gauge $gauge,
        Answer $answer,
        Person $by,
    ): Measurement {
        $value = $reading->in($place->unit);
        $said = [
            'kind' => $place->kind,
            'code' => $place->code,
            'value' => $value,
            'unit' => $place->unit,
            'typed' => $reading->typed,
            'inside' => $place->holds($value),
            'note' => $answer->note,
        ];
        $measurement = Measurement::create($said + [
            'build_id' => $build->id,
            'si' => $reading->si,
            'window_min' => $place->min,
            'window_max' => $place->max,
            'gauge_id' => $gauge?->id,
            'measured_by' => $by->id,
            'measured_at' => $answer->at,
            'tablet_at' => $answer->tablet,
        ]);
        $this->ledger->onUnit($build->unit, 'measurement.recorded', $said + ['gauge' => $gauge?->code]);

        return $measurement;
    }

    private function assertAsPredicted(Build $build, Place $place, float $value): void
    {
        $fit = ! $place->kind->isFitted()
            ? null
            : PackFit::query()
                ->where('build_id', $build->id)
                ->where('pack', $place->code)
                ->whereNull('undone_at')
                ->first();
        if ($fit === null) {
            return;
        }
        $unit = MeasureUnit::of($place->unit);
        $difference = abs($unit->convert($value - (float) $fit->predicted, MeasureUnit::of('in')));
        if (round($difference, 6) > $this->rules->number('fit-surprise')) {
            throw Refusal::at(
                '/note',
                'The reading is '.round($difference, 4).' in away from the predicted clearance of '.
                    (float) $fit->predicted." $place->unit. Check the stack, then say why in the note.",
            );
        }
    }
}
