<?php

namespace App\Money\Queries;

use App\Catalog\Models\Part;
use App\Catalog\Models\Variant;
use App\Kernel\Refusal;
use App\Money\CoreState;
use App\Shop\HouseRules;
use Yard\Core\Credit\CoreCredit;
use Yard\Core\Credit\Grade;
use Yard\Core\Credit\PricedPart;

/** The core credit from catalog prices, through receive.credit. */
final class CreditPrice
{
    public function __construct(private readonly HouseRules $rules)
    {
    }

    /** @throws Refusal for a part that is not in the catalog */
    public function of(CoreState $core, Grade $grade): CoreCredit
    {
        // Before the variant is known the lowest core charge of the family counts; the credit is revised when it is
        // confirmed.
        $basis =
            $core->variant ??
            Variant::query()->where('family_id', $core->familyId)->orderBy('core_charge')->first();

        return CoreCredit::of(
            (float) ($basis->core_charge ?? 0),
            (float) ($basis->scrap_value ?? 0),
            $grade,
            $this->priced($core->missing, 'missing'),
            $this->priced($core->failedHard, 'failedHard'),
            $core->repairHours,
            $this->rules->number('labour-rate'),
        );
    }

    /**
     * @param  list<array{part: string, count?: int}>  $items
     * @return list<PricedPart>
     */
    private function priced(array $items, string $field): array
    {
        if ($items === []) {
            return [];
        }
        $parts = Part::query()->whereIn('number', array_column($items, 'part'))->get()->keyBy('number');

        return array_map(
            function (array $item, int $i) use ($parts, $field): PricedPart {
                $part =
                    $parts[$item['part']] ??
                    throw Refusal::at("/$field/$i/part", "There is no part \"{$item['part']}\" in the catalog.");

                return new PricedPart($part->name, (float) $part->price, (int) ($item['count'] ?? 1));
            },
            $items,
            array_keys($items),
        );
    }
}
