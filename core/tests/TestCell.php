<?php

declare(strict_types=1);

namespace Yard\Core\Tests;

use Yard\Core\Drivetrain\ApplyChart;
use Yard\Core\Dyno\BuiltHardware;
use Yard\Core\Dyno\CellReadings;
use Yard\Core\Dyno\Commands;
use Yard\Core\Dyno\JudgeTrace;
use Yard\Core\Dyno\Recording;
use Yard\Core\Dyno\SpecimenFile;
use Yard\Core\Dyno\TraceAnalysis;
use Yard\Core\Dyno\UnitProgram;
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
     * @param  string  $variant  none: the family's own hardware
     * @param  list<string>  $options  that change the hardware
     * @return array<string, mixed>
     */
    public static function specimen(
        string $code,
        int $seed,
        float $spread = 0.12,
        string $variant = '',
        array $options = [],
    ): array {
        $family = self::family($code);
        $body = $family['body'];
        $power = $variant === '' ? $body['power'] : self::hardware($code, $variant, $options);
        mt_srand($seed);
        $travel = $meant = [];
        foreach ($body['power']['capacities'] as $element => $as) {
            $meant[$element] = $as['kind'] === 'band' ? 2.4 : 1.4;
            $travel[$element] = $meant[$element] * (1.0 + $spread * (2.0 * mt_rand() / mt_getrandmax() - 1.0));
        }
        $file = SpecimenFile::of(
            "T-$seed",
            $code,
            $family['train'],
            $power,
            $body['control'] ?? null,
            $travel,
            $meant,
        );

        return json_decode((string) json_encode($file), true);
    }

    /**
     * @param  list<string>  $options
     * @return array<string, mixed> what stands in a unit of this variant with these options
     */
    public static function hardware(string $code, string $variant, array $options): array
    {
        $family = self::family($code);
        $of = array_column($family['variants'], 'hardware', 'code')[$variant];
        $bodies = array_column($family['options'], 'body', 'code');
        $changes = array_map(fn (string $o): array => $bodies[$o]['power'], $options);
        $power = $family['body']['power'];
        foreach (['capacities', 'accumulators', 'pressure_kpa'] as $field) {
            $power[$field] = array_replace($power[$field] ?? [], $of[$field] ?? []);
        }
        $power['lockup'] = $of['lockup'] === 'none' ? null : $power['lockup'];

        return BuiltHardware::of($power, array_column($family['train']['gears'], 'name'), $changes);
    }

    /**
     * @param  list<string>  $options
     * @return array<string, mixed> of the family, or of a unit as it is built
     */
    public static function program(string $code, string $variant = '', array $options = []): array
    {
        $program = self::family($code)['testPrograms'][0]['body'];
        if ($variant === '') {
            return $program;
        }

        // The package that builds it so has limits of its own.
        $sold = array_filter(
            self::family($code)['packages'],
            fn (array $p): bool => array_diff($options, $p['body']['options']) === [],
        );

        return UnitProgram::of(
            $program,
            array_values($sold)[0]['code'] ?? '',
            $variant,
            $options,
            self::hardware($code, $variant, $options)['lockup'],
        );
    }

    /**
     * @param  list<array{fault: string, where?: string, severity?: float}>  $faults
     * @param  list<string>  $options
     * @return array{analysis: array<string, mixed>, readings: list<array<string, mixed>>, checks: list<array<string,
     *     mixed>>}
     */
    public static function run(
        string $code,
        array $faults,
        int $seed,
        string $variant = '',
        array $options = [],
    ): array {
        $specimen = self::specimen($code, $seed, variant: $variant, options: $options);

        return self::judged($code, $specimen, self::program($code, $variant, $options), $seed, $faults);
    }

    /**
     * @param  array<string, mixed>  $specimen
     * @param  array<string, mixed>  $program
     * @param  list<array{fault: string, where?: string, severity?: float}>  $faults
     * @return array{analysis: array<string, mixed>, readings: list<array<string, mixed>>, checks: list<array<string,
     *     mixed>>}
     */
    public static function judged(string $code, array $specimen, array $program, int $seed, array $faults = []): array
    {
        $channels = array_fill_keys(Rig::CHANNELS, []);
        $run = Once::run($specimen, $faults, $program['steps'], (float) $program['end'], $seed);
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
