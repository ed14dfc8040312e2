<?php

namespace App\Catalog;

use Illuminate\Database\Eloquent\Model;

/** Hypotheses and features for evidence.rank, kept as data. */
final class EvidenceModel extends Model
{
    protected $table = 'evidence_models';

    protected $guarded = [];

    public $timestamps = false;

    protected $casts = ['body' => 'array'];
}
