<?php

use App\Catalog\Edit\CatalogEditController;
use App\Catalog\Read\CatalogController;
use App\Insight\Http\InsightController;
use App\Interchange\Http\InterchangeController;
use App\Shop\Http\CalculatorsController;
use App\Shop\Http\HouseRulesController;
use App\Shop\Http\SessionController;
use App\Stations\Assembly\Http\AssemblyController;
use App\Stations\Dispatch\Http\DispatchController;
use App\Stations\Dyno\Http\DynoController;
use App\Stations\Identification\Http\IdentificationController;
use App\Stations\Identification\Http\TrainerController;
use App\Stations\Ordering\Http\OrderingController;
use App\Stations\Receiving\Http\ReceivingController;
use App\Stations\Returns\Http\ReturnsController;
use App\Stock\Http\StockController;
use App\Yard\Http\YardController;
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
    Route::get('runs/{run}', [DynoController::class, 'show']);
    Route::get('runs/{run}/trace.csv', [DynoController::class, 'download']);
    Route::get('stock', [StockController::class, 'index']);
    Route::get('lots/{lot}', [StockController::class, 'lot']);
    Route::get('catalog/families', [CatalogController::class, 'families']);
    Route::get('catalog/families/{code}', [CatalogController::class, 'family']);
    Route::get('catalog/kinds', [CatalogEditController::class, 'kinds']);
    Route::get('catalog/entries', [CatalogEditController::class, 'entries']);
    Route::get('catalog/entry', [CatalogEditController::class, 'entry']);
    Route::get('catalog/entry/history', [CatalogEditController::class, 'history']);
    Route::get('catalog/diff', [CatalogEditController::class, 'diff']);
    Route::get('catalog/pack', [CatalogEditController::class, 'export']);
    Route::get('catalog/uploads', [CatalogEditController::class, 'uploads']);
    Route::get('catalog/uploads/{import}', [CatalogEditController::class, 'showUpload']);
    Route::get('interchange/vehicles', [InterchangeController::class, 'vehicles']);
    Route::get('interchange/vehicles/{code}', [InterchangeController::class, 'vehicle']);
    Route::get('interchange/cores/{number}', [InterchangeController::class, 'core']);
    Route::get('interchange/part', [InterchangeController::class, 'part']);
    Route::get('tag', [IdentificationController::class, 'tag']);
    Route::get('core-balances', [ReceivingController::class, 'balances']);
    Route::get('customers/{code}/statement', [ReceivingController::class, 'statement']);
    Route::get('units/{number}/credit-revision', [ReceivingController::class, 'creditRevision']);
    Route::get('units/{number}/quote', [OrderingController::class, 'quote']);
    Route::get('trainer', [TrainerController::class, 'results']);
    Route::get('insight/return-rates', [InsightController::class, 'returnRates']);
    Route::get('house-rules', [HouseRulesController::class, 'index']);

    // Questions that compute and store nothing, too long for an address line.
    Route::post('intake-form/credit', [ReceivingController::class, 'credit'])->middleware('can:receive-core');
    Route::post('units/{number}/order/preview', [OrderingController::class, 'preview'])->middleware(
        'can:specify-build',
    );
    Route::post('units/{number}/order/calculation', [OrderingController::class, 'calculation'])->middleware(
        'can:specify-build',
    );
    Route::post('units/{number}/places/{place}/propose', [AssemblyController::class, 'propose'])->middleware(
        'can:assemble',
    );

    $write = fn (string $ability) => Route::middleware(["can:$ability", 'one-effect']);
    $write('receive-core')->post('units', [ReceivingController::class, 'store']);
    $write('receive-core')->put('units/{number}/intake', [ReceivingController::class, 'revise']);
    $write('receive-core')->post('units/{number}/trays', [ReceivingController::class, 'basket']);
    $write('hold-unit')->post('units/{number}/photos', [ReceivingController::class, 'photo']);
    $write('hold-unit')->post('units/{number}/holds', [ReceivingController::class, 'hold']);
    $write('lift-hold')->post('holds/{hold}/lift', [ReceivingController::class, 'lift']);
    $write('identify-core')->post('units/{number}/clues', [IdentificationController::class, 'answer']);
    $write('identify-core')->post('units/{number}/identity', [IdentificationController::class, 'decide']);
    $write('specify-build')->post('units/{number}/order', [OrderingController::class, 'order']);
    $write('release-build')->post('units/{number}/release', [OrderingController::class, 'release']);
    $write('tear-down')->post('units/{number}/teardown/steps/{step}', [AssemblyController::class, 'teardownStep']);
    $write('tear-down')->post('units/{number}/findings', [AssemblyController::class, 'finding']);
    $write('hold-unit')->post('units/{number}/symptoms', [AssemblyController::class, 'symptoms']);
    $write('tear-down')->post('units/{number}/teardown/complete', [AssemblyController::class, 'completeTeardown']);
    $write('assemble')->post('units/{number}/assembly/steps/{step}', [AssemblyController::class, 'assemblyStep']);
    $write('assemble')->post('units/{number}/places/{place}/fit', [AssemblyController::class, 'fit']);
    $write('assemble')->post('units/{number}/measurements', [AssemblyController::class, 'measure']);
    $write('sign-off')->post('units/{number}/sign-off', [AssemblyController::class, 'signOff']);
    $write('run-cell')->post('units/{number}/runs', [DynoController::class, 'start']);
    $write('run-cell')->post('runs/{run}/cancel', [DynoController::class, 'cancel']);
    $write('run-cell')->post('runs/{run}/verdict', [DynoController::class, 'judge']);
    $write('ship-unit')->post('units/{number}/shipment', [DispatchController::class, 'ship']);
    $write('handle-return')->post('units/{number}/commissioning', [DispatchController::class, 'commission']);
    $write('handle-return')->post('returns', [ReturnsController::class, 'open']);
    $write('handle-return')->post('returns/{number}/observations', [ReturnsController::class, 'observe']);
    $write('handle-return')->post('returns/{number}/measurements', [ReturnsController::class, 'measure']);
    $write('handle-return')->post('returns/{number}/verdict', [ReturnsController::class, 'verdict']);
    $write('handle-return')->post('returns/{number}/rebuild', [ReturnsController::class, 'rebuild']);
    $write('receive-core')->post('units/{number}/credit-revision', [ReceivingController::class, 'reviseCredit']);
    $write('train')->post('trainer', [TrainerController::class, 'deal']);
    $write('train')->post('trainer/{round}/questions', [TrainerController::class, 'ask']);
    $write('train')->post('trainer/{round}/answer', [TrainerController::class, 'answer']);
    $write('edit-catalog')->post('catalog/entry', [CatalogEditController::class, 'save']);
    $write('edit-catalog')->post('catalog/entry/choice', [CatalogEditController::class, 'choose']);
    $write('edit-catalog')->delete('catalog/entry', [CatalogEditController::class, 'remove']);
    $write('edit-catalog')->post('catalog/pack', [CatalogEditController::class, 'import']);
    $write('edit-catalog')->post('catalog/uploads', [CatalogEditController::class, 'uploadCsv']);
    $write('edit-catalog')->post('catalog/uploads/{import}/confirm', [CatalogEditController::class, 'confirmCsv']);
    $write('edit-catalog')->post('catalog/uploads/{import}/cancel', [CatalogEditController::class, 'cancelCsv']);
    $write('set-house-rules')->put('house-rules/{code}', [HouseRulesController::class, 'set']);
});
