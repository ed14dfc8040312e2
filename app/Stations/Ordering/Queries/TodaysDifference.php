<?php

namespace App\Stations\Ordering\Queries;

use App\Yard\Models\Build;
use App\Yard\Models\Unit;
use Illuminate\Support\Facades\Cache;
use Illuminate\Support\Facades\DB;

/** What a frozen order would be today. It is reckoned anew, so it is asked for by itself and not with the card. */
final class TodaysDifference
{
    /** How long an answer about today's catalog is kept, seconds; a changed catalog asks anew at once. */
    private const KEEP_SECONDS = 86_400;

    public function __construct(private readonly Specification $resolve)
    {
    }

    /** @return list<string> sentences; none where nothing is frozen yet */
    public function of(Unit $unit): array
    {
        $build = $unit->currentBuild;

        return $build?->spec === null
            ? []
            : Cache::remember(
                "differs:$build->id:$build->version:{$this->catalogNow($unit->knownFamily()->id)}",
                self::KEEP_SECONDS,
                fn () => $this->differs($build, $unit),
            );
    }

    /** What today's catalog and house rules are, in a word that changes with every row an order depends on. */
    private function catalogNow(int $family): string
    {
        $stamp = DB::selectOne(
            'SELECT (SELECT CONCAT(COUNT(*), MAX(ROW_START)) FROM options WHERE family_id = ?) AS o, (SELECT '
                .'CONCAT(COUNT(*), MAX(ROW_START)) FROM packages WHERE family_id = ?) AS p, (SELECT MAX(ROW_START) '
                .'FROM variants WHERE family_id = ?) AS v, (SELECT ROW_START FROM families WHERE id = ?) AS f, '
                .'(SELECT MAX(ROW_START) FROM vehicles) AS w, (SELECT GROUP_CONCAT(choice ORDER BY id) FROM '
                .'house_rules) AS h',
            [$family, $family, $family, $family],
        );

        return hash('xxh128', implode("\0", (array) $stamp));
    }

    /** @return list<string> what the same order would be today, in sentences; the frozen specification stays */
    private function differs(Build $build, Unit $unit): array
    {
        $frozen = $build->frozen();
        try {
            $today = $this->resolve->ofBuild($build->setRelation('unit', $unit));
        } catch (\App\Kernel\Refusal $e) {
            return ['The order can no longer be written like this: '.$e->getMessage()];
        }
        $names = fn (array $spec) => array_column($spec['options'], 'name', 'code');
        $out = [];
        foreach (
            [
                ['would come in today', array_diff_key($names($today), $names($frozen))],
                ['is no longer in', array_diff_key($names($frozen), $names($today))],
            ] as [$what, $options]
        ) {
            foreach ($options as $name) {
                $out[] = "\"$name\" $what.";
            }
        }
        $change = round($today['price'] - $frozen['price'], 2);
        if ($change !== 0.0) {
            $out[] =
                'It would cost '.number_format(abs($change), 2).($change > 0 ? ' more' : ' less').' today.';
        }
        if ($today['status'] !== 'ok') {
            $out[] = 'Today it would not hold together: '.$today['conflicts'][0]['explain'];
        }

        return $out;
    }
}
