<?php

namespace App\Stations\Receiving;

use App\Shop\Role;
use App\Stations\Receiving\Http\ReceivingController;
use App\Stations\Receiving\Http\TrayController;
use App\Stations\Receiving\Queries\DamageEvidence;
use App\Stations\Receiving\Queries\ReceivedThings;
use App\Stations\Receiving\Queries\ReceivingSection;
use App\Yard\Contracts\Blocker;
use App\Yard\Contracts\ScanHit;
use App\Yard\Contracts\Section;
use App\Yard\Contracts\Station;
use App\Yard\Gate;
use App\Yard\Http\Write;
use App\Yard\Models\Unit;
use Illuminate\Support\Facades\Route;

/** Cores arrive: tag, story, walk-round, missing parts, grade, credit, trays. */
final class ReceivingStation implements Station
{
    public function __construct(
        private readonly ReceivingSection $section,
        private readonly ReceivedThings $things,
        private readonly DamageEvidence $damage,
    ) {
    }

    public static function routes(): void
    {
        Route::get('receiving/form', [ReceivingController::class, 'form']);
        // A question that computes and stores nothing, too long for an address line.
        Route::post('receiving/credit', [ReceivingController::class, 'credit'])->middleware('can:receiving.receive');
        Write::with('receiving.receive')->post('receiving', [ReceivingController::class, 'store']);
        Write::with('receiving.receive')->put('units/{number}/receiving', [ReceivingController::class, 'revise']);
        TrayController::routes();
    }

    /** @return array<string, list<Role>> */
    public static function abilities(): array
    {
        return [
            'receiving.receive' => [Role::Manager, Role::Receiver, Role::Returns],
            'receiving.trays' => [Role::Manager, Role::Receiver, Role::Teardown, Role::Builder],
        ];
    }

    public function section(): Section
    {
        return $this->section;
    }

    /** @return array<class-string, class-string> */
    public static function provides(): array
    {
        return [];
    }

    /** @return list<ScanHit> */
    public function scan(string $typed): array
    {
        return $this->things->scan($typed);
    }

    /** @return list<Blocker> */
    public function blockers(Unit $unit, Gate $gate): array
    {
        return $gate === Gate::FirstTool ? $this->damage->missing($unit) : [];
    }
}
