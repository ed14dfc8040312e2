<?php

namespace App\Stations\Receiving\Actions;

use App\Kernel\Ledger\Ledger;
use App\Kernel\Refusal;
use App\Kernel\TypedQuantity;
use App\Shop\HouseRules;
use App\Shop\Models\Person;
use App\Stations\Receiving\Models\Tray;
use App\Stations\Receiving\Models\TrayItem;
use App\Stations\Receiving\Models\TrayWeighing;
use App\Yard\Models\Unit;
use Yard\Core\BadInput;
use Yard\Core\Work\CountByWeight;

/** Small parts of a tray are counted on a scale, from the weight of a few that were counted by hand. */
final class WeighTray
{
    private const GRAMS = 1000.0;

    public function __construct(private readonly Ledger $ledger, private readonly HouseRules $rules)
    {
    }

    /** @param  array<string, mixed>  $in  item, basket, filled, sample, sampleWeight */
    public function weigh(Unit $unit, string $tag, array $in, Person $by): TrayWeighing
    {
        $tray =
            Tray::query()->where('tag', $tag)->where('unit_id', $unit->id)->first() ??
            throw new Refusal("Tray $tag is not tied to this unit.", 404);
        $item =
            $tray->items()->get()->first(fn (TrayItem $i): bool => $i->name === $in['item']) ??
            throw Refusal::at('/item', "\"{$in['item']}\" is not on the list of tray $tag.");
        $grams = fn (string $field): float => self::GRAMS *
            TypedQuantity::parse((string) $in[$field], 'mass', 'g', "/$field")->si;
        $sample = $grams('sampleWeight');
        if ($sample <= 0) {
            throw Refusal::at('/sampleWeight', 'What was counted by hand must weigh something: tare the scale first.');
        }
        $piece = $sample / $in['sample'];
        $net = $grams('filled') - $grams('basket');
        $step = $this->rules->number('scale-step') / 2.0;
        try {
            // The weight of one is as sure as the few that were weighed: half a step over all of them.
            $found = CountByWeight::of($net, $piece, $step, $step / $sample);
        } catch (BadInput $e) {
            throw Refusal::at('/filled', $e->getMessage());
        }
        $weighing = TrayWeighing::create([
            'unit_id' => $unit->id,
            'tag' => $tag,
            'item' => $item->name,
            'expected' => $item->count,
            'counted' => $found->pieces,
            'net_g' => $net,
            'piece_g' => $piece,
            'weighed_by' => $by->id,
            'weighed_at' => now(),
        ]);
        $event = ['tag' => $tag, 'item' => $item->name, 'counted' => $found->pieces];
        $this->ledger->onUnit($unit, 'tray.weighed', $event);

        return $weighing;
    }
}
