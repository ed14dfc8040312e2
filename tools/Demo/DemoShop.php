<?php

namespace Tools\Demo;

use App\Shop\Models\Customer;
use App\Shop\Models\Gauge;
use App\Shop\Models\GaugeCheck;
use App\Shop\Models\Person;
use App\Shop\Models\PersonSkill;
use App\Shop\Models\SpecialTool;
use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Hash;

/** The invented shop: people, customers, gauges and shelf stock. */
final class DemoShop
{
    /** @return array<string, list<array<string, mixed>>> */
    public static function read(): array
    {
        return json_decode(
            (string) file_get_contents(database_path('demo/shop.json')),
            true,
            32,
            JSON_THROW_ON_ERROR,
        );
    }

    public static function pin(string $badge): string
    {
        return array_column(self::read()['people'], 'pin', 'badge')[$badge];
    }

    /** The PINs of everybody, hashed as the shop hashes its own. */
    public static function hashPins(): void
    {
        foreach (self::read()['people'] as $p) {
            Person::query()->where('badge', $p['badge'])->update(['pin_hash' => Hash::make($p['pin'])]);
        }
    }

    /** @param  array<string, mixed>  $shop */
    private static function tools(array $shop): void
    {
        foreach ($shop['gauges'] as $g) {
            Gauge::query()->create([
                'code' => $g['code'],
                'name' => $g['name'],
                'kind' => $g['kind'],
                'unit' => $g['unit'],
                'resolution' => $g['resolution'],
                'range_min' => $g['min'],
                'range_max' => $g['max'],
                'arm_mm' => $g['armMm'] ?? null,
                'calibrated_until' => now()->addDays($g['calibratedDays'])->format('Y-m-d'),
            ]);
        }
        foreach (Gauge::query()->get() as $gauge) {
            GaugeCheck::query()->create([
                'gauge_id' => $gauge->id,
                'result' => 'good',
                'next_due' => $gauge->calibrated_until,
                'note' => '',
                'checked_by' => Person::query()->where('badge', '100')->value('id'),
                'checked_at' => now()->subDays(90),
            ]);
        }
        foreach ($shop['specialTools'] as $t) {
            SpecialTool::query()->create([
                'inspected_until' => now()->addDays($t['inspectedDays'])->format('Y-m-d'),
            ] + array_diff_key($t, ['inspectedDays' => 0]));
        }
    }

    /** @param  int  $hashRounds work factor of the PIN hashes */
    public static function furnish(int $hashRounds = 12): void
    {
        $shop = self::read();
        foreach ($shop['people'] as $p) {
            self::person($p, $hashRounds);
        }
        Customer::query()->insert($shop['customers']);
        self::tools($shop);
        $parts = DB::table('parts')->pluck('id', 'number');
        DB::table('stock_lots')->insert(
            array_map(
                fn (array $l) => [
                    'part_id' => $parts[$l['part']],
                    'lot' => $l['lot'],
                    'quantity' => $l['quantity'],
                    'supplier' => $l['supplier'],
                    'place' => $l['place'],
                    'received_on' => now()->addDays($l['day'])->format('Y-m-d'),
                ],
                $shop['stock'],
            ),
        );
    }

    /** @param  array<string, mixed>  $p */
    private static function person(array $p, int $hashRounds): void
    {
        $person = Person::query()->create([
            'badge' => $p['badge'],
            'name' => $p['name'],
            'role' => $p['role'],
            'pin_hash' => Hash::make($p['pin'], ['rounds' => $hashRounds]),
            'pin_digits' => strlen($p['pin']),
            'active' => true,
        ]);
        foreach ($p['skills'] ?? [] as $skill) {
            PersonSkill::query()->create(['person_id' => $person->id, 'skill' => $skill]);
        }
    }
}
