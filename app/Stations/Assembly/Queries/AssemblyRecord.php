<?php

namespace App\Stations\Assembly\Queries;

use App\Shop\Models\Gauge;
use App\Stations\Assembly\Models\Measurement;
use App\Stations\Assembly\Models\PackFit;
use App\Work\Models\StepMark;
use App\Yard\Models\Build;
use Illuminate\Database\Eloquent\Collection;

/** What the bench has written of one build, read once for all who look at it. */
final readonly class AssemblyRecord
{
    /**
     * @param  Collection<string, StepMark>  $marks  by step
     * @param  array<string, array<string, list<Measurement>>>  $readings by kind and place, in the order they were
     *     taken
     * @param  Collection<string, PackFit>  $fits  by place
     * @param  Collection<int, Gauge>  $gauges  by id
     */
    private function __construct(
        public Collection $marks,
        public array $readings,
        public Collection $fits,
        public Collection $gauges,
    ) {
    }

    public static function of(Build $build): self
    {
        $readings = [];
        foreach (Measurement::query()->where('build_id', $build->id)->orderBy('id')->get() as $m) {
            $readings[$m->kind][$m->code][] = $m;
        }

        return new self(
            StepMark::query()
                ->where('unit_id', $build->unit_id)
                ->where('generation', $build->generation)
                ->where('phase', 'assembly')
                ->get()
                ->keyBy('step'),
            $readings,
            PackFit::query()->where('build_id', $build->id)->whereNull('undone_at')->get()->keyBy('pack'),
            Gauge::query()->orderBy('id')->get()->keyBy('id'),
        );
    }
}
