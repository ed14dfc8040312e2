<?php

namespace App\Kernel;

use Illuminate\Database\Eloquent\Model;
use Illuminate\Support\Carbon;

/** A row of the yard's tables: written whole by its action, without time stamps of the framework. */
abstract class Record extends Model
{
    public $timestamps = false;

    /** @var list<string>|null what the framework's own traits ask for with each new record */
    private static ?array $initializers = null;

    /** @var array<class-string, array<string, string>> column => cast; no record changes those of its class */
    private static array $castsOf = [];

    /** @var array<class-string, array<string, bool>> column => it is read as it stands */
    private static array $plain = [];

    /** @var array<class-string, array<string, bool>> column => a method of its class reads it */
    private static array $mutated = [];

    /** @var array<string, array{mixed, mixed}> column => raw value, decoded value */
    private array $decodedJson = [];

    /**
     * Records have no traits, observers or scopes of their own, so what is found for one holds for all. The framework
     * would look through every method of every class again in each request.
     */
    protected static function bootTraits(): void
    {
        if (self::$initializers === null) {
            parent::bootTraits();
            self::$initializers = static::$traitInitializers[static::class];
        }
        static::$traitInitializers[static::class] = self::$initializers;
    }

    /** @var array<string, list<list<string>>> JSON column => groups of keys kept as papers */
    protected const PAPERS = [];

    public function setAttribute($key, $value)
    {
        $parted = is_array($value) && isset(static::PAPERS[$key]);

        return parent::setAttribute($key, $parted ? Papers::parted($value, static::PAPERS[$key]) : $value);
    }

    /** The framework puts them together anew at every access to a column. */
    public function getCasts()
    {
        return self::$castsOf[static::class] ??= parent::getCasts();
    }

    /** Nearly every column is; the framework asks four questions at every access to find that out. */
    protected function transformModelValue($key, $value)
    {
        $plain = self::$plain[static::class][$key] ??= ! $this->hasGetMutator($key) &&
            ! $this->hasAttributeGetMutator($key) &&
            ! $this->hasCast($key) &&
            ! in_array($key, $this->getDates(), true);

        return $plain ? $value : parent::transformModelValue($key, $value);
    }

    public function hasGetMutator($key)
    {
        return self::$mutated[static::class][$key] ??= parent::hasGetMutator($key);
    }

    /** A moment as the database writes it is read as it stands. */
    protected function asDateTime($value)
    {
        return is_string($value) && strlen($value) === 19 ? new Carbon($value) : parent::asDateTime($value);
    }

    /** Eloquent decodes a JSON column at every access; a frozen specification is read dozens of times a request. */
    protected function castAttribute($key, $value)
    {
        if (($this->casts[$key] ?? null) !== 'array') {
            return parent::castAttribute($key, $value);
        }
        if (! isset($this->decodedJson[$key]) || $this->decodedJson[$key][0] !== $value) {
            $decoded = parent::castAttribute($key, $value);
            $kept = isset(static::PAPERS[$key]) && is_array($decoded);
            $this->decodedJson[$key] = [$value, $kept ? Papers::whole($decoded) : $decoded];
        }

        return $this->decodedJson[$key][1];
    }
}
