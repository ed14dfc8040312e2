<?php

namespace App\Work\Queries;

use App\Catalog\Models\Vocabulary;
use App\Shop\Queries\PeopleNames;
use App\Work\Bench;
use App\Work\Decision;
use App\Work\Generation;
use App\Work\Models\Discrepancy;
use App\Yard\Models\Unit;
use Illuminate\Support\Collection;
use Illuminate\Support\Str;

/** What was counted and is not as many as it should be, and what that does to a unit. */
final class CountsThatDiffer
{
    public function __construct(private readonly PeopleNames $names)
    {
    }

    /** @return Collection<int, Discrepancy> */
    public static function at(Unit $unit, Bench $bench): Collection
    {
        return Discrepancy::query()
            ->where('unit_id', $unit->id)
            ->where('generation', Generation::of($unit, $bench->value))
            ->where('bench', $bench->value)
            ->whereNull('undone_at')
            ->orderBy('id')
            ->get();
    }

    /** @return list<array<string, mixed>> */
    public function shown(Unit $unit, Bench $bench): array
    {
        $all = self::at($unit, $bench);
        $known = $all->isEmpty() ? [] : self::meanings();

        return array_values($all->map(fn (Discrepancy $d): array => [
            'id' => $d->id,
            'operation' => $d->operation,
            'what' => $d->what,
            'said' => $d->said(),
            'expected' => $d->expected,
            'counted' => $d->counted,
            'note' => $d->note,
            'by' => $this->names->of($d->counted_by),
            'at' => $d->counted_at->toIso8601ZuluString(),
            'means' => self::meaning($known, $d),
            'decision' => $d->decision?->value,
            'decisionNote' => $d->decision_note,
            'decidedBy' => $this->names->of($d->decided_by),
        ])->all());
    }

    /** @return list<array{code: string, name: string}> */
    public static function decisions(): array
    {
        return array_map(fn (Decision $d) => ['code' => $d->value, 'name' => $d->says()], Decision::cases());
    }

    /** @return array<string, array{fewer?: string, more?: string}> */
    private static function meanings(): array
    {
        $list = Vocabulary::query()->where('code', 'count-meanings')->first();

        return $list === null ? [] : (array) json_decode((string) json_encode($list->body->items), true);
    }

    /** @param  array<string, array{fewer?: string, more?: string}>  $known  by the thing counted, or its last words */
    private static function meaning(array $known, Discrepancy $d): ?string
    {
        $what = $d->operation === Discrepancy::INSPECTION ? 'loose pieces' : $d->what;
        while (! isset($known[$what]) && str_contains($what, ' ')) {
            $what = Str::after($what, ' ');
        }
        $means = $known[$what] ?? [];

        return $means[$d->counted < $d->expected ? 'fewer' : 'more'] ?? null;
    }
}
