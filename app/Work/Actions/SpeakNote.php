<?php

namespace App\Work\Actions;

use App\Kernel\Ledger\Ledger;
use App\Kernel\Refusal;
use App\Shop\Models\Person;
use App\Work\Answer;
use App\Work\Bench;
use App\Work\Models\Recording;
use App\Yard\Models\Unit;
use Illuminate\Http\UploadedFile;

/** Keeps what somebody with full hands says at an operation. */
final class SpeakNote
{
    /** What browsers record: where its mark stands in the file, the mark, its type and ending. */
    private const CONTAINERS = [
        [0, "\x1A\x45\xDF\xA3", 'audio/webm', 'webm'],
        [0, 'OggS', 'audio/ogg', 'ogg'],
        [4, 'ftyp', 'audio/mp4', 'm4a'],
    ];

    public function __construct(private readonly Ledger $ledger, private readonly WorkOnUnit $door)
    {
    }

    public function speak(Unit $unit, Bench $bench, string $code, UploadedFile $file, Answer $answer, Person $by): void
    {
        $work = $this->door->at($unit, $bench);
        $operation = WorkOnUnit::operation($work, $code);
        $sound = (string) file_get_contents($file->getRealPath());
        [$type, $ending] = self::container($sound);
        $sha = hash('sha256', $sound);
        $path = 'spoken/'.substr($sha, 0, 2)."/$sha.$ending";
        $full = config('yard.state')."/app/$path";
        @mkdir(dirname($full), 0775, true);
        if (file_put_contents($full, $sound) !== strlen($sound)) {
            throw new Refusal('The recording could not be stored: the disk may be full.', 507);
        }
        Recording::create([
            'unit_id' => $unit->id,
            'generation' => $work->generation,
            'bench' => $bench->value,
            'operation' => $operation->code,
            'path' => $path,
            'type' => $type,
            'bytes' => strlen($sound),
            'sha256' => $sha,
            'spoken_by' => $by->id,
            'spoken_at' => $answer->at,
            'tablet_at' => $answer->tablet,
        ]);
        $this->ledger->onUnit($unit, "$bench->value.spoken", ['operation' => $code, 'sha256' => $sha]);
    }

    /** @return array{string, string} type and ending */
    private static function container(string $sound): array
    {
        foreach (self::CONTAINERS as [$at, $mark, $type, $ending]) {
            if (substr($sound, $at, strlen($mark)) === $mark) {
                return [$type, $ending];
            }
        }
        throw Refusal::at('/sound', 'This is not a recording of a browser (WebM, Ogg or MP4).');
    }
}
