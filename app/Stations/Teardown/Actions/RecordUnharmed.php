<?php

namespace App\Stations\Teardown\Actions;

use App\Catalog\Models\FamilySpec;
use App\Kernel\Refusal;
use App\Shop\Models\Person;
use App\Stations\Teardown\Models\Finding;
use App\Work\Generation;
use App\Yard\Models\Unit;

/** Several parts looked at and found sound, said in one go: what is not harmed is evidence too. */
final class RecordUnharmed
{
    public function __construct(private readonly RecordFinding $record)
    {
    }

    /** @param  list<string>  $parts  of the inspection list */
    public function record(Unit $unit, array $parts, Person $by): void
    {
        $list = array_column(FamilySpec::bodies((int) $unit->family_id, 'finding'), null, 'code');
        $seen = Finding::query()
            ->where('unit_id', $unit->id)
            ->where('generation', Generation::of($unit, 'teardown'))
            ->pluck('part')
            ->flip();
        foreach ($parts as $n => $code) {
            $part = $list[$code] ?? [];
            $against = match (true) {
                $part === [] => "There is no part \"$code\" on the inspection list.",
                isset($seen[$code]) => "\"{$part['name']}\" was looked at already; change that finding itself.",
                isset($part['measure']) => "\"{$part['name']}\" is measured: a look does not tell.",
                default => null,
            };
            if ($against !== null) {
                throw Refusal::at("/parts/$n", $against);
            }
            $this->record->record($unit, [
                'part' => $code,
                'condition' => $part['conditions'][0],
                'disposition' => isset($part['always']) ? 'replace' : 'reuse',
                'role' => 'none',
            ], $by);
        }
    }
}
