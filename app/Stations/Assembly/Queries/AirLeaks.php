<?php

namespace App\Stations\Assembly\Queries;

use App\Stations\Assembly\Models\Measurement;
use App\Work\ReadingKind;
use App\Yard\Models\Build;
use Yard\Core\BadInput;
use Yard\Core\Hydraulics\AirLeak;
use Yard\Core\Quantity\Quantity;
use Yard\Core\Quantity\Unit as MeasureUnit;

/** An air check by numbers: the hole a circuit leaks through, less what is meant to bleed, beside good builds. */
final class AirLeaks
{
    private const SHOP_C = 20.0;

    private const AMBIENT_KPA = 101.325;

    /** Beyond so many times the spread of the middle half above it, a build is unlike the good ones (Tukey, 1977). */
    private const FENCE = 1.5;

    /** @return list<array<string, mixed>> every check that was read, in the order of the specification */
    public function of(Build $build): array
    {
        $read = Measurement::query()
            ->where('build_id', $build->id)
            ->where('kind', ReadingKind::AirCheck->value)
            ->whereNull('undone_at')
            ->orderBy('id')
            ->get()
            ->keyBy('code');
        $leaks = [];
        foreach (ReadingKind::AirCheck->places($build->frozen()) as $place) {
            if (isset($read[$place['code']])) {
                $head = ['code' => $place['code'], 'name' => $place['name'], 'bleeds' => $place['bleed_mm'] ?? []];
                $leaks[] = $head + $this->leak($build, $place, (float) $read[$place['code']]->value);
            }
        }

        return $leaks;
    }

    /**
     * @param  array<string, mixed>  $place
     * @return array<string, mixed>
     */
    private function leak(Build $build, array $place, float $loss): array
    {
        $nothing = ['mm' => null, 'good' => null, 'unlike' => false];
        if (! isset($place['volume_l'], $place['start'], $place['seconds'])) {
            return $nothing + ['why' => 'The catalog does not say how much air the circuit holds.'];
        }
        try {
            $mm = self::hole($place, $loss);
        } catch (BadInput $e) {
            return $nothing + ['why' => $e->getMessage()];
        }
        $good = $this->good($build, $place);

        return [
            'mm' => $mm,
            'good' => $good,
            'unlike' => $good !== null && $mm > $good['fence'],
            'why' => $good === null ? 'Fewer than '.GoodBuilds::LEAST.' good builds to hold it against.' : null,
        ];
    }

    /**
     * @param  array<string, mixed>  $place
     * @param  float  $loss  in the unit of the place
     */
    private static function hole(array $place, float $loss): float
    {
        $gauge = Quantity::parse($place['start'], 'pressure', $place['unit'])->si() / 1000.0;
        $lost = MeasureUnit::of($place['unit'])->toSi($loss) / 1000.0;
        $leak = AirLeak::ofDecay(
            (float) $place['volume_l'],
            self::AMBIENT_KPA + $gauge,
            self::AMBIENT_KPA + $gauge - $lost,
            (float) $place['seconds'],
            self::SHOP_C,
        );

        return $leak->netDiameterMm(...array_map(floatval(...), $place['bleed_mm'] ?? []));
    }

    /**
     * @param  array<string, mixed>  $place
     * @return array{n: int, median: float, most: float, fence: float}|null
     */
    private function good(Build $build, array $place): ?array
    {
        $losses = GoodBuilds::readings($build, ReadingKind::AirCheck, $place['code']);
        if ($losses === null) {
            return null;
        }
        $holes = $losses->map(fn (float $loss): float => self::hole($place, $loss))->sort()->values();
        $quarter = fn (float $share): float => (float) $holes[(int) round($share * ($holes->count() - 1))];

        return [
            'n' => $holes->count(),
            'median' => (float) $holes->median(),
            'most' => (float) $holes->last(),
            'fence' => $quarter(0.75) + self::FENCE * ($quarter(0.75) - $quarter(0.25)),
        ];
    }
}
