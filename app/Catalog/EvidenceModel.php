<?php

namespace App\Catalog;

use App\Shop\Record;

/** Hypotheses and features for evidence.rank, kept as data. */
final class EvidenceModel extends Record
{
    protected $table = 'evidence_models';

    protected $casts = ['body' => 'array'];
}
