<?php

namespace App\Shop\Models;

use Illuminate\Database\Eloquent\Model;

/**
 * What somebody is good at, in the shop's own words.
 *
 * @property int $person_id
 * @property string $skill
 */
final class PersonSkill extends Model
{
    protected $table = 'person_skills';

    protected $primaryKey = 'skill';

    protected $keyType = 'string';

    public $incrementing = false;

    public $timestamps = false;

    protected $fillable = ['person_id', 'skill'];
}
