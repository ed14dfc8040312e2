<?php

namespace App\Stations\Teardown\Queries;

use App\Catalog\Models\FamilySpec;
use App\Catalog\Models\Vocabulary;
use App\Shop\Queries\PeopleNames;
use App\Stations\Teardown\Models\Repair;
use App\Yard\Models\Unit;

/** What can be done about a fastener or shaft that will not come, in order, and what is forbidden there and why. */
final class Rescue
{
    public const TROUBLES = ['seized', 'stripped', 'broken'];

    public function __construct(private readonly PeopleNames $names)
    {
    }

    /** @return array<string, mixed> */
    public function of(Unit $unit): array
    {
        return [
            'places' => array_values($this->places($unit)),
            'methods' => array_map(
                fn (\stdClass $m) => [
                    'code' => $m->code,
                    'name' => $m->name,
                    'hours' => $m->hours,
                    'for' => $m->for,
                    'after' => $m->after,
                    'forbidden' => $this->forbidden($unit, $m),
                    'note' => ((array) ($m->note ?? []))[$this->metal($unit)] ?? null,
                ],
                self::vocabulary()->methods ?? [],
            ),
            'repairs' => $this->repairs($unit),
        ];
    }

    /** @return array<string, array{code: string, name: string, size: string}> bolts and shafts, by code */
    public function places(Unit $unit): array
    {
        $bolts = array_map(
            fn (array $b) => [
                'code' => $b['code'],
                'name' => $b['name'],
                'size' => "{$b['thread']}, {$b['grade']}, into {$b['into']}",
            ],
            FamilySpec::bodies((int) $unit->family_id, 'fastener'),
        );
        $shafts = array_map(
            fn (\stdClass $s) => ['code' => $s->code, 'name' => $s->name, 'size' => ''],
            self::vocabulary()->shafts ?? [],
        );

        return array_column([...$bolts, ...$shafts], null, 'code');
    }

    /** Why the method must not be used on this unit; null: it may. */
    public function forbidden(Unit $unit, \stdClass $method): ?string
    {
        return in_array($this->metal($unit), $method->near ?? [], true) ? $method->why : null;
    }

    public function method(string $code): ?\stdClass
    {
        return array_column(self::vocabulary()->methods ?? [], null, 'code')[$code] ?? null;
    }

    /** @return list<array<string, mixed>> of all generations, the newest first */
    private function repairs(Unit $unit): array
    {
        return array_values(Repair::query()
            ->where('unit_id', $unit->id)
            ->orderByDesc('id')
            ->get()
            ->map(fn (Repair $r) => [
                'place' => $r->place,
                'name' => $r->place_name,
                'trouble' => $r->trouble,
                'method' => $r->method_name,
                'hours' => (float) $r->hours,
                'after' => $r->check_after,
                'note' => $r->note,
                'generation' => $r->generation,
                'by' => $this->names->of($r->done_by),
                'at' => $r->done_at->toIso8601ZuluString(),
            ])
            ->all());
    }

    private function metal(Unit $unit): string
    {
        return $unit->family->body['caseMaterial'] ?? '';
    }

    private static function vocabulary(): ?\stdClass
    {
        return Vocabulary::query()->where('code', 'rescues')->first()?->body;
    }
}
