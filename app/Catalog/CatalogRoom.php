<?php

namespace App\Catalog;

use App\Catalog\Edit\CatalogEditController;
use App\Catalog\Read\CatalogController;
use App\Catalog\Read\PartNumbers;
use App\Catalog\Read\ProgramController;
use App\Catalog\Trainer\FaultTrainerController;
use App\Catalog\Trainer\PackTrainerController;
use App\Shop\Role;
use App\Yard\Contracts\Room;
use App\Yard\Contracts\ScanHit;
use App\Yard\Http\Write;
use Illuminate\Support\Facades\Route;

/** What the house knows of families, variants, parts and specifications, with source and date. */
final class CatalogRoom implements Room
{
    public function __construct(private readonly PartNumbers $numbers)
    {
    }

    public static function routes(): void
    {
        Route::get('catalog/families', [CatalogController::class, 'families']);
        FaultTrainerController::routes();
        PackTrainerController::routes();
        ProgramController::routes();
        Route::get('catalog/families/{code}', [CatalogController::class, 'family']);
        Route::get('catalog/families/{code}/section', [CatalogController::class, 'section']);
        Route::get('catalog/families/{code}/strength', [CatalogController::class, 'strength']);
        Route::controller(CatalogEditController::class)->group(function (): void {
            Route::get('catalog/kinds', 'kinds');
            Route::get('catalog/entries', 'entries');
            Route::get('catalog/entry', 'entry');
            Route::get('catalog/entry/history', 'history');
            Route::get('catalog/diff', 'diff');
            Route::get('catalog/pack', 'export');
            Route::get('catalog/uploads', 'uploads');
            Route::get('catalog/uploads/{import}', 'showUpload');
        });
        Write::with('catalog.edit')->controller(CatalogEditController::class)->group(function (): void {
            Route::post('catalog/entry', 'save');
            Route::post('catalog/entry/choice', 'choose');
            Route::delete('catalog/entry', 'remove');
            Route::post('catalog/pack', 'import');
            Route::post('catalog/uploads', 'uploadCsv');
            Route::post('catalog/uploads/{import}/confirm', 'confirmCsv');
            Route::post('catalog/uploads/{import}/cancel', 'cancelCsv');
        });
    }

    /** @return array<string, list<Role>> */
    public static function abilities(): array
    {
        return ['catalog.edit' => [Role::Manager]];
    }

    /** @return array<class-string, class-string> */
    public static function provides(): array
    {
        return [];
    }

    /** @return list<ScanHit> */
    public function scan(string $typed): array
    {
        return $this->numbers->scan($typed);
    }
}
