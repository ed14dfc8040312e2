<?php

namespace App\Stations\Teardown;

use App\Shop\Role;
use App\Stations\Teardown\Http\ReportController;
use App\Stations\Teardown\Http\TeardownController;
use App\Stations\Teardown\Judges\GradedPart;
use App\Stations\Teardown\Queries\LostHardParts;
use App\Stations\Teardown\Queries\OpenTeardown;
use App\Stations\Teardown\Queries\RepairsOfUnit;
use App\Stations\Teardown\Queries\TeardownSection;
use App\Work\Bench;
use App\Work\Contracts\ConditionJudge;
use App\Work\Contracts\EarlierWork;
use App\Work\Http\BenchController;
use App\Yard\Contracts\Blocker;
use App\Yard\Contracts\HardPartLosses;
use App\Yard\Contracts\ScanHit;
use App\Yard\Contracts\Section;
use App\Yard\Contracts\Station;
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
        Write::with('teardown.work')->post('units/{number}/teardown/unharmed', [TeardownController::class, 'unharmed']);
        Write::with('teardown.work')->post('units/{number}/teardown/complete', [TeardownController::class, 'complete']);
        Route::get('units/{number}/teardown/report', [ReportController::class, 'page']);
        Route::get('units/{number}/teardown/report.pdf', [ReportController::class, 'pdf']);
        Write::with('yard.hold')->post('units/{number}/teardown/leak', [TeardownController::class, 'leak']);
        Write::with('teardown.work')->post('units/{number}/teardown/repairs', [TeardownController::class, 'repair']);
        Write::with('teardown.work')->post('units/{number}/teardown/swaps', [TeardownController::class, 'swap']);
    }

    /** @return array<string, list<Role>> */
    public static function abilities(): array
    {
        return ['teardown.work' => [Role::Manager, Role::Teardown]];
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
        return $gate === Gate::CloseTeardown ? $this->open->of($unit) : [];
    }
}
