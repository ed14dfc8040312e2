<?php

namespace App\Catalog;

use App\Shop\KeepsDecodedJson;
use Illuminate\Database\Eloquent\Model;

/** Hypotheses and features for evidence.rank, kept as data. */
final class EvidenceModel extends Model
{
    use KeepsDecodedJson;

    protected $table = 'evidence_models';

    protected $guarded = [];

    public $timestamps = false;

    protected $casts = ['body' => 'array'];
}
