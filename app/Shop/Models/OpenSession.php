<?php

namespace App\Shop\Models;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Database\Eloquent\Relations\BelongsTo;
use Illuminate\Support\Carbon;

/**
 * A badge that is signed in on a tablet. Without this row the cookie opens nothing.
 *
 * @property string $id SHA-256 of the session's own id, which nobody else learns
 * @property int $person_id
 * @property string $tablet_id
 * @property string $address
 * @property Carbon $since
 * @property Carbon $seen_at
 * @property Carbon|null $locked_at nobody touched the tablet for a while
 * @property-read Person $person
 * @property-read Tablet $tablet
 */
final class OpenSession extends Model
{
    protected $table = 'open_sessions';

    protected $keyType = 'string';

    public $incrementing = false;

    public $timestamps = false;

    protected $fillable = ['id', 'person_id', 'tablet_id', 'address', 'since', 'seen_at', 'locked_at'];

    protected $casts = ['since' => 'datetime', 'seen_at' => 'datetime', 'locked_at' => 'datetime'];

    /** @return BelongsTo<Person, $this> */
    public function person(): BelongsTo
    {
        return $this->belongsTo(Person::class);
    }

    /** @return BelongsTo<Tablet, $this> */
    public function tablet(): BelongsTo
    {
        return $this->belongsTo(Tablet::class);
    }
}
