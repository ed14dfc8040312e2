<?php

namespace App\Yard\Http;

use Illuminate\Routing\RouteRegistrar;
use Illuminate\Support\Facades\Route;

/** An address that writes: somebody with the ability, one transaction, one effect however often it is sent. */
final class Write
{
    public static function with(string $ability): RouteRegistrar
    {
        return Route::middleware(["can:$ability", 'one-effect']);
    }
}
