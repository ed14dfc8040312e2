<?php

namespace App\Catalog\Models;

use App\Kernel\Record;

/** One uploaded CSV file: checked first, shown as a preview, then written whole or not at all. */
final class CsvImport extends Record
{
    protected $table = 'csv_imports';

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
