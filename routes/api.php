<?php

use App\Shop\Http\SessionController;
use App\Yard\Rooms;
use Illuminate\Support\Facades\Route;

Route::get('session', [SessionController::class, 'show']);
Route::post('session', [SessionController::class, 'signIn']);
Route::delete('session', [SessionController::class, 'signOut']);

Route::post('session/lock', [SessionController::class, 'lock']);

Route::middleware('auth:badge')->group(function (): void {
    Route::put('session/pin', [SessionController::class, 'changePin']);
    foreach (Rooms::all() as $room) {
        $room::routes();
    }
});
