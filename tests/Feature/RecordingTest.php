<?php

namespace Tests\Feature;

use App\Stations\Dyno\Actions\AnalyseRun;
use App\Stations\Dyno\Actions\OnTheRig;
use App\Stations\Dyno\Actions\ReadRecording;
use App\Stations\Dyno\Models\Run;
use App\Stations\Dyno\Trace;
use Illuminate\Http\UploadedFile;
use Illuminate\Support\Facades\Queue;
use Illuminate\Support\Str;
use Illuminate\Testing\TestResponse;
use Tests\TestCase;
use Yard\Rig\Once;

require_once dirname(__DIR__, 2).'/rig/classes.php';

/** Recordings made elsewhere: their columns are told, they are measured like a run, and are no verdict. */
final class RecordingTest extends TestCase
{
    private const AS = [
        'time' => ['column' => 'Zeit', 'unit' => 'ms'],
        'channels' => [
            'input_rpm' => ['column' => 'Motor', 'unit' => 'rad/s'],
            'output_rpm' => ['column' => 'Abtrieb', 'unit' => 'rpm'],
            'line_kpa' => ['column' => 'p', 'unit' => 'bar'],
        ],
    ];

    /** @param  array<string, mixed>  $as */
    private function send(string $text, array $as = self::AS): TestResponse
    {
        Queue::fake();
        $file = UploadedFile::fake()->createWithContent('drive.csv', $text);

        return $this->held('post', '/units/C-9001/dyno/recordings', $this->post(
            '/api/units/C-9001/dyno/recordings',
            ['file' => $file, 'as' => json_encode($as)],
            ['Accept' => 'application/json', 'Idempotency-Key' => (string) Str::uuid()],
        ));
    }

    private function taken(TestResponse $sent): Run
    {
        $id = $sent->assertCreated()->json('id');
        (new ReadRecording($id))->handle();
        $run = Run::query()->findOrFail($id);
        if ($run->state === 'recorded') {
            Queue::assertPushed(AnalyseRun::class);
            app()->call([new AnalyseRun($id), 'handle']);
        }

        return $run->refresh();
    }

    public function test_a_recording_of_another_rig_is_measured_and_is_no_verdict(): void
    {
        $this->bringTo('dyno');
        $build = $this->unit('C-9001')->currentBuild;
        $file = json_decode((string) json_encode(app(OnTheRig::class)->file($build)), true);
        $steps = $build->frozen()['testProgram']['steps'];
        $text = "Zeit;Motor;Abtrieb;p;T\n";
        foreach (Once::run($file, [], array_filter($steps, fn (array $s) => $s['t'] < 43.0), 43.0, 5) as $row) {
            $cells = [1000 * $row[0], $row[1] * M_PI / 30, $row[3], $row[6] / 100, $row[2]];
            $text .= strtr(implode(';', array_map(fn ($v) => sprintf('%.5f', $v), $cells)), '.', ',')."\n";
        }
        $this->as('dyno');
        $as = self::AS;
        $as['channels']['turbine_rpm'] = ['column' => 'T', 'unit' => 'rpm'];
        $run = $this->taken($this->send($text, $as));
        $this->assertSame('analysed', $run->state, (string) $run->error);
        $this->assertSame([null, 'foreign'], [$run->verdict, $run->purpose]);
        $this->assertEqualsWithDelta(200.0, $run->program['rate_hz'], 0.5);
        $shifts = array_map(fn (array $s) => "$s[from]-$s[to]", $run->analysis['shifts']);
        $this->assertSame(['1-2', '2-3', '3-4'], array_values(array_intersect($shifts, ['1-2', '2-3', '3-4'])));
        $this->assertEqualsWithDelta(74 / 26, array_column($run->analysis['gears'], 'ratioMean', 'gear')['1'], 0.02);
        $this->assertGreaterThan(3.0, (float) $run->analysis['pressure']['max_kpa'] / 100.0);
        $this->assertFileDoesNotExist(config('yard.state')."/app/traces/foreign-$run->id.csv");

        $paper = (string) $this->get("/api/dyno/runs/$run->id/certificate")->assertOk()->getContent();
        $this->assertStringContainsString('Recorded elsewhere, file drive.csv: measured, and no verdict', $paper);
        $this->assertStringNotContainsString('certificate', $paper);
        $this->assertProblem($this->write("/dyno/runs/$run->id/verdict", ['verdict' => 'pass']), 409, 'no pass');
        $this->assertSame(['foreign'], array_column($this->onCard('dyno.runs'), 'purpose'));
        $this->write('/units/C-9001/dyno/runs', ['cell' => 'A'])->assertCreated();
    }

    public function test_what_is_no_recording_ends_with_its_line_and_leaves_nothing(): void
    {
        $this->bringTo('dyno');
        $this->as('dyno');
        $run = $this->taken($this->send("Zeit;Motor;Abtrieb;p\n0;80;500;4\n5;=1+1;500;4\n"));
        $this->assertSame('failed', $run->state);
        $this->assertStringContainsString('Line 3: column Motor holds "=1+1"', (string) $run->error);
        $this->assertFileDoesNotExist(config('yard.state')."/app/traces/foreign-$run->id.csv");
        $cancelled = $this->send("Zeit;Motor;Abtrieb;p\n".str_repeat("0;80;500;4\n", 3).'5;80;500;4');
        Run::query()->findOrFail($cancelled->json('id'))->update(['cancel_requested' => true]);
        $this->assertSame('cancelled', $this->taken($cancelled)->state);
    }

    public function test_what_is_told_wrongly_is_said_at_its_place(): void
    {
        $this->bringTo('dyno');
        $this->as('dyno');
        $unit = self::AS;
        $unit['channels']['line_kpa']['unit'] = 'weeks';
        $this->assertProblem($this->send('x', $unit), 422, 'weeks', '/as/channels/line_kpa/unit');
        $this->assertProblem($this->send('x', ['channels' => []]), 422, 'channels');
        $this->assertProblem($this->send('x', ['time' => null] + self::AS), 422, 'how many samples', '/as/rate_hz');
        $this->as('viewer');
        $this->assertProblem($this->send('x'), 403, '');
    }

    public function test_what_was_recorded_is_written_down_by_the_house_in_its_own_way(): void
    {
        $this->bringTo('dyno');
        $this->as('dyno');
        $text = "Zeit;Motor;Abtrieb;p\n";
        for ($k = 0; $k < 2000; $k++) {
            $text .= 10 * $k.';'.(100 + $k % 3).";300;5\n";
        }
        $run = $this->taken($this->send($text));
        $this->assertSame('analysed', $run->state, (string) $run->error);
        $kept = explode("\n", (string) file_get_contents('compress.zlib://'.Trace::path($run).'.gz'));
        $this->assertSame('t_s,input_rpm,output_rpm,line_kpa', $kept[0]);
        $this->assertSame('0.01,964.478955,300,500', $kept[2]);
    }
}
