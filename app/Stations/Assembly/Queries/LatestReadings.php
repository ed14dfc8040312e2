<?php

namespace App\Stations\Assembly\Queries;

use App\Shop\Queries\PeopleNames;
use App\Stations\Assembly\Models\Measurement;
use App\Work\ReadingKind;
use App\Yard\Contracts\BuiltNumbers;
use App\Yard\Models\Build;

/** The latest reading of everything that was measured on a build. */
final class LatestReadings implements BuiltNumbers
{
    public function __construct(private readonly PeopleNames $names)
    {
    }

    /**
     * @return list<array{kind: string, code: string, name: string, value: float, unit: string, min: ?float,
     *     max: ?float, inside: bool, by: string, at: string}>
     */
    public function of(Build $build): array
    {
        $names = [];
        foreach (ReadingKind::cases() as $kind) {
            foreach ($kind->places($build->frozen()) as $place) {
                $names["$kind->value:{$place['code']}"] = $place['name'];
            }
        }

        return array_values(Measurement::query()
            ->where('build_id', $build->id)
            ->whereNull('undone_at')
            ->orderBy('id')
            ->get()
            ->keyBy(fn (Measurement $m) => "$m->kind:$m->code")
            ->sortBy(fn (Measurement $m) => array_search($m->kind, self::kinds(), true))
            ->map(
                fn (Measurement $m, string $key) => [
                    'kind' => $m->kind,
                    'code' => $m->code,
                    'name' => $names[$key] ?? $m->code,
                    'value' => (float) $m->value,
                    'unit' => $m->unit,
                    'min' => $m->window_min === null ? null : (float) $m->window_min,
                    'max' => $m->window_max === null ? null : (float) $m->window_max,
                    'inside' => $m->inside,
                    'by' => (string) $this->names->of($m->measured_by),
                    'at' => $m->measured_at->toIso8601ZuluString(),
                ],
            )
            ->values()
            ->all());
    }

    /** @return list<string> in the order papers list them */
    private static function kinds(): array
    {
        return array_column(ReadingKind::cases(), 'value');
    }
}
