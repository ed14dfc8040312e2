<?php

namespace App\Stations\Teardown\Queries;

use App\Catalog\Models\FamilySpec;
use App\Catalog\Models\Part;
use App\Catalog\Models\Variant;
use App\Shop\HouseRules;
use App\Stations\Teardown\Models\Finding;
use App\Stations\Teardown\Models\Repair;
use App\Work\Bench;
use App\Work\Generation;
use App\Work\Queries\BenchWork;
use App\Yard\Contracts\Alternatives;
use App\Yard\Models\Unit;
use App\Yard\StationName;
use Illuminate\Support\Collection;
use Illuminate\Support\Facades\DB;

/** What a unit costs now that it has been looked into: parts, what is short, hours, and what else could be done. */
final class KnownCosts
{
    /** Donor cores that are offered. */
    private const DONORS = 3;

    public function __construct(
        private readonly HouseRules $rules,
        private readonly Alternatives $alternatives,
        private readonly LearnedHours $learned,
    ) {
    }

    /** @return array<string, mixed> */
    public function of(Unit $unit): array
    {
        $list = array_column(FamilySpec::bodies((int) $unit->family_id, 'finding'), null, 'code');
        $findings = Finding::query()
            ->where('unit_id', $unit->id)
            ->where('generation', Generation::of($unit, 'teardown'))
            ->orderBy('id')
            ->get();
        $parts = $this->parts($unit, $findings, $list);
        $hours = $this->hours($unit, $findings, $list);
        $added = array_values(array_filter($parts, fn (array $p): bool => ! $p['inOrder']));
        $partsAdded = round(array_sum(array_column($added, 'price')), 2);
        $hoursAdded = round(array_sum(array_column($hours, 'hours')), 2);
        $costAdded = round($partsAdded + $hoursAdded * $this->rules->number('bench-cost'), 2);

        return [
            'parts' => $parts,
            'short' => array_values(array_filter($parts, fn (array $p): bool => $p['shelf'] < 1)),
            'hours' => $hours,
            'partsAdded' => $partsAdded,
            'hoursAdded' => $hoursAdded,
            'hoursOrdered' => $unit->currentBuild === null ? null : (float) $unit->currentBuild->hours,
            'costAdded' => $costAdded,
            'hourCost' => $this->rules->number('bench-cost'),
            'credit' => (float) $unit->credit,
            'creditBefore' => $unit->credit_revision['before'] ?? null,
            'creditReason' => $unit->credit_revision['reason'] ?? null,
            'choices' => [...$this->offered($unit, $costAdded), ...$this->donors($unit, $partsAdded)],
            'learned' => $this->learnedOf($unit),
        ];
    }

    /**
     * What has to be bought or taken from the shelf.
     *
     * @param  Collection<int, Finding>  $findings
     * @param  array<string, array<string, mixed>>  $list
     * @return list<array{part: string, name: string, why: string, price: float, shelf: int, inOrder: bool}>
     */
    private function parts(Unit $unit, Collection $findings, array $list): array
    {
        $ordered = array_flip(array_column($unit->currentBuild->spec['bom'] ?? [], 'part'));
        $renewed = $findings->whereIn('disposition', ['replace', 'scrap'])->filter(
            fn (Finding $f): bool => isset($list[$f->part]),
        );
        $numbers = $renewed->map(fn (Finding $f): string => $list[$f->part]['part'])->unique()->values()->all();
        $known = Part::query()->whereIn('number', $numbers)->get()->keyBy('number');
        $shelf = DB::table('stock_lots')
            ->join('parts', 'parts.id', '=', 'stock_lots.part_id')
            ->whereIn('parts.number', $numbers)
            ->groupBy('parts.number')
            ->selectRaw('parts.number, SUM(quantity) AS pieces')
            ->pluck('pieces', 'number');
        $parts = [];
        foreach ($renewed as $finding) {
            $spec = $list[$finding->part];
            $number = $spec['part'];
            $parts[$number] ??= [
                'part' => $number,
                'name' => $known[$number]->name ?? $spec['name'],
                'why' => "{$spec['name']}: $finding->condition",
                'price' => (float) ($known[$number]->price ?? 0),
                'shelf' => (int) ($shelf[$number] ?? 0),
                // What is renewed as a rule is in the price of the package.
                'inOrder' => isset($ordered[$number]) || isset($spec['always']),
            ];
        }

        return array_values($parts);
    }

