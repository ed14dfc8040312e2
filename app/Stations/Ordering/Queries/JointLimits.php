<?php

namespace App\Stations\Ordering\Queries;

use App\Catalog\Read\MetalPairs;
use Yard\Core\Fasteners\JointLimit;
use Yard\Core\Fasteners\Thread;

/** Bolts with what they and their holes take, where both are known: which gives first, and the torque at which. */
final class JointLimits
{
    /**
     * @param  list<array<string, mixed>>  $fasteners
     * @param  float  $k  nut factor
     * @return list<array<string, mixed>>
     */
    public static function on(array $fasteners, float $k): array
    {
        $metals = MetalPairs::known();

        return array_map(function (array $f) use ($metals, $k): array {
            $shear = $metals->shearOf($f['into']);
            // The standards give strengths of steel bolts only: what another metal takes is the maker's word.
            if (($f['metal'] ?? 'steel') !== 'steel' || ! isset($f['engagement_mm']) || $shear === null) {
                return $f;
            }
            $limit = JointLimit::of(Thread::of($f['thread']), $f['grade'], (float) $f['engagement_mm'], $shear, $k);

            return $f + ['givesFirst' => $limit->givesFirst, 'limitNm' => round($limit->torqueNm, 2)];
        }, $fasteners);
    }
}
