<?php

namespace App\Stations\Dispatch\Queries;

use App\Catalog\Models\Vocabulary;
use App\Yard\Contracts\BuiltNumbers;
use App\Yard\Contracts\DynoRecord;
use App\Yard\Contracts\WarrantyConditions;
use App\Yard\Models\Build;
use Yard\Core\Fit\ConverterSeat;

/** The paper that goes with the unit: what was done, the numbers measured, fluid, and how to fit it. */
final class DeliverySheet
{
    public function __construct(
        private readonly BuiltNumbers $numbers,
        private readonly DynoRecord $verdicts,
        private readonly WarrantyConditions $conditions,
    ) {
    }

    /** @return array<string, mixed> */
    public function of(Build $build): array
    {
        $spec = $build->frozen();
        $run = $this->verdicts->passed($build);
        $depth = $spec['converter'];
        $example = ConverterSeat::of(
            $depth['unit'],
            round($depth['flexplateDepth'] + $depth['minPull'], 6),
            (float) $depth['flexplateDepth'],
            (float) $depth['minPull'],
            (float) $depth['maxPull'],
        );

        return [
            'serial' => $build->serial,
            'generation' => $build->generation,
            'coreTag' => $build->unit->core_tag,
            'variant' => $spec['variant'],
            'package' => $spec['package']['name'],
            'options' => array_map(fn (array $o) => $o['name'], $spec['options']),
            'operations' => self::texts($spec, 'work'),
            'checks' => [...self::texts($spec, 'check'), ...self::texts($spec, 'final')],
            'surprises' => array_values(array_filter(array_column($spec['options'], 'surprise'))),
            'fluid' => $spec['fluid'],
            'numbers' => $this->numbers->of($build),
            'dyno' => $run,
            'notDynoTested' => $run === null,
            'roadTest' => $run === null ? $this->verdicts->onTheRoad($build) : null,
            'converterDepth' => [
                'unit' => $depth['unit'],
                'flexplateDepth' => $depth['flexplateDepth'],
                'minPull' => $depth['minPull'],
                'maxPull' => $depth['maxPull'],
                'readAtLeast' => round($depth['flexplateDepth'] + $depth['minPull'], 3),
                'readAtMost' => round($depth['flexplateDepth'] + $depth['maxPull'], 3),
                'clicks' => $depth['clicks'],
                'prefill_l' => $depth['prefill_l'],
                'check' => $example->message,
            ],
            'held' => $spec['held'] ?? null,
            'conditions' => $this->conditions->of($build->unit),
            'fitting' => Vocabulary::body('installation')->fitting,
        ];
    }

    /**
     * @param  array<string, mixed>  $spec
     * @return list<string>
     */
    private static function texts(array $spec, string $kind): array
    {
        return array_values(
            array_unique(array_column(array_filter($spec['work'], fn (array $w) => $w['kind'] === $kind), 'text')),
        );
    }
}
