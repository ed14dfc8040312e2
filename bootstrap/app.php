<?php

use App\Catalog\Exchange\ExportCatalogCommand;
use App\Catalog\Exchange\ImportCatalogCommand;
use App\Catalog\Kept\KeepsCatalog;
use App\Kernel\Http\IdempotentWrite;
use App\Kernel\Http\ProblemDocument;
use App\Kernel\Ledger\GrantCommand;
use App\Kernel\Ledger\RebuildStateCommand;
use App\Kernel\Ledger\TrimAnchorsCommand;
use App\Kernel\Ledger\VerifyLedgerCommand;
use App\Stations\Dyno\Console\GatewayCommand;
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
use Tools\Benchmarks\FitBenchmarkCommand;
use Tools\Benchmarks\HttpBenchmarkCommand;
use Tools\Benchmarks\IdentifyBenchmarkCommand;
use Tools\Benchmarks\InterchangeBenchmarkCommand;
use Tools\Benchmarks\PowerBenchmarkCommand;
use Tools\Benchmarks\TraceBenchmarkCommand;
use Tools\Benchmarks\VolumeBenchmarkCommand;
use Tools\Demo\BadgesCommand;
use Tools\Demo\LoadDemoCommand;
use Tools\StandIns\ScaleCommand;
use Tools\Volume\FillCommand;

$app = Application::configure(basePath: dirname(__DIR__))
    ->withRouting(
        using: function (): void {
            if (getenv('YARD_BENCH') !== false) {
                Route::group([], base_path('routes/bench.php'));
            }
            Route::middleware('desk')->prefix('api')->group(base_path('routes/api.php'));
            Route::group([], base_path('routes/pages.php'));
        },
        commands: base_path('routes/console.php'),
    )
    ->withMiddleware(function (Middleware $middleware): void {
        $middleware->redirectGuestsTo('/');
        // Large bodies are read as they are, by the one address that takes them, once it is known who sends them.
        $large = fn (Request $request): bool => (int) $request->header('Content-Length') > 262_144;
        $middleware->trimStrings(except: [$large]);
        $middleware->convertEmptyStringsToNull(except: [$large]);
        $middleware->remove(HandleCors::class); // same-origin application; see shims/README.md
        $middleware->group('desk', [
            EncryptCookies::class,
            AddQueuedCookiesToResponse::class,
            StartSession::class,
            ValidateCsrfToken::class,
            KeepsCatalog::class,
            SubstituteBindings::class,
        ]);
        $middleware->alias(['one-effect' => IdempotentWrite::class]);
        // Decided before anything is replayed or written.
        $middleware->prependToPriorityList(
            before: SubstituteBindings::class,
            prepend: Illuminate\Contracts\Auth\Middleware\AuthenticatesRequests::class,
        );
    })
    ->withExceptions(function (Exceptions $exceptions): void {
        $exceptions->render(
            fn (Throwable $e, Request $request) => $request->is('api/*') ? ProblemDocument::from($e, $request) : null,
        );
        $exceptions->dontReport([
            App\Kernel\Refusal::class,
            App\Catalog\Exchange\BadPack::class,
            Yard\Core\BadInput::class,
        ]);
    })
    ->withCommands([
        GrantCommand::class,
        TrimAnchorsCommand::class,
        RebuildStateCommand::class,
        VerifyLedgerCommand::class,
        GatewayCommand::class,
        ImportCatalogCommand::class,
        ExportCatalogCommand::class,
        BadgesCommand::class,
        LoadDemoCommand::class,
        ScaleCommand::class,
        HttpBenchmarkCommand::class,
        IdentifyBenchmarkCommand::class,
        PowerBenchmarkCommand::class,
        TraceBenchmarkCommand::class,
        FitBenchmarkCommand::class,
        InterchangeBenchmarkCommand::class,
        FillCommand::class,
        VolumeBenchmarkCommand::class,
    ])
    ->create();

$app->useStoragePath(getenv('YARD_STATE') ?: dirname(__DIR__).'/storage/shop');

return $app;
