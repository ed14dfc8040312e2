<?php

namespace App\Stations\Assembly;

use App\Shop\Role;
use App\Stations\Assembly\Http\AssemblyController;
use App\Stations\Assembly\Http\GaugesController;
use App\Stations\Assembly\Http\RecordController;
use App\Stations\Assembly\Judges\ChosenParts;
use App\Stations\Assembly\Judges\GaugeReading;
use App\Stations\Assembly\Judges\TestedParts;
use App\Stations\Assembly\Queries\AssemblyRecords;
use App\Stations\Assembly\Queries\AssemblySection;
use App\Stations\Assembly\Queries\LatestReadings;
use App\Stations\Assembly\Queries\OpenAssembly;
use App\Work\Bench;
use App\Work\Contracts\FitJudge;
use App\Work\Contracts\ReadingJudge;
use App\Work\Contracts\ValuesJudge;
use App\Work\Http\BenchController;
use App\Yard\Contracts\Blocker;
use App\Yard\Contracts\BuiltNumbers;
use App\Yard\Contracts\ScanHit;
use App\Yard\Contracts\Section;
use App\Yard\Contracts\Station;
use App\Yard\Gate;
use App\Yard\Http\Write;
use App\Yard\Models\Unit;
use Illuminate\Support\Facades\Route;

/** A unit goes together: selective parts, clearances, torques, air checks, the signature. */
final class AssemblyStation implements Station
{
    public function __construct(private readonly AssemblySection $section, private readonly OpenAssembly $open)
    {
    }

    public static function routes(): void
    {
        Route::post('units/{number}/assembly/places/{place}/propose', [
            AssemblyController::class,
            'propose',
        ])->middleware('can:assembly.work');
        BenchController::routes(Bench::Assembly);
        Route::get('units/{number}/assembly/air', [AssemblyController::class, 'air']);
        Route::get('units/{number}/assembly/tests/{group}', [AssemblyController::class, 'tests']);
        GaugesController::routes();
        RecordController::routes();
        Write::with('assembly.sign')->post('units/{number}/assembly/subs/{sub}/sign-off', [
            AssemblyController::class,
            'signSub',
        ]);
        Write::with('assembly.sign')->post('units/{number}/assembly/sign-off', [
            AssemblyController::class,
            'signOff',
        ]);
    }

    /** @return array<string, list<Role>> */
    public static function abilities(): array
    {
        return [
            'assembly.work' => [Role::Manager, Role::Builder],
            'assembly.sign' => [Role::Manager, Role::Builder],
            'assembly.gauges' => [Role::Manager],
        ];
    }

    public function section(): Section
    {
        return $this->section;
    }

    /** @return array<class-string, class-string> */
    public static function provides(): array
    {
        return [
            BuiltNumbers::class => LatestReadings::class,
            AssemblyRecords::class => AssemblyRecords::class,
            ReadingJudge::class => GaugeReading::class,
            FitJudge::class => ChosenParts::class,
            ValuesJudge::class => TestedParts::class,
        ];
    }

    /** @return list<ScanHit> */
    public function scan(string $typed): array
    {
        return [];
    }

    /** @return list<Blocker> */
    public function blockers(Unit $unit, Gate $gate): array
    {
        return $gate === Gate::SignOff ? $this->open->of($unit) : [];
    }
}
