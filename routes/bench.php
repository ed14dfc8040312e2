<?php

use Illuminate\Support\Facades\DB;
use Illuminate\Support\Facades\Route;
use Illuminate\Support\Str;

// Yardsticks for `./yard bench`, served by its instance only: the least a request can do on this server.
Route::get(
    'bench/select',
    fn () => response()->json(
        DB::table('units')
            ->where('core_tag', 'C-0201')
            ->first(['id', 'core_tag']),
    ),
);
Route::post('bench/insert', function () {
    DB::table('idempotency_keys')->insert([
        'person_id' => 0,
        'key' => (string) Str::uuid(),
        'fingerprint' => str_repeat('0', 64),
        'created_at' => now(),
    ]);

    return response()->json(['ok' => true]);
});
