<?php

namespace Tests\Feature;

use App\Stations\Dyno\Queries\PaperCurves;
use PHPUnit\Framework\TestCase;

/** The picture of a run on paper. */
final class PaperCurvesTest extends TestCase
{
    public function test_what_turns_backwards_is_drawn_below_the_line_of_zero(): void
    {
        $picture = PaperCurves::of([
            'from_s' => 0.0,
            'every_s' => 2.0,
            'channels' => ['output_rpm' => [980.0, 1000.0, -310.0, -290.0], 'temp_degc' => [5000.0]],
        ], ['output_rpm' => ['#000000', '']], 'rev/min');
        [, $encoded] = explode(';base64,', $picture);
        $svg = simplexml_load_string((string) base64_decode($encoded, true));
        $this->assertNotFalse($svg);
        $lines = [];
        foreach ($svg->line as $line) {
            $lines[] = (float) $line['y1'];
        }
        $numbers = array_map(strval(...), iterator_to_array($svg->text, false));
        $this->assertSame(['-500', '0', '500', '1000 rev/min', '8 s'], $numbers);
        [$forward, $back] = array_map(
            fn (string $point): float => (float) explode(',', $point)[1],
            explode(' ', (string) $svg->polyline['points']),
        );
        // The middle of each stretch, on the scale its lines make.
        $at = fn (float $y): float => 1000.0 * ($lines[1] - $y) / ($lines[1] - $lines[3]);
        $this->assertEqualsWithDelta(990.0, $at($forward), 1.0);
        $this->assertEqualsWithDelta(-300.0, $at($back), 1.0);
        $still = PaperCurves::of([
            'from_s' => 0.0,
            'every_s' => 2.0,
            'channels' => ['line_kpa' => [-4.0, -2.0, 700.0, 702.0]],
        ], ['line_kpa' => ['#000000', '']], 'kPa');
        [, $encoded] = explode(';base64,', $still);
        $this->assertStringNotContainsString('-250', (string) base64_decode($encoded, true), 'noise about zero');
        $this->assertCount(1, $svg->polyline, 'a channel nobody asked for is not drawn');
    }
}