    /**
     * Hours that nobody could know before.
     *
     * @param  Collection<int, Finding>  $findings
     * @param  array<string, array<string, mixed>>  $list
     * @return list<array{what: string, hours: float}>
     */
    private function hours(Unit $unit, Collection $findings, array $list): array
    {
        $hours = [];
        foreach ($findings->whereNotNull('route') as $finding) {
            $name = $list[$finding->part]['name'] ?? $finding->part;
            $hours[] = ['what' => "$name made good", 'hours' => (float) $finding->route_hours];
        }
        $repairs = Repair::query()
            ->where('unit_id', $unit->id)
            ->where('generation', Generation::of($unit, 'teardown'))
            ->get();
        foreach ($repairs as $repair) {
            $hours[] = ['what' => "$repair->place_name: $repair->method_name", 'hours' => (float) $repair->hours];
        }
        foreach (BenchWork::of($unit, Bench::Teardown)->operations as $operation) {
            if (isset($operation->body['onlyIf'])) {
                $hours[] = ['what' => $operation->name, 'hours' => (float) ($operation->body['hours'] ?? 0)];
            }
        }

        return $hours;
    }

    /** @return list<array<string, mixed>> with what came to light laid on this build */
    private function offered(Unit $unit, float $costAdded): array
    {
        $offered = $this->alternatives->of($unit);
        if (isset($offered[0]) && $costAdded > 0) {
            $offered[0]['cost'] = round($offered[0]['cost'] + $costAdded, 2);
            $offered[0]['left'] = round($offered[0]['left'] - $costAdded, 2);
            $offered[0]['note'] .= ', '.number_format($costAdded, 2).' more than ordered';
        }

        return $offered;
    }

    /** @return list<array<string, mixed>> cores of the same variant nobody has ordered, cheapest first */
    private function donors(Unit $unit, float $partsAdded): array
    {
        if ($unit->variant_id === null || $partsAdded <= 0) {
            return [];
        }
        $donors = Unit::query()
            ->where('variant_id', $unit->variant_id)
            ->where('ownership', 'exchange')
            ->whereIn('station', [StationName::Identification->value, StationName::Ordering->value])
            ->whereNull('current_build_id')
            ->where('id', '<>', $unit->id)
            ->orderBy('credit')
            ->limit(self::DONORS)
            ->get(['id', 'core_tag', 'grade', 'credit']);
        $worth = (float) (Variant::query()->whereKey($unit->variant_id)->value('core_charge') ?? 0);

        return array_values($donors->map(fn (Unit $d): array => [
            'what' => "Hard parts of core $d->core_tag",
            'price' => 0.0,
            'cost' => (float) $d->credit,
            'left' => round($partsAdded - (float) $d->credit, 2),
            'days' => 0,
            'note' => sprintf(
                'grade %s; instead of %.2f of new parts. As a core it is worth %.2f.',
                $d->grade,
                $partsAdded,
                $worth,
            ),
        ])->all());
    }

    /** @return list<array{operation: string, name: string, book: float, hours: float, n: int}> */
    private function learnedOf(Unit $unit): array
    {
        $learned = $this->learned->of((int) $unit->family_id, Bench::Teardown);
        $rows = [];
        foreach (FamilySpec::bodies((int) $unit->family_id, Bench::Teardown->list()) as $operation) {
            $of = $learned[$operation['code']] ?? null;
            if ($of !== null) {
                $rows[] = [
                    'operation' => $operation['code'],
                    'name' => $operation['name'],
                    'book' => (float) ($operation['hours'] ?? 0),
                    'hours' => $of['hours'],
                    'n' => $of['n'],
                ];
            }
        }

        return $rows;
    }
}
