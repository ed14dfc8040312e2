<?php

namespace App\Shop;

/** Eloquent decodes a JSON column at every access; a frozen specification is read dozens of times a request. */
trait KeepsDecodedJson
{
    /** @var array<string, array{mixed, mixed}> column => raw value, decoded value */
    private array $decodedJson = [];

    protected function castAttribute($key, $value)
    {
        if (($this->casts[$key] ?? null) !== 'array') {
            return parent::castAttribute($key, $value);
        }
        if (! isset($this->decodedJson[$key]) || $this->decodedJson[$key][0] !== $value) {
            $this->decodedJson[$key] = [$value, parent::castAttribute($key, $value)];
        }

        return $this->decodedJson[$key][1];
    }
}
