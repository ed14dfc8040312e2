<?php

namespace App\Catalog\Models;

use App\Kernel\Record;

/** Hypotheses and features for evidence.rank, kept as data. */
final class EvidenceModel extends Record
{
    protected $table = 'evidence_models';

    protected $casts = ['body' => 'array'];
}
