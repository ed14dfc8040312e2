<?php

namespace App\Stations\Returns;

use App\Shop\Role;
use App\Stations\Returns\Http\ReturnsController;
use App\Stations\Returns\Judges\SeenOnReturn;
use App\Stations\Returns\Queries\OpenReturns;
use App\Stations\Returns\Queries\ReturnNumbers;
use App\Stations\Returns\Queries\ReturnsSection;
use App\Work\Bench;
use App\Work\Contracts\ObservationJudge;
use App\Work\Http\BenchController;
use App\Yard\Contracts\Blocker;
use App\Yard\Contracts\Decision;
use App\Yard\Contracts\ManagersDay;
use App\Yard\Contracts\MoneyFigure;
use App\Yard\Contracts\ScanHit;
use App\Yard\Contracts\Section;
use App\Yard\Contracts\Station;
use App\Yard\Gate;
use App\Yard\Http\Write;
use App\Yard\Models\Unit;

/** A unit comes back: evidence, verdict, second build. */
final class ReturnsStation implements ManagersDay, Station
{
    public function __construct(
        private readonly ReturnsSection $section,
        private readonly ReturnNumbers $numbers,
        private readonly OpenReturns $open,
    ) {
    }

    public static function routes(): void
    {
        BenchController::routes(Bench::Returns);
        Write::with('returns.handle')->post('returns', [ReturnsController::class, 'open']);
        Write::with('returns.handle')->post('returns/{return}/observations', [ReturnsController::class, 'observe']);
        Write::with('returns.handle')->post('returns/{return}/measurements', [ReturnsController::class, 'measure']);
        Write::with('returns.handle')->post('returns/{return}/verdict', [ReturnsController::class, 'verdict']);
        Write::with('returns.handle')->post('returns/{return}/rebuild', [ReturnsController::class, 'rebuild']);
    }

    /** @return array<string, list<Role>> */
    public static function abilities(): array
    {
        return ['returns.handle' => [Role::Manager, Role::Returns]];
    }

    public function section(): Section
    {
        return $this->section;
    }

    /** @return array<class-string, class-string> */
    public static function provides(): array
    {
        return [ObservationJudge::class => SeenOnReturn::class];
    }

    /** @return list<ScanHit> */
    public function scan(string $typed): array
    {
        return $this->numbers->scan($typed);
    }

    /** @return list<Blocker> */
    public function blockers(Unit $unit, Gate $gate): array
    {
        return [];
    }

    /** @return list<Decision> */
    public function decisions(): array
    {
        return $this->open->decisions();
    }

    /** @return list<MoneyFigure> */
    public function moneyAtRisk(): array
    {
        return $this->open->money();
    }
}
