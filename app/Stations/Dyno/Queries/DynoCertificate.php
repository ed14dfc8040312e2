<?php

namespace App\Stations\Dyno\Queries;

use App\Kernel\Refusal;
use App\Shop\Queries\PeopleNames;
use App\Stations\Dyno\Models\Run;
use App\Stations\Dyno\Models\RunCheck;
use App\Stations\Dyno\Pyramid;
use App\Stations\Dyno\Trace;

/** What one run proved, on paper: the curves, every number with its window, who judged it, and the recording's hash. */
final class DynoCertificate
{
    private const POINTS = 700;

    /** Curve => colour and dash, as they stand in the key below the picture. */
    private const CURVES = [
        'input_rpm' => ['#777777', ''],
        'turbine_rpm' => ['#a33b1e', ''],
        'output_rpm' => ['#1f6b4a', '6,3'],
    ];

    public function __construct(private readonly PeopleNames $names)
    {
    }

    /** @return array<string, mixed> */
    public function of(Run $run): array
    {
        if ($run->analysis === null || ! Trace::exists($run)) {
            throw new Refusal('This run is not analysed, so there is nothing to certify.', 409);
        }
        $trace = Pyramid::read($run, 0.0, (float) $run->program['end'], self::POINTS);

        return [
            'run' => $run,
            'build' => $run->build,
            'spec' => $run->build->frozen(),
            'by' => $this->names->of($run->verdict_by),
            'operator' => $this->names->of($run->started_by),
            'checks' => $run->checks->map(fn (RunCheck $c) => $c->shown())->all(),
            'readings' => $run->analysis['readings'] ?? [],
            'suspects' => $run->analysis['suspects'] ?? [],
            'speeds' => PaperCurves::of($trace, self::CURVES, 'rev/min'),
            'line' => PaperCurves::of($trace, ['line_kpa' => ['#8a6d00', '']], 'kPa'),
        ];
    }
}
