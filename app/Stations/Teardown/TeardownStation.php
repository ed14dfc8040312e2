<?php

namespace App\Stations\Teardown;

use App\Shop\Role;
use App\Stations\Teardown\Http\AccountController;
use App\Stations\Teardown\Http\ReportController;
use App\Stations\Teardown\Http\SecondLookController;
use App\Stations\Teardown\Http\TeardownController;
use App\Stations\Teardown\Http\TimelineController;
use App\Stations\Teardown\Judges\GradedPart;
use App\Stations\Teardown\Queries\ConfirmedCauses;
use App\Stations\Teardown\Queries\LostHardParts;
use App\Stations\Teardown\Queries\OpenQuestions;
use App\Stations\Teardown\Queries\OpenTeardown;
use App\Stations\Teardown\Queries\RepairsOfUnit;
use App\Stations\Teardown\Queries\TeardownSection;
use App\Stations\Teardown\Queries\UnitCircumstances;
use App\Stations\Teardown\Queries\VehicleConditions;
use App\Work\Bench;
use App\Work\Contracts\Circumstances;
use App\Work\Contracts\ConditionJudge;
use App\Work\Contracts\EarlierWork;
use App\Work\Http\BenchController;
use App\Yard\Contracts\Blocker;
use App\Yard\Contracts\ElementWeights;
use App\Yard\Contracts\HardPartLosses;
use App\Yard\Contracts\ScanHit;
use App\Yard\Contracts\Section;
use App\Yard\Contracts\Station;
use App\Yard\Contracts\WarrantyConditions;
use App\Yard\Gate;
use App\Yard\Http\Write;
use App\Yard\Models\Unit;
use Illuminate\Support\Facades\Route;

/** A unit comes apart: steps, findings, the cause. */
final class TeardownStation implements Station
{
    public function __construct(private readonly TeardownSection $section, private readonly OpenTeardown $open)
    {
    }

    public static function routes(): void
    {
        BenchController::routes(Bench::Teardown);
        Write::with('teardown.work')->post('units/{number}/teardown/findings', [TeardownController::class, 'finding']);
        Write::with('yard.hold')->post('units/{number}/teardown/symptoms', [TeardownController::class, 'symptoms']);
        Write::with('yard.hold')->controller(TimelineController::class)->group(function (): void {
            Route::post('units/{number}/teardown/timeline', 'tell');
            Route::post('units/{number}/teardown/timeline/struck', 'strike');
        });
        Write::with('teardown.work')->post('units/{number}/teardown/unharmed', [TeardownController::class, 'unharmed']);
        Write::with('teardown.work')->post('units/{number}/teardown/complete', [TeardownController::class, 'complete']);
        Route::get('units/{number}/teardown/report', [ReportController::class, 'page']);
        Route::get('units/{number}/teardown/report.pdf', [ReportController::class, 'pdf']);
        Route::get('units/{number}/teardown/letter', [ReportController::class, 'letter']);
        Route::get('units/{number}/teardown/letter.pdf', [ReportController::class, 'letterPdf']);
        AccountController::routes();
        Route::get('second-looks', [SecondLookController::class, 'due'])->middleware('can:teardown.grade-again');
        Route::get('second-looks/agreement', [SecondLookController::class, 'agreement']);
        Write::with('teardown.grade-again')
            ->post('units/{number}/teardown/second-looks', [SecondLookController::class, 'grade']);
        Write::with('teardown.reference')
            ->post('units/{number}/teardown/references', [SecondLookController::class, 'reference']);
        Write::with('yard.hold')->post('units/{number}/teardown/leak', [TeardownController::class, 'leak']);
        Write::with('teardown.work')->post('units/{number}/teardown/repairs', [TeardownController::class, 'repair']);
        Write::with('teardown.work')->post('units/{number}/teardown/swaps', [TeardownController::class, 'swap']);
    }

    /** @return array<string, list<Role>> */
    public static function abilities(): array
    {
        return [
            'teardown.work' => [Role::Manager, Role::Teardown],
            'teardown.grade-again' => [Role::Manager, Role::Teardown, Role::Builder],
            'teardown.reference' => [Role::Manager],
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
            HardPartLosses::class => LostHardParts::class,
            ConditionJudge::class => GradedPart::class,
            EarlierWork::class => RepairsOfUnit::class,
            Circumstances::class => UnitCircumstances::class,
            ElementWeights::class => ConfirmedCauses::class,
            WarrantyConditions::class => VehicleConditions::class,
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
        return match ($gate) {
            Gate::CloseTeardown => $this->open->of($unit),
            Gate::SignOff => OpenQuestions::of($unit),
            Gate::Ship => OpenQuestions::aboard($unit),
            default => [],
        };
    }
}
