<?php

namespace App\Stations\Ordering\Queries;

use App\Catalog\Models\Application;
use App\Catalog\Models\Package;
use App\Yard\Contracts\ForeignParts;
use App\Yard\Contracts\Section;
use App\Yard\Models\Build;
use App\Yard\Models\Unit;
use Yard\Core\Drivetrain\ApplyChart;

final class OrderingSection implements Section
{
    public function __construct(private readonly Specification $resolve, private readonly ForeignParts $foreign)
    {
    }

    public function has(Unit $unit): bool
    {
        return $unit->variant_id !== null;
    }

    public function of(Unit $unit): ?array
    {
        if ($unit->variant === null) {
            return null;
        }
        $build = $unit->currentBuild?->loadMissing(['vehicle', 'customer', 'parent']);
        $open = $build?->spec === null; // once frozen there is nothing left to choose from

        return [
            'packages' => $open ? self::packages($unit) : [],
            'vehicles' => $open ? self::vehicles($unit) : [],
            'order' => $build === null
                    ? null
                    : $this->order($build) + [
                        'spec' => $build->spec === null
                                ? $this->resolve->ofBuild($build->setRelation('unit', $unit))
                                : array_diff_key($build->spec, ['train' => 0, 'assembly' => 0]),
                    ],
            'foreignParts' => $this->foreign->of($unit),
            'ratios' => self::ratios($unit->knownFamily()->chart()),
            'generations' => Build::query()
                ->where('unit_id', $unit->id)
                ->orderBy('generation')
                ->get()
                ->map(fn (Build $b) => ['serial' => $b->serial, 'generation' => $b->generation, 'state' => $b->state])
                ->all(),
        ];
    }

    /** @return list<array<string, mixed>> */
    private static function packages(Unit $unit): array
    {
        return array_values(Package::query()
            ->where('family_id', $unit->family_id)
            ->orderBy('id')
            ->get()
            ->map(
                fn (Package $p) => [
                    'code' => $p->code,
                    'name' => $p->name,
                    'duty' => $p->duty,
                    'text' => $p->body['text'],
                    'basePrice' => (float) $p->base_price,
                ],
            )
            ->all());
    }

    /** @return list<array<string, mixed>> those the variant is made for */
    private static function vehicles(Unit $unit): array
    {
        return array_values(Application::query()
            ->with('vehicle')
            ->where('variant_id', $unit->variant_id)
            ->orderBy('vehicle_id')
            ->limit(100)
            ->get()
            ->map(
                fn (Application $a) => [
                    'code' => $a->vehicle->code,
                    'name' => "{$a->vehicle->maker} {$a->vehicle->model}, {$a->vehicle->engine}",
                    'years' => "$a->from_year-$a->to_year",
                    'source' => $a->source,
                    'confidence' => $a->confidence,
                ],
            )
            ->all());
    }

    /** @return array<string, mixed> */
    private function order(Build $build): array
    {
        return [
            'serial' => $build->serial,
            'generation' => $build->generation,
            'parentSerial' => $build->parent?->serial,
            'state' => $build->state,
            'customer' => $build->customer?->name,
            'vehicle' => $build->vehicle === null
                    ? null
                    : [
                        'code' => $build->vehicle->code,
                        'name' => "{$build->vehicle->maker} {$build->vehicle->model}",
                    ],
            'duty' => $build->duty,
            'lines' => $build->asked()->toArray(),
            'price' => (float) $build->price,
            'hours' => (float) $build->hours,
            'promisedOn' => $build->promised_on?->format('Y-m-d'),
            'releasedAt' => $build->released_at?->toIso8601ZuluString(),
            'version' => $build->version,
        ];
    }

    /** @return list<array{gear: string, ratio: ?float, applied: list<string>}> */
    private static function ratios(ApplyChart $chart): array
    {
        return array_map(
            fn (string $gear) => [
                'gear' => $gear,
                'ratio' => $chart->solved()[$gear]->ratio,
                'applied' => $chart->applied[$gear],
            ],
            $chart->gears(),
        );
    }
}
