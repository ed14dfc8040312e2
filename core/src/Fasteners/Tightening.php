<?php

declare(strict_types=1);

namespace Yard\Core\Fasteners;

use Yard\Core\BadInput;

/**
 * Preload and tightening torque from thread and grade: T = k F d, F = preloadFraction x proof load.
 * Strengths: ISO 898-1 and SAE J429. The rule T = kFd: Shigley's Mechanical Engineering Design, ch. 8.
 */
final readonly class Tightening
{
    private const MPA_PER_KSI = 6.894757293168361;

    private const MM_PER_IN = 25.4;

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

    /** class => list of [largest diameter mm, tensile strength MPa] (ISO 898-1) */
    private const METRIC_TENSILE = [
        '8.8' => [[16.0, 800.0], [39.0, 830.0]],
        '10.9' => [[39.0, 1040.0]],
        '12.9' => [[39.0, 1220.0]],
    ];

    /** grade => list of [largest diameter in, tensile strength ksi] (SAE J429) */
    private const SAE_TENSILE = [
        'SAE 2' => [[0.75, 74.0], [1.5, 60.0]],
        'SAE 5' => [[1.0, 120.0], [1.5, 105.0]],
        'SAE 8' => [[1.5, 150.0]],
    ];

    public float $proofLoadN;

    public float $preloadN;

    public float $torqueNm;

    private function __construct(public Thread $thread, public float $proofMpa, float $k, float $preloadFraction)
    {
        $this->proofLoadN = $proofMpa * $thread->stressAreaMm2();
        $this->preloadN = $preloadFraction * $this->proofLoadN;
        $this->torqueNm = ($k * $this->preloadN * $thread->diameterMm) / 1000.0;
    }

    /**
     * @param  float  $k  nut factor
     * @param  float  $preloadFraction  of the proof load
     *
     * @throws BadInput where the grade is not one of this kind of thread, or has no proof stress in its size
     */
    public static function of(Thread $thread, string $grade, float $k, float $preloadFraction): self
    {
        if (isset(self::METRIC[$grade]) !== $thread->metric) {
            throw new BadInput(
                'grade-thread',
                $thread->metric
                    ? "\"$grade\" is a grade of inch bolts; a metric thread takes 8.8, 10.9 or 12.9."
                    : "\"$grade\" is a class of metric bolts; an inch thread takes SAE 2, SAE 5 or SAE 8.",
                '/grade',
            );
        }
        $proof = $thread->metric
            ? self::upTo(self::METRIC[$grade], $thread->diameterMm)
            : self::upTo(self::SAE[$grade], $thread->diameterMm / self::MM_PER_IN);
        if ($proof === null) {
            throw new BadInput('range', "The standard gives no proof stress for $grade in this size.", '/thread');
        }

        return new self($thread, $thread->metric ? $proof : $proof * self::MPA_PER_KSI, $k, $preloadFraction);
    }

    /** Smallest tensile strength the standard asks of a bolt, in MPa. */
    public static function tensileMpa(Thread $thread, string $grade): float
    {
        return $thread->metric
            ? self::upTo(self::METRIC_TENSILE[$grade] ?? [], $thread->diameterMm) ?? 0.0
            : (self::upTo(self::SAE_TENSILE[$grade] ?? [], $thread->diameterMm / self::MM_PER_IN) ?? 0.0) *
                self::MPA_PER_KSI;
    }

    /** @return list<string> */
    public static function grades(): array
    {
        return array_map(strval(...), [...array_keys(self::METRIC), ...array_keys(self::SAE)]);
    }

    /** @param  list<array{float, float}>  $steps  largest diameter, proof stress; the smallest first */
    private static function upTo(array $steps, float $diameter): ?float
    {
        foreach ($steps as [$largest, $stress]) {
            if ($diameter <= $largest) {
                return $stress;
            }
        }

        return null;
    }
}
