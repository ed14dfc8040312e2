<?php

namespace App\Catalog\Read;

use App\Catalog\Models\Family;
use App\Shop\HouseRules;
use Yard\Core\Input;
use Yard\Core\Power\MemberTorque;
use Yard\Core\Power\Torsion;

/** Shafts, hubs and drums of a family: what each would take, and what the gear that asks most of it asks. */
final class StrengthRegister
{
    public function __construct(private readonly HouseRules $rules)
    {
    }

    /**
     * @param  float  $engine  in N.m
     * @param  float  $stall  torque ratio of the converter at stall
     * @param  float|null  $shock  the house's own where it is not said
     * @return array{shock: float, parts: list<array<string, mixed>>}
     */
    public function of(Family $family, float $engine, float $stall, ?float $shock): array
    {
        $chart = $family->chart();
        $shock ??= $this->rules->number('shock-factor');
        $parts = array_map(
            fn (array $part): array => self::row(
                $part,
                MemberTorque::worst($chart, $part['carries'], $engine, $stall, $shock),
            ),
            array_values($family->body['strength'] ?? []),
        );
        usort($parts, fn (array $a, array $b): int => ($a['margin'] ?? INF) <=> ($b['margin'] ?? INF));

        return ['shock' => $shock, 'parts' => $parts];
    }

    /**
     * @param  array<string, mixed>  $part
     * @return array<string, mixed>
     */
    private static function row(array $part, ?MemberTorque $worst): array
    {
        $torque = $worst->torque ?? 0.0;
        $shaft = Torsion::read(Input::of([
            'outer_mm' => $part['outer_mm'],
            'inner_mm' => $part['inner_mm'] ?? 0.0,
            'torque_nm' => $torque,
            'kt' => $part['kt'],
        ]));
        $holds = $shaft->torqueAt($part['shearYield_mpa']);
        $told = array_flip(['part', 'name', 'carries', 'material', 'source', 'confidence']);

        return array_intersect_key($part, $told) + [
            'gear' => $worst?->gear,
            'torqueNm' => $torque,
            'stressMpa' => $shaft->stress(),
            'holdsNm' => $holds,
            'margin' => $torque > 0.0 ? $holds / $torque : null,
            'claims' => $part['claims'] ?? [],
        ];
    }
}
