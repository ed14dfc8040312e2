<?php

namespace App\Stations\Assembly\Queries;

use App\Shop\Models\Gauge;
use App\Stations\Assembly\Models\Measurement;
use App\Stations\Assembly\Models\PackFit;
use App\Stations\Assembly\Models\SignOff;
use App\Yard\Models\Build;
use Illuminate\Database\Eloquent\Collection;

/** What the bench has written of one build, read once for all who look at it. */
final readonly class AssemblyRecord
{
    /**
     * @param  array<string, array<string, list<Measurement>>>  $readings by kind and place, in the order they were
     *     taken
     * @param  Collection<string, PackFit>  $fits  by place
     * @param  Collection<int, Gauge>  $gauges  by id
     * @param  Collection<int, SignOff>  $signOffs  in the order they were given
     */
    private function __construct(
        public array $readings,
        public Collection $fits,
        public Collection $gauges,
        public Collection $signOffs,
    ) {
    }

    public static function of(Build $build): self
    {
        $readings = [];
        foreach (self::counting($build) as $m) {
            $readings[$m->kind][$m->code][] = $m;
        }

        return new self(
            $readings,
            PackFit::query()->where('build_id', $build->id)->whereNull('undone_at')->get()->keyBy('pack'),
            Gauge::query()->orderBy('id')->get()->keyBy('id'),
            SignOff::query()->where('build_id', $build->id)->orderBy('id')->get(),
        );
    }

    /** @return array<string, float> what was read last at the places of a kind, each in its own unit */
    public function latest(string $kind): array
    {
        return array_map(
            fn (array $taken): float => (float) $taken[count($taken) - 1]->value,
            array_filter($this->readings[$kind] ?? []),
        );
    }

    public function gaugeOf(Measurement $measurement): ?Gauge
    {
        return $measurement->gauge_id === null ? null : $this->gauges->get($measurement->gauge_id);
    }

    /** @return Collection<int, Measurement> those that were not undone */
    private static function counting(Build $build): Collection
    {
        return Measurement::query()->where('build_id', $build->id)->whereNull('undone_at')->orderBy('id')->get();
    }
}
