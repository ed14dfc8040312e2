<?php

namespace App\Stations\Dyno\Queries;

/** Curves of a run as a picture on paper, below zero too: in reverse the output turns the other way. */
final class PaperCurves
{
    private const WIDTH = 680;

    private const HEIGHT = 180;

    /** Room for the numbers on the left, and above and below the curves. */
    private const LEFT = 45;

    private const ABOVE = 10;

    private const BELOW = 20;

    /** The scale begins and ends at whole steps of this. */
    private const STEP = 250.0;

    /** What lies below zero by less than this share of the most is noise about zero. */
    private const NOISE = 0.02;

    private readonly float $top;

    private readonly float $bottom;

    /**
     * @param  array<string, list<float>>  $drawn  by channel
     * @param  array<string, array{string, string}>  $strokes  channel => colour and dash
     */
    private function __construct(private readonly array $drawn, private readonly array $strokes)
    {
        $all = array_merge([0.0], ...array_values($drawn));
        [$least, $most] = [min($all), max($all)];
        $this->top = self::STEP * max(1.0, ceil($most / self::STEP));
        $this->bottom = -$least < self::NOISE * $most ? 0.0 : self::STEP * floor($least / self::STEP);
    }

    /**
     * @param  array{from_s: float, every_s: float, channels: array<string, list<float>>}  $trace
     * @param  array<string, array{string, string}>  $strokes
     * @return string a picture as a data address
     */
    public static function of(array $trace, array $strokes, string $unit): string
    {
        $asked = array_intersect_key($trace['channels'], $strokes);
        $drawn = array_map(self::middles(...), $asked);
        $picture = new self($drawn, $strokes);
        $seconds = $trace['every_s'] * max(1, count(current($asked) ?: []));
        $lines = $picture->scale($unit).implode(array_map($picture->curve(...), array_keys($drawn)));
        $lines .= sprintf(
            '<text x="%d" y="%d" font-size="9">%.0f s</text>',
            self::WIDTH - 30,
            self::HEIGHT - 6,
            $seconds,
        );
        $svg = sprintf(
            '<svg xmlns="http://www.w3.org/2000/svg" width="%d" height="%d">%s</svg>',
            self::WIDTH,
            self::HEIGHT,
            $lines,
        );

        return 'data:image/svg+xml;base64,'.base64_encode($svg);
    }

    /**
     * @param  list<float>  $values  least and most of each stretch by turns
     * @return list<float> the middle of each
     */
    private static function middles(array $values): array
    {
        return array_map(static fn (array $pair): float => array_sum($pair) / count($pair), array_chunk($values, 2));
    }

    private function y(float $value): float
    {
        $room = self::HEIGHT - self::BELOW - self::ABOVE;

        return self::ABOVE + ($room * ($this->top - $value)) / ($this->top - $this->bottom);
    }

    private function scale(string $unit): string
    {
        $lines = '';
        foreach (array_unique([$this->bottom, 0.0, 0.5 * $this->top, $this->top]) as $value) {
            $y = $this->y($value);
            $lines .= sprintf(
                '<line x1="%1$d" y1="%2$.1f" x2="%3$d" y2="%2$.1f" stroke="#bbb"/>',
                self::LEFT,
                $y,
                self::WIDTH,
            );
            $said = $value.($value === $this->top ? " $unit" : '');
            $lines .= sprintf('<text x="0" y="%.1f" font-size="9">%s</text>', $y - 2, $said);
        }

        return $lines;
    }

    private function curve(string $channel): string
    {
        $values = $this->drawn[$channel];
        $last = max(1, count($values) - 1);
        $points = [];
        foreach ($values as $k => $value) {
            $x = self::LEFT + ($k * (self::WIDTH - self::LEFT)) / $last;
            $points[] = sprintf('%.1f,%.1f', $x, $this->y($value));
        }
        [$colour, $dash] = $this->strokes[$channel];

        return sprintf(
            '<polyline fill="none" stroke="%s" stroke-width="1" stroke-dasharray="%s" points="%s"/>',
            $colour,
            $dash,
            implode(' ', $points),
        );
    }
}
