<?php

namespace App\Stations\Ordering\Queries;

use App\Catalog\Models\Application;
use App\Catalog\Models\Package;
use App\Stations\Ordering\Duty;
use App\Yard\Contracts\ForeignParts;
use App\Yard\Contracts\Section;
use App\Yard\Models\Build;
use App\Yard\Models\Unit;
use Illuminate\Support\Facades\Cache;
use Illuminate\Support\Facades\DB;
use Yard\Core\Calculators;

final class OrderingSection implements Section
{
    /** How long an answer about today's catalog is kept, seconds; a changed catalog asks anew at once. */
    private const KEEP_SECONDS = 86_400;

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
            'packages' => ! $open
                ? []
                : Package::query()
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
                    ->all(),
            'vehicles' => ! $open
                ? []
                : Application::query()
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
                    ->all(),
            'order' => $build === null
                    ? null
                    : $this->order($build) + [
                        'spec' => $build->spec === null
                                ? $this->resolve->of(
                                    $unit->knownFamily(),
                                    $build->order_lines['package'],
                                    $build->order_lines['add'],
                                    $build->order_lines['drop'],
                                    Duty::of($build->order_lines['duty'] ?? null, $build->vehicle),
                                    $unit->variant,
                                )
                                : array_diff_key($build->spec, ['train' => 0, 'assembly' => 0]),
                    ],
            'foreignParts' => $this->foreign->of($unit),
            'differs' => $build?->spec === null
                    ? []
                    : Cache::remember(
                        "differs:$build->id:$build->version:{$this->catalogNow($unit->knownFamily()->id)}",
                        self::KEEP_SECONDS,
                        fn () => $this->differs($build, $unit),
                    ),
            'ratios' => array_map(
                fn (array $g) => [
                    'gear' => $g['name'],
                    'ratio' => $g['ratio'],
                    'applied' => $this->appliedIn($unit, $g['name']),
                ],
                Calculators::call('geartrain.solve', $unit->knownFamily()->train)['gears'],
            ),
            'generations' => Build::query()
                ->where('unit_id', $unit->id)
                ->orderBy('generation')
                ->get()
                ->map(fn (Build $b) => ['serial' => $b->serial, 'generation' => $b->generation, 'state' => $b->state])
                ->all(),
        ];
    }

    /** What today's catalog and house rules are, in a word that changes with every row an order depends on. */
    private function catalogNow(int $family): string
    {
        $stamp = DB::selectOne(
            'SELECT (SELECT CONCAT(COUNT(*), MAX(ROW_START)) FROM options WHERE family_id = ?) AS o, (SELECT '
                .'CONCAT(COUNT(*), MAX(ROW_START)) FROM packages WHERE family_id = ?) AS p, (SELECT MAX(ROW_START) '
                .'FROM variants WHERE family_id = ?) AS v, (SELECT ROW_START FROM families WHERE id = ?) AS f, '
                .'(SELECT MAX(ROW_START) FROM vehicles) AS w, (SELECT GROUP_CONCAT(choice ORDER BY id) FROM '
                .'house_rules) AS h',
            [$family, $family, $family, $family],
        );

        return hash('xxh128', implode("\0", (array) $stamp));
    }

    /** @return list<string> what the same order would be today, in sentences; the frozen specification stays */
    private function differs(Build $build, Unit $unit): array
    {
        $frozen = $build->frozen();
        try {
            $today = $this->resolve->of(
                $unit->knownFamily(),
                $build->order_lines['package'],
                $build->order_lines['add'],
                $build->order_lines['drop'],
                Duty::of($build->order_lines['duty'] ?? null, $build->vehicle),
                $unit->variant,
            );
        } catch (\App\Kernel\Refusal $e) {
            return ['The order can no longer be written like this: '.$e->getMessage()];
        }
        $names = fn (array $spec) => array_column($spec['options'], 'name', 'code');
        $out = [];
        foreach (
            [
                ['would come in today', array_diff_key($names($today), $names($frozen))],
                ['is no longer in', array_diff_key($names($frozen), $names($today))],
            ] as [$what, $options]
        ) {
            foreach ($options as $name) {
                $out[] = "\"$name\" $what.";
            }
        }
        $change = round($today['price'] - $frozen['price'], 2);
        if ($change !== 0.0) {
            $out[] =
                'It would cost '.number_format(abs($change), 2).($change > 0 ? ' more' : ' less').' today.';
        }
        if ($today['status'] !== 'ok') {
            $out[] = 'Today it would not hold together: '.$today['conflicts'][0]['explain'];
        }

        return $out;
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
            'lines' => $build->order_lines,
            'price' => (float) $build->price,
            'hours' => (float) $build->hours,
            'promisedOn' => $build->promised_on?->format('Y-m-d'),
            'releasedAt' => $build->released_at?->toIso8601ZuluString(),
            'version' => $build->version,
        ];
    }

    /** @return list<string> */
    private function appliedIn(Unit $unit, string $gear): array
    {
        foreach ($unit->knownFamily()->train['gears'] as $g) {
            if ($g['name'] === $gear) {
                return $g['applied'];
            }
        }

        return [];
    }
}
