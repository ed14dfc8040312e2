<?php

namespace App\Stations\Assembly\Queries;

use App\Catalog\Models\Family;
use App\Kernel\Refusal;
use App\Kernel\TypedQuantity;
use App\Stations\Assembly\Models\PackFit;
use App\Stock\Actions\IssueParts;
use App\Stock\Models\HeldPart;
use App\Yard\Models\Build;
use App\Yard\Models\Unit;
use App\Yard\StationName;
use Illuminate\Database\Eloquent\Collection;
use Yard\Core\BadInput;
use Yard\Core\Fit\Bin;
use Yard\Core\Fit\StackUp;

/** One pack of all builds at the bench, sharing what is on the shelf; and what one more piece would bring. */
final class BinPlan
{
    /** Builds in one plan. */
    private const BUILDS = 24;

    /** Sizes for which one more piece is weighed. */
    private const SIZES = 16;

    /** Share of the usual work a plan on a screen may take. */
    private const EFFORT = 0.2;

    /**
     * @param  array<string, string>  $depths  as measured, by core tag; the rest is planned at the usual depth
     * @return array<string, mixed>
     */
    public function of(string $family, string $pack, array $depths): array
    {
        $id = Family::query()->where('code', $family)->value('id') ??
            throw new Refusal("There is no family $family.", 404);
        $builds = $this->builds((int) $id, $pack);
        $names = [];
        $rows = [];
        $stacks = [];
        $parts = array_values(array_unique(array_merge([], ...array_map(
            fn (Build $b): array => self::parts(self::place($b, $pack)),
            $builds,
        ))));
        $ids = array_map(fn (Build $b): int => $b->id, $builds);
        $stock = IssueParts::free($parts, $ids) + array_fill_keys($parts, 0);
        $kept = HeldPart::query()->whereIn('build_id', $ids)->where('place', $pack)->whereNull('released_at')->get();
        $kept = $kept->pluck('build_id')->flip();
        foreach ($builds as $build) {
            $place = self::place($build, $pack);
            $tag = $build->unit->core_tag;
            $depth = self::depth($place, $depths[$tag] ?? '', $tag);
            $stacks[] = FitProposal::stack([
                'depth' => $depth,
                'fixed' => $place['fixed'],
                'slots' => $place['slots'],
                'window' => $place['window'],
                'target' => (float) $place['target'],
            ]);
            $head = ['coreTag' => $tag, 'serial' => $build->serial, 'kept' => isset($kept[$build->id])];
            $rows[] = $head + ['depth' => $depth, 'measured' => isset($depths[$tag])];
            $names += self::names($place);
        }
        try {
            return self::shared($stacks, $stock, $rows, $names) + [
                'family' => $family,
                'pack' => $pack,
                'unit' => $builds === [] ? '' : self::place($builds[0], $pack)['unit'],
            ];
        } catch (BadInput $e) {
            throw new Refusal("The bin cannot be shared out: {$e->getMessage()}", 422);
        }
    }

    /**
     * @param  list<StackUp>  $stacks
     * @param  array<string, int>  $stock
     * @param  list<array<string, mixed>>  $rows
     * @param  array<string, string>  $names  of parts by number
     * @return array<string, mixed>
     */
    private static function shared(array $stacks, array $stock, array $rows, array $names): array
    {
        if ($stacks === []) {
            return ['builds' => [], 'assigned' => 0, 'optimal' => true, 'most' => 0, 'oneMore' => []];
        }
        $bin = Bin::share($stacks, $stock, self::EFFORT);
        $given = [];
        foreach ($rows as $n => $row) {
            $of = $bin->of($n);
            $given[] = $row + [
                'clearance' => $of['clearance'] ?? null,
                'picks' => array_map(
                    fn (array $p): array => $p + ['name' => $names[$p['part']] ?? $p['part']],
                    $of['picks'] ?? [],
                ),
            ];
        }
        asort($stock); // what is scarcest is weighed first
        $gains = $bin->assigned() === count($stacks)
            ? []
            : $bin->oneMore(array_map(strval(...), array_keys(array_slice($stock, 0, self::SIZES, true))));
        arsort($gains);

        return [
            'builds' => $given,
            'assigned' => $bin->assigned(),
            'optimal' => $bin->optimal,
            'most' => $bin->bound()['assigned'],
            'oneMore' => array_map(
                fn (string $part, int $gain): array => [
                    'part' => $part,
                    'name' => $names[$part] ?? $part,
                    'shelf' => $stock[$part] ?? 0,
                    'builds' => $gain,
                ],
                array_map(strval(...), array_keys($gains)),
                $gains,
            ),
        ];
    }

    /** @return list<Build> at the bench, the oldest first, whose pack is not chosen yet */
    private function builds(int $family, string $pack): array
    {
        $units = Unit::query()
            ->where('family_id', $family)
            ->where('station', StationName::Assembly->value)
            ->whereNotNull('current_build_id')
            ->orderBy('id')
            ->limit(self::BUILDS * 2)
            ->get();
        /** @var Collection<int, Build> $builds */
        $builds = Build::query()
            ->whereIn('id', $units->pluck('current_build_id'))
            ->whereNotNull('spec')
            ->get()
            ->keyBy('id');
        $fitted = PackFit::query()
            ->whereIn('build_id', $builds->keys())
            ->where('pack', $pack)
            ->whereNull('undone_at')
            ->pluck('build_id')
            ->flip();
        $open = [];
        foreach ($units as $unit) {
            $build = $builds->get($unit->current_build_id);
            if ($build !== null && ! isset($fitted[$build->id]) && self::has($build, $pack)) {
                $open[] = $build->setRelation('unit', $unit);
            }
        }

        return array_slice($open, 0, self::BUILDS);
    }

    private static function has(Build $build, string $pack): bool
    {
        return in_array($pack, array_column($build->frozen()['packs'], 'code'), true);
    }

    /** @return array<string, mixed> */
    private static function place(Build $build, string $pack): array
    {
        return array_column($build->frozen()['packs'], null, 'code')[$pack];
    }

    /** @param  array<string, mixed>  $place */
    private static function depth(array $place, string $typed, string $tag): float
    {
        return $typed === ''
            ? (float) $place['depth']['nominal']
            : TypedQuantity::parse($typed, 'length', $place['unit'], "/depths/$tag")->in($place['unit']);
    }

    /**
     * @param  array<string, mixed>  $place
     * @return list<string>
     */
    private static function parts(array $place): array
    {
        return array_keys(self::names($place));
    }

    /**
     * @param  array<string, mixed>  $place
     * @return array<string, string> names by number
     */
    private static function names(array $place): array
    {
        return array_merge([], ...array_map(
            fn (array $s): array => array_column($s['options'], 'name', 'part'),
            $place['slots'],
        ));
    }
}
