<?php

namespace App\Stations\Assembly\Queries;

use App\Kernel\Refusal;
use App\Kernel\TypedQuantity;
use App\Shop\HouseRules;
use App\Stations\Assembly\Models\PackFit;
use App\Stock\Actions\IssueParts;
use App\Yard\Models\Build;
use Yard\Core\Decimal;
use Yard\Core\Fit\FixedPart;
use Yard\Core\Fit\SelectivePart;
use Yard\Core\Fit\Slot;
use Yard\Core\Fit\StackUp;
use Yard\Core\Fit\Window;

/** Which selective parts from the shelf bring a pack or an end play into its window: fit.stack on today's stock. */
final class FitProposal
{
    public function __construct(private readonly HouseRules $rules)
    {
    }

    /**
     * @param  string  $place  code of a pack, or of an end play
     * @param  string  $reading  pack: groove depth; end play: play measured with the washer fitted for trial
     * @param  ?string  $trialWasher  end play: thickness of the washer fitted for trial
     * @return array<string, mixed> unit, depth, window, result of fit.stack, and the stack for drawing
     */
    public function propose(Build $build, string $place, string $reading, ?string $trialWasher = null): array
    {
        foreach ($build->frozen()['packs'] as $pack) {
            if ($pack['code'] === $place) {
                return $this->pack($build, $pack, $reading);
            }
        }
        foreach ($build->frozen()['endPlays'] as $play) {
            if ($play['code'] === $place) {
                return $this->endPlay($build, $play, $reading, $trialWasher);
            }
        }
        throw new Refusal("There is no pack or end play \"$place\" in this build.", 404);
    }

    /**
     * @param  array<string, mixed>  $pack
     * @return array<string, mixed>
     */
    private function pack(Build $build, array $pack, string $reading): array
    {
        $depth = TypedQuantity::parse($reading, 'length', $pack['unit'], '/reading');
        $value = $depth->in($pack['unit']);
        [$nominal, $tolerance] = [$pack['depth']['nominal'], $pack['depth']['tolerance']];
        if (abs($value - $nominal) > $this->rules->number('depth-doubt') * $tolerance) {
            throw Refusal::at(
                '/reading',
                "A depth of $value {$pack['unit']} cannot be right here: the drum has about $nominal. Measure again.",
            );
        }

        return self::shown($pack, $value, $depth->typed, $pack['fixed']) +
            $this->solve($build, $pack, $value, $pack['fixed'], $pack['slots']);
    }

    /**
     * @param  array<string, mixed>  $play
     * @return array<string, mixed>
     */
    private function endPlay(Build $build, array $play, string $reading, ?string $trialWasher): array
    {
        $in = fn (string $typed, string $at): float => TypedQuantity::parse($typed, 'length', $play['unit'], $at)
            ->in($play['unit']);
        $measured = $in($reading, '/reading');
        $trial = $trialWasher ?? '';
        $fitted = $trial === '' ? (float) $play['fitted'] : $in($trial, '/trialWasher');
        $space = round($measured + $fitted, 6);
        $washer = ['name' => 'washer', 'pick' => 1, 'options' => $play['options']];

        return self::shown($play, $space, $reading, []) +
            [
                'measured' => $measured,
                'fitted' => $fitted,
                'needed' => round($space - $play['target'], 6),
            ] +
            $this->solve($build, $play, $space, [], [$washer]);
    }

    /**
     * @param  array<string, mixed>  $place
     * @param  list<array<string, mixed>>  $fixed
     * @return array<string, mixed>
     */
    private static function shown(array $place, float $depth, string $typed, array $fixed): array
    {
        return [
            'place' => $place['code'],
            'name' => $place['name'],
            'unit' => $place['unit'],
            'depth' => $depth,
            'typed' => $typed,
            'fixed' => $fixed,
            'window' => $place['window'],
            'target' => $place['target'],
            'source' => $place['source'],
            'confidence' => $place['confidence'],
        ];
    }

    /**
     * @param  array<string, mixed>  $place
     * @param  list<array<string, mixed>>  $fixed
     * @param  list<array<string, mixed>>  $slots
     * @return array<string, mixed>
     */
    private function solve(Build $build, array $place, float $depth, array $fixed, array $slots): array
    {
        $shelf = self::shelf($build, $place['code'], $slots);
        $stocked = fn (array $o) => [
            'part' => $o['part'],
            'thickness' => $o['thickness'],
            'cost' => $o['cost'],
            'stock' => $shelf[$o['part']] ?? 0,
        ];
        $slots = array_map(
            fn (array $s) => [
                'name' => $s['name'],
                'pick' => $s['pick'],
                'options' => array_map($stocked, $s['options']),
            ],
            $slots,
        );
        $input = [
            'unit' => $place['unit'],
            'depth' => $depth,
            'fixed' => array_map(
                fn (array $f) => ['name' => $f['name'], 'thickness' => $f['thickness'], 'count' => $f['count']],
                $fixed,
            ),
            'slots' => $slots,
            'window' => $place['window'],
            'target' => $place['target'],
        ];

        return [
            'slots' => $slots,
            'result' => self::stack($input)->solve(),
            'working' => ['calculator' => 'fit.stack', 'input' => $input],
        ];
    }

    /**
     * What is on the shelf and kept for no other build; what this place holds already may stay.
     *
     * @param  list<array<string, mixed>>  $slots
     * @return array<string, int> by part
     */
    private static function shelf(Build $build, string $place, array $slots): array
    {
        $shelf = IssueParts::free(
            array_merge([], ...array_map(fn (array $s) => array_column($s['options'], 'part'), $slots)),
            [$build->id],
        );
        $held = PackFit::query()
            ->where('build_id', $build->id)
            ->where('pack', $place)
            ->whereNull('undone_at')
            ->with('picks.part')
            ->first();
        foreach ($held->picks ?? [] as $pick) {
            $shelf[$pick->part->number] = ($shelf[$pick->part->number] ?? 0) + $pick->count;
        }

        return $shelf;
    }

    /**
     * The stack of a place; options without a stock are counted elsewhere.
     *
     * @param  array{depth: float, fixed: list<array<string, mixed>>, slots: list<array<string, mixed>>,
     *     window: array{min: float, max: float}, target: float}  $in
     */
    public static function stack(array $in): StackUp
    {
        $part = fn (array $o) => SelectivePart::of(
            $o['part'],
            (float) $o['thickness'],
            $o['stock'] ?? null,
            (float) $o['cost'],
        );
        $slot = fn (array $s) => new Slot($s['name'], $s['pick'], array_values(array_map($part, $s['options'])));

        return new StackUp(
            Decimal::ofFloat($in['depth']),
            array_map(
                fn (array $f) => new FixedPart($f['name'], Decimal::ofFloat((float) $f['thickness']), $f['count']),
                $in['fixed'],
            ),
            array_map($slot, $in['slots']),
            Window::of((float) $in['window']['min'], (float) $in['window']['max'], (float) $in['target']),
        );
    }
}
