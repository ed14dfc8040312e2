<?php

namespace App\Stations\Assembly\Actions;

use App\Catalog\Models\Part;
use App\Kernel\Ledger\Ledger;
use App\Kernel\Refusal;
use App\Shop\Models\Person;
use App\Stations\Assembly\Queries\PickList;
use App\Stock\Actions\IssueParts;
use App\Stock\Models\Lot;
use App\Yard\Gatekeeper;
use App\Yard\Models\Build;
use App\Yard\StationName;

/** A line of the order is taken from the lot that was scanned: from then on the build knows that lot. */
final class PickParts
{
    public function __construct(
        private readonly Ledger $ledger,
        private readonly IssueParts $stock,
        private readonly PickList $list,
    ) {
    }

    /**
     * @param  string  $lot  as scanned
     * @param  string|null  $instead  the part that stands for the line, said on purpose
     */
    public function pick(Build $build, string $part, string $lot, ?string $instead, Person $by): void
    {
        Gatekeeper::at($build->unit, StationName::Assembly, StationName::Teardown);
        $line = $this->line($build, $part);
        if ($line['left'] === 0) {
            throw new Refusal("All {$line['count']} \"{$line['name']}\" are picked already.", 409);
        }
        $scanned =
            Lot::query()->with('part')->where('lot', mb_strtoupper($lot))->first() ??
            throw Refusal::at('/lot', "There is no lot \"$lot\" on the shelf.");
        $number = $scanned->part->number;
        $allowed = array_column($line['instead'], 'why', 'part');
        if ($number !== $part && ! isset($allowed[$number])) {
            throw Refusal::at(
                '/lot',
                "Lot $scanned->lot is \"{$scanned->part->name}\" ($number); the order asks for "
                    ."\"{$line['name']}\" ($part).",
            );
        }
        if ($number !== $part && $instead !== $number) {
            throw Refusal::at(
                '/instead',
                "This is $number in place of $part. {$allowed[$number]} Say that it is meant so.",
            );
        }
        $place = PickList::PLACE.$part;
        $count = min($line['left'], $scanned->quantity);
        $this->stock->issue($build, $place, [['part' => $number, 'count' => $count]], $by, $scanned->lot);
        $event = ['line' => $part, 'part' => $number, 'lot' => $scanned->lot, 'count' => $count];
        $this->ledger->onUnit($build->unit, 'part.picked', $event);
    }

    /**
     * A line the shelf does not have is got for this unit alone: a lot of its own, taken at once.
     *
     * @param  'bought'|'borrowed'  $how
     */
    public function buy(
        Build $build,
        string $part,
        string $how,
        string $from,
        string $lot,
        ?float $paid,
        Person $by,
    ): void {
        Gatekeeper::at($build->unit, StationName::Assembly, StationName::Teardown);
        $line = $this->line($build, $part);
        $line['left'] > 0 ||
            throw new Refusal("All {$line['count']} \"{$line['name']}\" are picked already.", 409);
        $lot = mb_strtoupper($lot);
        Lot::query()->where('lot', $lot)->exists() &&
            throw Refusal::at('/lot', "There is a lot \"$lot\" on the shelf already: scan it, or check the number.");
        Lot::create([
            'part_id' => Part::query()->where('number', $part)->valueOrFail('id'),
            'lot' => $lot,
            'supplier' => $from,
            'quantity' => $line['left'],
            'place' => $build->serial,
            'received_on' => now()->format('Y-m-d'),
        ]);
        $this->ledger->onUnit($build->unit, "part.$how", [
            'line' => $part,
            'lot' => $lot,
            'count' => $line['left'],
            'from' => $from,
            'paid' => $paid,
        ]);
        $this->pick($build, $part, $lot, null, $by);
    }

    public function putBack(Build $build, string $part, Person $by): void
    {
        Gatekeeper::at($build->unit, StationName::Assembly, StationName::Teardown);
        $line = $this->line($build, $part);
        if ($line['picked'] === []) {
            throw new Refusal("Nothing of \"{$line['name']}\" is picked.", 409);
        }
        $this->stock->takeBack($build, PickList::PLACE.$part);
        $this->ledger->onUnit($build->unit, 'part.put-back', ['line' => $part, 'by' => $by->badge]);
    }

    /** @return array<string, mixed> */
    private function line(Build $build, string $part): array
    {
        return array_column($this->list->of($build)['lines'], null, 'part')[$part] ??
            throw Refusal::at('/part', "The order asks for no \"$part\".");
    }
}
