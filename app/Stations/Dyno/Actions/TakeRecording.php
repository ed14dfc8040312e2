<?php

namespace App\Stations\Dyno\Actions;

use App\Kernel\Ledger\Ledger;
use App\Kernel\Refusal;
use App\Kernel\Transaction;
use App\Shop\Models\Person;
use App\Stations\Dyno\Models\Run;
use App\Yard\Contracts\DynoRecord;
use App\Yard\Models\Build;
use Illuminate\Http\UploadedFile;
use Yard\Core\BadInput;
use Yard\Core\Drivetrain\ApplyChart;
use Yard\Core\Dyno\ForeignCsv;
use Yard\Core\Input;

/** A recording of another rig or of a drive: kept beside the runs of the unit, looked at like them, never judged. */
final class TakeRecording
{
    public function __construct(private readonly Ledger $ledger, private readonly DynoRecord $record)
    {
    }

    /** @param  array{time: array<string, string>|null, channels: array<string, array<string, string>>,
     *     rate_hz: float|null}  $as  which columns are what
     */
    public function take(Build $build, UploadedFile $file, array $as, Person $by): Run
    {
        try {
            new ForeignCsv(...self::columns($as));
        } catch (BadInput $e) {
            throw Refusal::at("/as$e->path", $e->getMessage());
        }
        $run = Run::create([
            'build_id' => $build->id,
            'loop_no' => $this->record->loop($build),
            'state' => 'queued',
            'specimen' => mb_substr($file->getClientOriginalName(), -40),
            'cell' => '',
            'purpose' => 'foreign',
            'started_by' => $by->id,
            'queued_at' => now(),
            'program' => [
                'rate_hz' => 0,
                'end' => 0,
                'steps' => [],
                'limits' => [],
                'reference' => [],
                'ratios' => ApplyChart::read(Input::of($build->frozen()['train']))->ratios(),
                'source' => mb_substr($file->getClientOriginalName(), -160),
                'confidence' => 'recorded elsewhere',
                'as' => $as,
            ],
        ]);
        @mkdir(dirname(self::path($run)), 0775, true);
        if (! @rename($file->getRealPath(), self::path($run)) && ! @copy($file->getRealPath(), self::path($run))) {
            throw new Refusal('The file could not be stored: the disk may be full.', 507);
        }
        $this->ledger->onUnit($build->unit, 'recording.taken', [
            'run' => $run->id,
            'file' => $run->program['source'],
            'sha256' => hash_file('sha256', self::path($run)),
        ]);
        Transaction::afterCommit(fn () => ReadRecording::dispatch($run->id));

        return $run->refresh();
    }

    /** As it came, until it is read. */
    public static function path(Run $run): string
    {
        return config('yard.state')."/app/traces/foreign-$run->id.csv";
    }

    /**
     * @param  array<string, mixed>  $as
     * @return array{array{column: string, unit: string}|null, array<string, array{column: string, unit: string}>,
     *     float|null}
     */
    public static function columns(array $as): array
    {
        $of = fn (array $c): array => ['column' => (string) $c['column'], 'unit' => (string) $c['unit']];

        return [
            isset($as['time']) ? $of($as['time']) : null,
            array_map($of, $as['channels']),
            isset($as['rate_hz']) ? (float) $as['rate_hz'] : null,
        ];
    }
}
