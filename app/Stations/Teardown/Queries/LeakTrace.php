<?php

namespace App\Stations\Teardown\Queries;

use App\Catalog\Models\Family;
use App\Catalog\Read\EvidenceTable;
use App\Kernel\Refusal;
use App\Yard\Models\Unit;

/** Where it drips, when and what: which seal it is, and the next cheap look. */
final class LeakTrace
{
    /** @return array<string, mixed>|null null where the family has no table */
    public function of(Unit $unit): ?array
    {
        $table = self::table($unit->family);
        if ($table === null) {
            return null;
        }
        $ranked = $table->ranked($unit->leak, ['part', 'renews']);

        return [
            'questions' => array_map(
                fn (array $f) => ['feature' => $f['id'], 'name' => $f['name'], 'values' => $f['values']],
                $table->features,
            ),
            'observed' => (object) $unit->leak,
            'ranking' => array_map(fn (array $h) => $h + ['part' => null], $ranked['ranking']),
            'next' => array_column($ranked['next'], 'gainPerEffort', 'feature') ?: (object) [],
            'impossible' => $ranked['impossible'],
        ];
    }

    /**
     * @param  array<string, string>  $observed
     *
     * @throws Refusal for what nobody asked, or an answer that is none
     */
    public function assertKnown(Unit $unit, array $observed): void
    {
        $table = self::table($unit->family) ?? throw new Refusal('This family has no table of its seals.', 409);
        $values = array_column($table->features, 'values', 'id');
        foreach ($observed as $feature => $value) {
            if (! isset($values[$feature])) {
                throw Refusal::at("/observed/$feature", "Nothing called \"$feature\" is looked at.");
            }
            if (! in_array($value, $values[$feature], true)) {
                $choices = implode(', ', $values[$feature]);
                throw Refusal::at("/observed/$feature", "\"$value\" is no answer; choose one of $choices.");
            }
        }
    }

    private static function table(?Family $family): ?EvidenceTable
    {
        return isset($family->body['leaks']) ? EvidenceTable::read($family->body['leaks']) : null;
    }
}
