<?php

namespace App\Stations\Identification;

use App\Shop\Role;
use App\Stations\Identification\Actions\AnswerClue;
use App\Stations\Identification\Http\IdentificationController;
use App\Stations\Identification\Http\TrainerController;
use App\Stations\Identification\Queries\ForeignPartsSeen;
use App\Stations\Identification\Queries\IdentificationSection;
use App\Yard\Contracts\Blocker;
use App\Yard\Contracts\Clues;
use App\Yard\Contracts\ForeignParts;
use App\Yard\Contracts\ScanHit;
use App\Yard\Contracts\Section;
use App\Yard\Contracts\Station;
use App\Yard\Gate;
use App\Yard\Http\Write;
use App\Yard\Models\Unit;
use Illuminate\Support\Facades\Route;

/** Which variant a core is, by evidence. */
final class IdentificationStation implements Station
{
    public function __construct(private readonly IdentificationSection $section)
    {
    }

    public static function routes(): void
    {
        Route::get('identification/tag', [IdentificationController::class, 'tag']);
        Route::get('identification/trainer', [TrainerController::class, 'results']);
        $identify = 'identification.identify';
        Write::with($identify)->post('units/{number}/identification/clues', [
            IdentificationController::class,
            'answer',
        ]);
        Write::with($identify)->post('units/{number}/identification', [IdentificationController::class, 'decide']);
        $train = 'identification.train';
        Write::with($train)->post('identification/trainer', [TrainerController::class, 'deal']);
        Write::with($train)->post('identification/trainer/{round}/questions', [TrainerController::class, 'ask']);
        Write::with($train)->post('identification/trainer/{round}/answer', [TrainerController::class, 'answer']);
    }

    /** @return array<string, list<Role>> */
    public static function abilities(): array
    {
        return [
            'identification.identify' => [Role::Manager, Role::Receiver, Role::Teardown],
            'identification.train' => Role::hands(),
        ];
    }

    public function section(): Section
    {
        return $this->section;
    }

    /** @return array<class-string, class-string> */
    public static function provides(): array
    {
        return [ForeignParts::class => ForeignPartsSeen::class, Clues::class => AnswerClue::class];
    }

    /** @return list<ScanHit> */
    public function scan(string $typed): array
    {
        return [];
    }

    /** @return list<Blocker> */
    public function blockers(Unit $unit, Gate $gate): array
    {
        return [];
    }
}
