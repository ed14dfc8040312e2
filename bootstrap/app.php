<?php

use App\Ledger\OnePostOneEffect;
use App\Shop\Problem;
use Illuminate\Cookie\Middleware\AddQueuedCookiesToResponse;
use Illuminate\Cookie\Middleware\EncryptCookies;
use Illuminate\Foundation\Application;
use Illuminate\Foundation\Configuration\Exceptions;
use Illuminate\Foundation\Configuration\Middleware;
use Illuminate\Foundation\Http\Middleware\ValidateCsrfToken;
use Illuminate\Http\Middleware\HandleCors;
use Illuminate\Http\Request;
use Illuminate\Routing\Middleware\SubstituteBindings;
use Illuminate\Session\Middleware\StartSession;
use Illuminate\Support\Facades\Route;

$app = Application::configure(basePath: dirname(__DIR__))
    ->withRouting(using: function (): void {
        if (getenv('YARD_BENCH') !== false) {
            Route::group([], base_path('routes/bench.php'));
        }
        Route::middleware('desk')->prefix('api')->group(base_path('routes/api.php'));
        Route::middleware('desk')->group(base_path('routes/pages.php'));
    }, commands: base_path('routes/console.php'))
    ->withMiddleware(function (Middleware $middleware): void {
        $middleware->redirectGuestsTo('/');
        $middleware->remove(HandleCors::class); // same-origin application; see shims/README.md
        $middleware->group('desk', [
            EncryptCookies::class, AddQueuedCookiesToResponse::class, StartSession::class, ValidateCsrfToken::class, SubstituteBindings::class,
        ]);
        $middleware->alias(['one-effect' => OnePostOneEffect::class]);
        // Decided before anything is replayed or written.
        $middleware->prependToPriorityList(before: SubstituteBindings::class, prepend: Illuminate\Contracts\Auth\Middleware\AuthenticatesRequests::class);
    })
    ->withExceptions(function (Exceptions $exceptions): void {
        $exceptions->render(fn (Throwable $e, Request $request) => $request->is('api/*') ? Problem::from($e, $request) : null);
        $exceptions->dontReport([App\Shop\Refused::class, App\Catalog\BadPack::class, Yard\Core\BadInput::class]);
    })
    ->withCommands([__DIR__.'/../app'])
    ->create();

$app->useStoragePath(getenv('YARD_STATE') ?: dirname(__DIR__).'/storage/shop');

return $app;
