<?php

namespace App\Money\Queries;

use App\Catalog\Models\Part;
use App\Catalog\Models\Variant;
use App\Kernel\Refusal;
use App\Shop\HouseRules;
use Yard\Core\Calculators;

/** The core credit from catalog prices, through receive.credit. */
final class CreditPrice
{
    public function __construct(private readonly HouseRules $rules)
    {
    }

    /**
     * @param  list<array{part: string, count?: int}>  $missing
     * @param  list<array{part: string}>  $failedHard
     * @return array{credit: float, lines: list<array<string, mixed>>, coreCharge: float}
     */
    public function of(
        ?Variant $variant,
        ?int $familyId,
        array $missing,
        array $failedHard,
        float $repairHours,
        string $grade,
    ): array {
        // Before the variant is known the lowest core charge of the family counts; the credit is revised when it is
        // confirmed.
        $basis = $variant ?? Variant::query()->where('family_id', $familyId)->orderBy('core_charge')->first();
        $result = Calculators::call('receive.credit', [
            'coreCharge' => (float) ($basis->core_charge ?? 0),
            'scrapValue' => (float) ($basis->scrap_value ?? 0),
            'grade' => $grade,
            'repairHours' => $repairHours,
            'rate' => $this->rules->number('labour-rate'),
            'missingParts' => $this->priced($missing, 'missing'),
            'failedHardParts' => $this->priced($failedHard, 'failedHard'),
        ]);

        return [
            'credit' => $result['credit'],
            'lines' => $result['lines'],
            'coreCharge' => (float) ($basis->core_charge ?? 0),
        ];
    }

    /**
     * @param  list<array{part: string, count?: int}>  $items
     * @return list<array{part: string, price: float, count: int}>
     */
    private function priced(array $items, string $field): array
    {
        $parts = Part::query()->whereIn('number', array_column($items, 'part'))->get()->keyBy('number');

        return array_map(
            function (array $item, int $i) use ($parts, $field): array {
                $part =
                    $parts[$item['part']] ??
                    throw Refusal::at("/$field/$i/part", "There is no part \"{$item['part']}\" in the catalog.");

                return [
                    'part' => $part->name,
                    'price' => (float) $part->price,
                    'count' => (int) ($item['count'] ?? 1),
                ];
            },
            $items,
            array_keys($items),
        );
    }
}
