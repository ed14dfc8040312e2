<?php

namespace App\Stations\Receiving\Queries;

use App\Shop\Queries\PeopleNames;
use App\Stations\Receiving\Actions\MoveTray;
use App\Stations\Receiving\Models\Tray;
use App\Stations\Receiving\Models\TrayItem;
use App\Stations\Receiving\Models\TrayWeighing;
use App\Work\Queries\CountedOut;
use App\Yard\Models\Photo;
use App\Yard\Models\Unit;
use Illuminate\Support\Collection;

/** The trays of a unit: what lies in each, where it is on its round, its pictures, what the scale said. */
final class TraysOfUnit
{
    public function __construct(private readonly PeopleNames $names)
    {
    }

    /** @return array<string, mixed> */
    public function of(Unit $unit): array
    {
        $weighed = TrayWeighing::query()->where('unit_id', $unit->id)->orderBy('id')->get()->groupBy('tag');
        $photos = Photo::query()
            ->where('unit_id', $unit->id)
            ->where('place', 'like', 'tray %')
            ->orderBy('id')
            ->get(['id', 'place'])
            ->groupBy('place');

        $trays = Tray::query()->with('items')->where('unit_id', $unit->id)->orderBy('id')->get();

        return [
            'stages' => MoveTray::STAGES,
            'loose' => self::loose($unit, $trays),
            'trays' => $trays
                ->map(fn (Tray $t): array => [
                    'tag' => $t->tag,
                    'stage' => $t->stage,
                    'movedBy' => $this->names->of($t->moved_by),
                    'movedAt' => $t->moved_at?->toIso8601ZuluString(),
                    'items' => $t->items->map(
                        fn (TrayItem $i): array => self::item($i, $weighed[$t->tag] ?? new Collection()),
                    )->values()->all(),
                    'photos' => ($photos["tray $t->tag"] ?? new Collection())->pluck('id')->all(),
                ])
                ->all(),
        ];
    }

    /**
     * What was counted out and lies in no tray yet.
     *
     * @param  Collection<int, Tray>  $trays
     * @return list<array{name: string, count: int}>
     */
    private static function loose(Unit $unit, Collection $trays): array
    {
        $loose = CountedOut::of($unit);
        foreach ($trays->flatMap(fn (Tray $t) => $t->items) as $item) {
            foreach (array_keys($loose) as $name) {
                // A hand writes "Check balls" where the count says "check balls".
                $loose[$name] -= strcasecmp($name, $item->name) === 0 ? $item->count : 0;
            }
        }
        $left = array_filter($loose, fn (int $count): bool => $count > 0);

        return array_map(fn (string $name, int $count) => compact('name', 'count'), array_keys($left), $left);
    }

    /**
     * @param  Collection<int, TrayWeighing>  $weighings
     * @return array<string, mixed>
     */
    private static function item(TrayItem $i, Collection $weighings): array
    {
        $last = $weighings->last(fn (TrayWeighing $w): bool => $w->item === $i->name);

        return [
            'name' => $i->name,
            'count' => $i->count,
            'keepTogether' => $i->keep_together,
            'weighed' => $last?->counted,
            'netG' => $last === null ? null : (float) $last->net_g,
        ];
    }
}
