<?php

namespace App\Stations\Teardown\Actions;

use App\Catalog\Models\FamilySpec;
use App\Kernel\Ledger\Ledger;
use App\Kernel\Refusal;
use App\Shop\Models\Person;
use App\Stations\Teardown\FindingSpec;
use App\Stations\Teardown\Models\ReferencePicture;
use App\Yard\Models\Photo;
use App\Yard\Models\Unit;

/** A picture the shop took becomes what others look at when they grade such a part. */
final class ChooseReference
{
    public function __construct(private readonly Ledger $ledger)
    {
    }

    public function choose(Unit $unit, string $part, string $condition, int $photo, Person $by): void
    {
        $entry =
            FamilySpec::query()
                ->where('family_id', $unit->family_id)
                ->where('kind', 'finding')
                ->where('code', $part)
                ->first() ?? throw Refusal::at('/part', "There is no part \"$part\" on the inspection list.");
        $spec = FindingSpec::read($entry->name, $entry->body);
        $spec->grade($condition, '/condition');
        Photo::query()->where('unit_id', $unit->id)->whereKey($photo)->exists() ||
            throw Refusal::at('/photo', 'This unit has no such picture.');
        $place = ['part_kind' => $spec->kind, 'condition' => $condition];
        $chosen = ['photo_id' => $photo, 'chosen_by' => $by->id, 'chosen_at' => now()];
        $reference = ReferencePicture::query()->where($place)->first() ?? new ReferencePicture($place);
        $reference->fill($chosen)->save();
        $this->ledger->onUnit($unit, 'reference.chosen', $place + ['photo' => $photo]);
    }
}
