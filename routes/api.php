<?php

use App\Bench\BenchController;
use App\Builds\BuildsController;
use App\Catalog\CatalogController;
use App\Cell\CellController;
use App\Identification\IdentificationController;
use App\Insight\InsightController;
use App\Receiving\ReceivingController;
use App\Returns\ReturnsController;
use App\Shipping\ShippingController;
use App\Shop\CalculatorsController;
use App\Shop\HouseRulesController;
use App\Shop\SessionController;
use App\Stock\StockController;
use App\Track\YardController;
use Illuminate\Support\Facades\Route;

Route::get('session', [SessionController::class, 'show']);
Route::post('session', [SessionController::class, 'signIn']);
Route::delete('session', [SessionController::class, 'signOut']);

Route::middleware('auth:badge')->group(function (): void {
    Route::get('calc', [CalculatorsController::class, 'index']);
    Route::get('calc/{name}', [CalculatorsController::class, 'schema']);
    Route::post('calc/{name}', [CalculatorsController::class, 'run']);

    Route::get('yard', [YardController::class, 'board']);
    Route::get('units', [YardController::class, 'units']);
    Route::get('find', [YardController::class, 'find']);
    Route::get('units/{number}', [YardController::class, 'card']);
    Route::get('units/{number}/history', [YardController::class, 'history']);
    Route::get('intake-form', [ReceivingController::class, 'form']);
    Route::get('photos/{photo}', [ReceivingController::class, 'showPhoto']);
    Route::get('runs/{run}', [CellController::class, 'show']);
    Route::get('runs/{run}/trace.csv', [CellController::class, 'download']);
    Route::get('stock', [StockController::class, 'index']);
    Route::get('lots/{lot}', [StockController::class, 'lot']);
    Route::get('catalog/families', [CatalogController::class, 'families']);
    Route::get('catalog/families/{code}', [CatalogController::class, 'family']);
    Route::get('insight/return-rates', [InsightController::class, 'returnRates']);
    Route::get('house-rules', [HouseRulesController::class, 'index']);

    // Questions that compute and store nothing, too long for an address line.
    Route::post('intake-form/credit', [ReceivingController::class, 'credit'])->middleware('can:receive-core');
    Route::post('units/{number}/order/preview', [BuildsController::class, 'preview'])->middleware('can:specify-build');
    Route::post('units/{number}/places/{place}/propose', [BenchController::class, 'propose'])->middleware('can:assemble');

    $write = fn (string $ability) => Route::middleware(["can:$ability", 'one-effect']);
    $write('receive-core')->post('units', [ReceivingController::class, 'store']);
    $write('receive-core')->put('units/{number}/intake', [ReceivingController::class, 'revise']);
    $write('receive-core')->post('units/{number}/trays', [ReceivingController::class, 'basket']);
    $write('hold-unit')->post('units/{number}/photos', [ReceivingController::class, 'photo']);
    $write('hold-unit')->post('units/{number}/holds', [ReceivingController::class, 'hold']);
    $write('lift-hold')->post('holds/{hold}/lift', [ReceivingController::class, 'lift']);
    $write('identify-core')->post('units/{number}/clues', [IdentificationController::class, 'answer']);
    $write('identify-core')->post('units/{number}/identity', [IdentificationController::class, 'decide']);
    $write('specify-build')->post('units/{number}/order', [BuildsController::class, 'order']);
    $write('release-build')->post('units/{number}/release', [BuildsController::class, 'release']);
    $write('tear-down')->post('units/{number}/teardown/steps/{step}', [BenchController::class, 'teardownStep']);
    $write('tear-down')->post('units/{number}/findings', [BenchController::class, 'finding']);
    $write('hold-unit')->post('units/{number}/symptoms', [BenchController::class, 'symptoms']);
    $write('tear-down')->post('units/{number}/teardown/complete', [BenchController::class, 'completeTeardown']);
    $write('assemble')->post('units/{number}/assembly/steps/{step}', [BenchController::class, 'assemblyStep']);
    $write('assemble')->post('units/{number}/places/{place}/fit', [BenchController::class, 'fit']);
    $write('assemble')->post('units/{number}/measurements', [BenchController::class, 'measure']);
    $write('sign-off')->post('units/{number}/sign-off', [BenchController::class, 'signOff']);
    $write('run-cell')->post('units/{number}/runs', [CellController::class, 'start']);
    $write('run-cell')->post('runs/{run}/cancel', [CellController::class, 'cancel']);
    $write('run-cell')->post('runs/{run}/verdict', [CellController::class, 'judge']);
    $write('ship-unit')->post('units/{number}/shipment', [ShippingController::class, 'ship']);
    $write('handle-return')->post('units/{number}/commissioning', [ShippingController::class, 'commission']);
    $write('handle-return')->post('returns', [ReturnsController::class, 'open']);
    $write('handle-return')->post('returns/{number}/observations', [ReturnsController::class, 'observe']);
    $write('handle-return')->post('returns/{number}/measurements', [ReturnsController::class, 'measure']);
    $write('handle-return')->post('returns/{number}/verdict', [ReturnsController::class, 'verdict']);
    $write('handle-return')->post('returns/{number}/rebuild', [ReturnsController::class, 'rebuild']);
    $write('set-house-rules')->put('house-rules/{code}', [HouseRulesController::class, 'set']);
});
