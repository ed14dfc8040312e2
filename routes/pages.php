<?php

use Illuminate\Support\Facades\Route;

// The single-page application answers every address that is not the API. It is the same for everybody and knows no
// session: fetched beside a sign-in, its answer would bring the cookie from before and sign the person out again.
Route::get('/{any?}', fn () => view('app'))->where('any', '^(?!api(/|$)|live/|build/).*$');
