<?php

namespace App\Catalog\Models;

use App\Kernel\Record;
use Illuminate\Support\Carbon;

/**
 * One uploaded CSV file: checked first, shown as a preview, then written whole or not at all.
 *
 * @property int $id
 * @property string $kind
 * @property string $filename
 * @property string $path
 * @property string $state
 * @property int $total
 * @property int $done
 * @property int $new_rows
 * @property int $changed_rows
 * @property int $same_rows
 * @property int $error_rows
 * @property array<mixed> $errors
 * @property array<mixed> $preview
 * @property string $failure
 * @property bool $cancel_requested
 * @property int $started_by
 * @property Carbon $started_at
 * @property Carbon|null $ended_at
 */
final class CsvImport extends Record
{
    protected $table = 'csv_imports';

    protected $fillable = [
        'kind',
        'filename',
        'path',
        'state',
        'total',
        'done',
        'new_rows',
        'changed_rows',
        'same_rows',
        'error_rows',
        'errors',
        'preview',
        'failure',
        'cancel_requested',
        'started_by',
        'started_at',
        'ended_at',
    ];

    protected $casts = [
        'errors' => 'array',
        'preview' => 'array',
        'cancel_requested' => 'boolean',
        'started_at' => 'datetime',
        'ended_at' => 'datetime',
    ];

    public function fullPath(): string
    {
        return config('yard.state').'/app/'.$this->path;
    }
}
