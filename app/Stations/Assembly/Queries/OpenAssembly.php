<?php

namespace App\Stations\Assembly\Queries;

use App\Shop\HouseRules;
use App\Work\Bench;
use App\Work\Queries\BenchWork;
use App\Work\Queries\OpenWork;
use App\Yard\Contracts\Blocker;
use App\Yard\Gate;
use App\Yard\Models\Build;
use App\Yard\Models\Unit;

/** What still bars the signature of the builder. */
final class OpenAssembly
{
    public function __construct(
        private readonly SubAssemblies $subs,
        private readonly PickList $picks,
        private readonly HouseRules $rules,
    ) {
    }

    /** @return list<Blocker> */
    public function of(Unit $unit, ?BenchWork $work = null): array
    {
        $build = $unit->currentBuild;
        if ($build === null || $build->spec === null) {
            return [];
        }
        $work ??= BenchWork::of($unit, Bench::Assembly);

        return [...OpenWork::at($work, Gate::SignOff), ...$this->unsigned($work), ...$this->unpicked($build)];
    }

    /** @return list<Blocker> */
    private function unsigned(BenchWork $work): array
    {
        $open = array_filter($this->subs->of($work), fn (array $s) => $s['by'] === null && $s['left'] === []);

        return array_values(array_map(
            fn (array $s) => self::bar($work->unit, "sub:{$s['name']}", "\"{$s['name']}\" is not signed for."),
            $open,
        ));
    }

    /** @return list<Blocker> */
    private function unpicked(Build $build): array
    {
        $lines = $this->rules->choice('unpicked-lines') === 'bar' ? $this->picks->of($build)['lines'] : [];
        $open = array_filter($lines, fn (array $l) => $l['left'] > 0);

        return array_values(array_map(
            fn (array $l) => self::bar(
                $build->unit,
                "pick:{$l['part']}",
                "{$l['left']} of {$l['count']} \"{$l['name']}\" are not picked from a lot.",
            ),
            $open,
        ));
    }

    private static function bar(Unit $unit, string $code, string $sentence): Blocker
    {
        return new Blocker(Gate::SignOff, $code, $sentence, "/units/$unit->core_tag/assembly");
    }
}
