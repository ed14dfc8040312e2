<?php

use Illuminate\Support\Facades\Route;

// The single-page application answers every address that is not the API.
Route::get('/{any?}', fn () => view('app'))->where('any', '^(?!api(/|$)|live/|build/).*$');
