<?php

declare(strict_types=1);

namespace Yard\Core\Tests;

use Yard\Core\Drivetrain\ApplyChart;
use Yard\Core\Dyno\CellReadings;
use Yard\Core\Dyno\Commands;
use Yard\Core\Dyno\JudgeTrace;
use Yard\Core\Dyno\Recording;
use Yard\Core\Dyno\SpecimenFile;
use Yard\Core\Dyno\TraceAnalysis;
use Yard\Core\Input;
use Yard\Rig\Once;
use Yard\Rig\Rig;

require_once dirname(__DIR__, 2).'/rig/classes.php';

/** A unit of the demo pack on the rig, its program run at once, and what the analysis makes of the recording. */
final class TestCell
{
    /** @var array<string, array<string, mixed>> */
    private static array $families = [];

    /** @return array<string, mixed> */
    public static function family(string $code): array
    {
        if (self::$families === []) {
            $pack = json_decode((string) file_get_contents(dirname(__DIR__, 2).'/database/demo/catalog.json'), true);
            self::$families = array_column($pack['families'], null, 'code');
        }

        return self::$families[$code];
    }

    /**
     * @param  float  $spread  by how much each pack's clearance may be off what is meant, as a share
     * @return array<string, mixed>
     */
    public static function specimen(string $code, int $seed, float $spread = 0.12): array
    {
        $family = self::family($code);
        $body = $family['body'];
        mt_srand($seed);
        $travel = $meant = [];
        foreach (array_keys($body['power']['capacities']) as $element) {
            $meant[$element] = $body['power']['capacities'][$element]['kind'] === 'band' ? 2.4 : 1.4;
            $travel[$element] = $meant[$element] * (1.0 + $spread * (2.0 * mt_rand() / mt_getrandmax() - 1.0));
        }
        $file = SpecimenFile::of(
            "T-$seed",
            $code,
            $family['train'],
            $body['power'],
            $body['control'] ?? null,
            $travel,
            $meant,
        );

        return json_decode((string) json_encode($file), true);
    }

    /** @return array<string, mixed> */
    public static function program(string $code): array
    {
        return self::family($code)['testPrograms'][0]['body'];
    }

    /**
     * @param  list<array{fault: string, where?: string, severity?: float}>  $faults
     * @return array{analysis: array<string, mixed>, readings: list<array<string, mixed>>, checks: list<array<string,
     *     mixed>>}
     */
    public static function run(string $code, array $faults, int $seed): array
    {
        $program = self::program($code);
        $channels = array_fill_keys(Rig::CHANNELS, []);
        $run = Once::run(self::specimen($code, $seed), $faults, $program['steps'], (float) $program['end'], $seed);
        foreach ($run as $row) {
            foreach (Rig::CHANNELS as $n => $channel) {
                $channels[$channel][] = $row[$n + 1];
            }
        }
        $ratios = ApplyChart::read(Input::of(self::family($code)['train']))->ratios();
        $recording = Recording::of((float) $program['rate_hz'], $channels);
        $commands = Commands::of($program['steps'], $recording->seconds());
        $analysis = (new TraceAnalysis($recording, $ratios, $commands))->report();
        $readings = CellReadings::of((float) $program['rate_hz'], $channels, $program['steps'], $ratios, $analysis);

        return [
            'analysis' => $analysis,
            'readings' => $readings,
            'checks' => [
                ...JudgeTrace::judge($analysis, $program['limits'], $commands->changes($ratios)),
                ...JudgeTrace::reference($readings, $program['reference'] ?? []),
            ],
        ];
    }
}
