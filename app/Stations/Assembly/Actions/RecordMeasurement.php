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
        $note = $answer->note;
        $place = Place::of($build, $kind, $code);
        $reading = TypedQuantity::parse($typed, $kind->quantity(), $place->unit, '/answer/reading');
        $gauge = Gauge::thatShowed($gaugeCode, $kind->quantity(), $reading, '/answer');
        $value = $reading->in($place->unit);
        if (trim($note) === '') {
            $this->assertAsPredicted($build, $place, $value);
        }
        $measurement = Measurement::create([
            'build_id' => $build->id,
            'kind' => $kind,
            'code' => $code,
            'value' => $value,
            'unit' => $place->unit,
            'typed' => $reading->typed,
            'si' => $reading->si,
            'window_min' => $place->min,
            'window_max' => $place->max,
            'inside' => $place->holds($value),
            'gauge_id' => $gauge->id,
            'note' => $note,
            'measured_by' => $by->id,
            'measured_at' => $answer->at,
            'tablet_at' => $answer->tablet,
        ]);
        $this->ledger->onUnit($build->unit, 'measurement.recorded', [
            'kind' => $kind,
            'code' => $code,
            'value' => $value,
            'unit' => $place->unit,
            'typed' => $reading->typed,
            'gauge' => $gauge->code,
            'inside' => $place->holds($value),
            'note' => $note,
        ]);

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
