<?php

namespace App\Stations\Dyno\Queries;

use App\Stations\Dyno\Models\Run;

/** What the reference unit of the cell showed before a unit ran in it: of the same program, number by number. */
final class ReferenceBeside
{
    /**
     * @return array{run: int, serial: string, at: string, verdict: string|null, readings: list<array{check: string,
     *     where: string, value: float}>}|null null where no reference unit ran in the cell before
     */
    public static function of(Run $run): ?array
    {
        $last = $run->purpose === 'unit'
            ? Run::references($run->cell)
                ->where('queued_at', '<=', $run->queued_at)
                ->orderByDesc('queued_at')
                ->orderByDesc('id')
                ->first()
            : null;

        return $last === null ? null : [
            'run' => $last->id,
            'serial' => $last->specimen,
            'at' => $last->queued_at->toIso8601ZuluString(),
            'verdict' => $last->verdict,
            'readings' => self::sameProgram($last, $run)
                ? self::readings($last->analysis['cell']['readings'] ?? [])
                : [],
        ];
    }

    /** A reference unit runs the beginning of its own program; of another family its numbers say nothing here. */
    private static function sameProgram(Run $reference, Run $run): bool
    {
        $begun = $reference->program['steps'];

        return $reference->program['ratios'] == $run->program['ratios'] &&
            array_slice($run->program['steps'], 0, count($begun)) == $begun;
    }

    /**
     * @param  list<array<string, mixed>>  $readings
     * @return list<array{check: string, where: string, value: float}>
     */
    private static function readings(array $readings): array
    {
        $out = [];
        foreach ($readings as ['check' => $check, 'where' => $where, 'value' => $value]) {
            if ($value !== null) {
                $out[] = ['check' => $check, 'where' => $where, 'value' => (float) $value];
            }
        }

        return $out;
    }
}
