<?php

namespace App\Work;

use App\Work\Contracts\ConditionJudge;
use App\Work\Contracts\FitJudge;
use App\Work\Contracts\ObservationJudge;
use App\Work\Contracts\ProofJudge;
use App\Work\Contracts\ReadingJudge;
use App\Work\Contracts\ValuesJudge;
use App\Work\Judges\CountJudge;
use App\Work\Judges\DoneJudge;
use App\Work\Judges\FreeJudge;
use App\Work\Judges\MetalJudge;
use App\Work\Judges\OrientationJudge;
use App\Work\Judges\PatchJudge;
use App\Work\Judges\PhotoJudge;
use App\Work\Judges\ScanJudge;
use App\Work\Judges\SignJudge;
use App\Work\Judges\SkillJudge;
use App\Work\Judges\TimerJudge;
use App\Work\Judges\ToolJudge;

/** What can show that an operation is done, and who judges it. */
enum ProofKind: string
{
    case Done = 'done';
    case Count = 'count';
    case Reading = 'reading';
    case Fit = 'fit';
    case Torque = 'torque';
    case Air = 'air';
    case Metal = 'metal';
    case Orientation = 'orientation';
    case Photo = 'photo';
    case Scan = 'scan';
    case Timer = 'timer';
    case Condition = 'condition';
    case Sign = 'sign';
    case Observation = 'observation';
    case Tool = 'tool';
    case Patch = 'patch';
    case Skilled = 'skilled';
    case Values = 'values';
    case Free = 'free';

    private const JUDGES = [
        'done' => DoneJudge::class,
        'count' => CountJudge::class,
        'reading' => ReadingJudge::class,
        'torque' => ReadingJudge::class,
        'air' => ReadingJudge::class,
        'values' => ValuesJudge::class,
        'metal' => MetalJudge::class,
        'free' => FreeJudge::class,
        'fit' => FitJudge::class,
        'orientation' => OrientationJudge::class,
        'photo' => PhotoJudge::class,
        'scan' => ScanJudge::class,
        'timer' => TimerJudge::class,
        'condition' => ConditionJudge::class,
        'sign' => SignJudge::class,
        'observation' => ObservationJudge::class,
        'tool' => ToolJudge::class,
        'patch' => PatchJudge::class,
        'skilled' => SkillJudge::class,
    ];

    /** @return class-string<ProofJudge> */
    public function judge(): string
    {
        return self::JUDGES[$this->value];
    }

    /** Whether what was proven can stop being so by itself: a gauge out of date, a dyno run that failed. */
    public function mayLapse(): bool
    {
        return match ($this) {
            self::Reading, self::Torque, self::Air, self::Values, self::Fit => true,
            default => false,
        };
    }
}
