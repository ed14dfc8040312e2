<?php

declare(strict_types=1);

namespace Yard\Core\Fasteners;

use Yard\Core\Calculator;
use Yard\Core\Input;

/**
 * Preload and tightening torque from thread and grade: T = k F d, F = preloadFraction x proof load.
 * Strengths: ISO 898-1 and SAE J429. The rule T = kFd: Shigley's Mechanical Engineering Design, ch. 8.
 */
final class FastenerTorque implements Calculator
{
    private const MPA_PER_KSI = 6.894757293168361;

    /** class => list of [largest diameter mm, proof stress MPa] (ISO 898-1) */
    private const METRIC = [
        '8.8' => [[16.0, 580.0], [39.0, 600.0]],
        '10.9' => [[39.0, 830.0]],
        '12.9' => [[39.0, 970.0]],
    ];

    /** grade => list of [largest diameter in, proof stress ksi] (SAE J429) */
    private const SAE = [
        'SAE 2' => [[0.75, 55.0], [1.5, 33.0]],
        'SAE 5' => [[1.0, 85.0], [1.5, 74.0]],
        'SAE 8' => [[1.5, 120.0]],
    ];

    public function calculate(Input $in): array
    {
        $thread = Thread::of($in->string('thread'), '/thread');
        $grade = $in->choice(
            'grade',
            array_map(strval(...), [...array_keys(self::METRIC), ...array_keys(self::SAE)]),
        );
        $k = $in->number('k', above: 0.0, max: 1.0);
        $fraction = $in->number('preloadFraction', above: 0.0, max: 1.0);

        $isMetricClass = isset(self::METRIC[$grade]);
        if ($isMetricClass !== $thread->metric) {
            throw $in
                ->at('grade')
                ->fail(
                    'grade-thread',
                    $thread->metric
                        ? "\"$grade\" is a grade of inch bolts; a metric thread takes 8.8, 10.9 or 12.9."
                        : "\"$grade\" is a class of metric bolts; an inch thread takes SAE 2, SAE 5 or SAE 8.",
                );
        }
        $diameter = $thread->metric ? $thread->diameterMm : $thread->diameterMm / 25.4;
        $proof = null;
        foreach ($isMetricClass ? self::METRIC[$grade] : self::SAE[$grade] as [$largest, $stress]) {
            $proof ??= $diameter <= $largest ? $stress : null;
        }
        if ($proof === null) {
            throw $in->at('thread')->fail('range', "The standard gives no proof stress for $grade in this size.");
        }
        $proofMpa = $isMetricClass ? $proof : $proof * self::MPA_PER_KSI;
        $proofLoad = $proofMpa * $thread->stressAreaMm2();
        $preload = $fraction * $proofLoad;

        return [
            'stressArea_mm2' => $thread->stressAreaMm2(),
            'proofStress_mpa' => $proofMpa,
            'proofLoad_n' => $proofLoad,
            'preload_n' => $preload,
            'torque_nm' => ($k * $preload * $thread->diameterMm) / 1000.0,
            'diameter_mm' => $thread->diameterMm,
            'pitch_mm' => $thread->pitchMm,
        ];
    }
}
