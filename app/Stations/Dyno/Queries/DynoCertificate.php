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
    private const WIDTH = 680;

    private const HEIGHT = 180;

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
            'speeds' => self::picture($trace, self::CURVES, 'rev/min'),
            'line' => self::picture($trace, ['line_kpa' => ['#8a6d00', '']], 'kPa'),
        ];
    }

    /**
     * @param  array{from_s: float, every_s: float, channels: array<string, list<float>>}  $trace
     * @param  array<string, array{string, string}>  $curves
     * @return string a picture as a data address
     */
    private static function picture(array $trace, array $curves, string $unit): string
    {
        $drawn = array_intersect_key($trace['channels'], $curves);
        $most = max([1.0, ...array_map(static fn (array $v): float => max([0.0, ...$v]), array_values($drawn))]);
        $top = 250.0 * ceil($most / 250.0);
        $lines = '';
        foreach ([0.0, 0.5, 1.0] as $share) {
            $y = self::HEIGHT - 20 - $share * (self::HEIGHT - 30);
            $lines .= sprintf('<line x1="45" y1="%1$.1f" x2="%2$d" y2="%1$.1f" stroke="#bbb"/>', $y, self::WIDTH);
            $said = ($share * $top).($share > 0.9 ? " $unit" : '');
            $lines .= sprintf('<text x="0" y="%.1f" font-size="9">%s</text>', $y - 2, $said);
        }
        foreach ($drawn as $channel => $values) {
            [$colour, $dash] = $curves[$channel];
            $points = [];
            // On paper the middle between least and most of each stretch is enough.
            $middle = static fn (array $pair): float => array_sum($pair) / count($pair);
            $values = array_map($middle, array_chunk($values, 2));
            $count = max(1, count($values) - 1);
            foreach ($values as $k => $value) {
                $points[] = sprintf(
                    '%.1f,%.1f',
                    45 + ($k * (self::WIDTH - 45)) / $count,
                    self::HEIGHT - 20 - (max(0.0, $value) / $top) * (self::HEIGHT - 30),
                );
            }
            $lines .= sprintf(
                '<polyline fill="none" stroke="%s" stroke-width="1" stroke-dasharray="%s" points="%s"/>',
                $colour,
                $dash,
                implode(' ', $points),
            );
        }
        $seconds = $trace['every_s'] * max(1, count(current($drawn) ?: []));
        $below = '<text x="%d" y="%d" font-size="9">%.0f s</text>';
        $lines .= sprintf($below, self::WIDTH - 30, self::HEIGHT - 6, $seconds);
        $svg = sprintf(
            '<svg xmlns="http://www.w3.org/2000/svg" width="%d" height="%d">%s</svg>',
            self::WIDTH,
            self::HEIGHT,
            $lines,
        );

        return 'data:image/svg+xml;base64,'.base64_encode($svg);
    }
}
