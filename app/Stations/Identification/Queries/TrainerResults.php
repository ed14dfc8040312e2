<?php

namespace App\Stations\Identification\Queries;

use Illuminate\Support\Facades\DB;
use Yard\Core\Life\FailureRate;

/** How well people identify past cores: share right with its exact interval, quality of their questions, effort. */
final class TrainerResults
{
    /** @return list<array<string, mixed>> by person, the best first */
    public static function all(): array
    {
        $rows = DB::table('trainer_rounds')
            ->join('people', 'people.id', '=', 'trainer_rounds.person_id')
            ->whereNotNull('ended_at')
            ->groupBy('people.id', 'people.name')
            ->selectRaw(
                'people.name, COUNT(*) AS rounds, SUM(right_answer) AS right_answers, AVG(question_score) AS score, '.
                    'SUM(effort) AS effort, SUM(engine_effort) AS engine_effort',
            )
            ->orderByRaw('SUM(right_answer) / COUNT(*) DESC, AVG(question_score) DESC')
            ->get();

        return array_values($rows->map(self::row(...))->all());
    }

    /** @return array<string, mixed> */
    private static function row(\stdClass $r): array
    {
        $interval = FailureRate::ofUnits((int) $r->right_answers, (int) $r->rounds);

        return [
            'name' => $r->name,
            'rounds' => (int) $r->rounds,
            'right' => (int) $r->right_answers,
            'questionScore' => (float) $r->score,
            'effortRatio' => $r->engine_effort > 0 ? (float) $r->effort / (float) $r->engine_effort : null,
            'lower' => $interval->lower,
            'upper' => $interval->upper,
        ];
    }
}
