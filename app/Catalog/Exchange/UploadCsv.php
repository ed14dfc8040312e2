<?php

namespace App\Catalog\Exchange;

use App\Catalog\Models\CsvImport;
use App\Kernel\Refusal;
use App\Kernel\Transaction;
use App\Shop\Models\Person;
use Illuminate\Http\UploadedFile;

/** Takes a CSV file in and has it checked; writing waits for somebody to have seen the preview. */
final class UploadCsv
{
    public function upload(string $kind, UploadedFile $file, Person $by): CsvImport
    {
        $this->noneRunning();
        $path = 'imports/'.hash_file('sha256', $file->getRealPath()).'.csv';
        $full = config('yard.state')."/app/$path";
        @mkdir(dirname($full), 0775, true);
        if (! @copy($file->getRealPath(), $full)) {
            throw new Refusal('The file could not be stored: the disk may be full.', 507);
        }
        $import = CsvImport::create([
            'kind' => $kind,
            'filename' => mb_substr($file->getClientOriginalName(), -160),
            'path' => $path,
            'state' => 'checking',
            'started_by' => $by->id,
            'started_at' => now(),
        ]);
        Transaction::afterCommit(fn () => RunCsvImport::dispatch($import->id));

        return $import;
    }

    public function confirm(CsvImport $import, Person $by): void
    {
        if ($import->state !== 'ready') {
            throw new Refusal('This file cannot be written now; its state is "'.$import->state.'".', 409);
        }
        $this->noneRunning();
        $import->update(['state' => 'importing', 'done' => 0, 'started_by' => $by->id]);
        Transaction::afterCommit(fn () => RunCsvImport::dispatch($import->id));
    }

    public function cancel(CsvImport $import): void
    {
        match ($import->state) {
            'ready' => $import->update(['state' => 'cancelled', 'ended_at' => now()]),
            'checking', 'importing' => $import->update(['cancel_requested' => true]),
            default => throw new Refusal('This import is already over.', 409),
        };
    }

    private function noneRunning(): void
    {
        if (
            CsvImport::query()
                ->whereIn('state', ['checking', 'importing'])
                ->where('started_at', '>', now()->subHour())
                ->exists()
        ) {
            throw new Refusal('Another file is being worked on; wait until it is done or cancel it.', 409);
        }
    }
}
